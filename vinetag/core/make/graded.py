"""A name with its grade, as lists are made of."""

from __future__ import annotations

from dataclasses import dataclass

from vinetag.core.candidates import Candidate
from vinetag.core.grade import Grade

__all__ = ["Graded"]


@dataclass(frozen=True, slots=True)
class Graded:
    """A candidate with its grade. `rank` orders the list: the grade, or for near names what keeps
    the idea as well.
    """

    candidate: Candidate
    grade: Grade
    rank: float
