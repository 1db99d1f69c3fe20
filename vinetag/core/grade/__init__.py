"""Grading: measures give 0 to 100 with reasons; the grade weighs them by the brief's purpose."""

from vinetag.core.grade.judge import Grade, Grader, Reading
from vinetag.core.grade.measures import MEASURES
from vinetag.core.grade.scale import Assessment, Finding, Measure, Reason
from vinetag.core.grade.weigh import WEIGHTS, weigh

__all__ = [
    "MEASURES",
    "WEIGHTS",
    "Assessment",
    "Finding",
    "Grade",
    "Grader",
    "Measure",
    "Reading",
    "Reason",
    "weigh",
]
