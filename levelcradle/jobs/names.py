"""What of a pack's files is not taken away one by one."""

__all__ = ["SHEETS", "WHOLE"]

WHOLE = "whole.zip"
SHEETS = "sheets"  # the folder of the sheets as pictures, for the screen
