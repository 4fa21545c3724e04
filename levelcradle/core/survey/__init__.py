"""What a survey is worth: points by swung tapes, checks of bays and scans, what is near, what is still to measure."""

from levelcradle.core.survey.blanks import SurveyBlank, survey_blanks
from levelcradle.core.survey.findings import BayResult, bay_result, survey_findings
from levelcradle.core.survey.missing import Goal, ToMeasure, still_to_measure, twice
from levelcradle.core.survey.near import Carrier, Depth, carriers_near, depth_behind
from levelcradle.core.survey.steady import Sample, Steadiness, steadiness
from levelcradle.core.survey.tapes import Swing, swing

__all__ = [
    "BayResult",
    "Carrier",
    "Depth",
    "Goal",
    "Sample",
    "Steadiness",
    "SurveyBlank",
    "Swing",
    "ToMeasure",
    "bay_result",
    "carriers_near",
    "depth_behind",
    "steadiness",
    "still_to_measure",
    "survey_blanks",
    "survey_findings",
    "swing",
    "twice",
]
