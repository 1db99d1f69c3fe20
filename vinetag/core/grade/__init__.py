"""Grading: measures give 0 to 100 with reasons; the grade weighs them by purpose or by will."""

from vinetag.core.grade.judge import Grade, Grader
from vinetag.core.grade.measures import MEASURES
from vinetag.core.grade.measures.spelling import misspellings
from vinetag.core.grade.reading import Reading
from vinetag.core.grade.scale import Assessment, Finding, Measure, Reason
from vinetag.core.grade.warn import Warning, warnings
from vinetag.core.grade.weigh import EXPONENT, PRESETS, shares, weigh, weights_of

__all__ = [
    "EXPONENT",
    "MEASURES",
    "PRESETS",
    "Assessment",
    "Finding",
    "Grade",
    "Grader",
    "Measure",
    "Reading",
    "Reason",
    "Warning",
    "misspellings",
    "shares",
    "warnings",
    "weigh",
    "weights_of",
]
