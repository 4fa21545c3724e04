"""Parts and views to drawings to files."""

from levelcradle.drawings.dxf import part_dxf
from levelcradle.drawings.pack import pack_files
from levelcradle.drawings.pdf import sheets_pdf
from levelcradle.drawings.picture import plan_picture
from levelcradle.drawings.register import groups_of, sheets_of
from levelcradle.drawings.subject import Subject, subject_of
from levelcradle.drawings.survey_sheet import survey_sheet_pdf
from levelcradle.drawings.svg import sheet_svg

__all__ = [
    "Subject",
    "groups_of",
    "pack_files",
    "part_dxf",
    "plan_picture",
    "sheet_svg",
    "sheets_of",
    "sheets_pdf",
    "subject_of",
    "survey_sheet_pdf",
]
