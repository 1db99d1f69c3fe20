"""Names as the measures see them, for a brief about letters."""

from __future__ import annotations

from vinetag.core.brief import parse_brief
from vinetag.core.candidates import Candidate
from vinetag.core.grade import MEASURES, Grader, Reading
from vinetag.core.lexicon import load_lexicon

__all__ = ["LEXICON", "reading"]

LEXICON = load_lexicon()
ABOUT = {"about": "A monthly letterpress stationery club", "keywords": ["ink", "paper", "post"]}
GRADER = Grader(parse_brief(ABOUT), LEXICON, MEASURES)


def reading(label: str) -> Reading:
    """As a grader reads it."""
    return GRADER.read_any(Candidate(label, (), (), 0.0))
