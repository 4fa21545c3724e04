"""Parts and views to drawings to files."""

from levelcradle.drawings.dxf import part_dxf
from levelcradle.drawings.pack import Pack, cut_file, make_pack
from levelcradle.drawings.pdf import sheets_pdf
from levelcradle.drawings.picture import plan_picture
from levelcradle.drawings.register import drawn
from levelcradle.drawings.stale import touched
from levelcradle.drawings.subject import Subject, subject_of
from levelcradle.drawings.survey_sheet import survey_sheet_pdf
from levelcradle.drawings.svg import sheet_svg

__all__ = [
    "Pack",
    "Subject",
    "cut_file",
    "drawn",
    "make_pack",
    "part_dxf",
    "plan_picture",
    "sheet_svg",
    "sheets_pdf",
    "subject_of",
    "survey_sheet_pdf",
    "touched",
]
