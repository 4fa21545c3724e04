"""Parts and views to drawings to files."""

from levelcradle.drawings.cutlist import cut_list_csv
from levelcradle.drawings.dxf import part_dxf
from levelcradle.drawings.pack import job_of, pack_files, sheets_of
from levelcradle.drawings.pdf import sheets_pdf
from levelcradle.drawings.picture import plan_picture
from levelcradle.drawings.survey_sheet import survey_sheet_pdf
from levelcradle.drawings.svg import sheet_svg

__all__ = [
    "cut_list_csv",
    "job_of",
    "pack_files",
    "part_dxf",
    "plan_picture",
    "sheet_svg",
    "sheets_of",
    "sheets_pdf",
    "survey_sheet_pdf",
]
