"""What a name is vetted for, and how much a finding weighs."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final, Literal, get_args

__all__ = [
    "FINDING_KINDS", "FINDING_NAMES", "WEIGHTS", "WEIGHT_KINDS", "FindingKind", "FindingName",
    "Weight", "WeightKind", "worst",
]  # fmt: skip

FindingName = Literal[
    "marks", "prior_use", "mistyped", "handles", "elsewhere", "said", "protection"
]
FINDING_NAMES: Final[tuple[FindingName, ...]] = get_args(FindingName)
# The worst first.
Weight = Literal["stop", "think", "unknown", "note", "clear"]
WEIGHTS: Final[tuple[Weight, ...]] = get_args(Weight)


@dataclass(frozen=True, slots=True)
class FindingKind:
    """`word`: as a person sees it, `short` at the head of a column; `asks`: its question; `lasts`:
    after so many days it is old; `asked`: whether anybody outside is asked.
    """

    name: FindingName
    word: str
    short: str
    asks: str
    lasts: int
    asked: bool = False


@dataclass(frozen=True, slots=True)
class WeightKind:
    """`word`: as a person sees it; `help`: what it tells them."""

    name: Weight
    word: str
    help: str


FINDING_KINDS: Final[Mapping[FindingName, FindingKind]] = {
    kind.name: kind
    for kind in (
        FindingKind("marks", "Marks", "Marks", "Is a mark like it registered?", 30),
        FindingKind(
            "prior_use", "Prior use", "Use", "Does somebody go by it, and is it found?", 7, True
        ),
        FindingKind(
            "mistyped", "Typed by mistake", "Mistypes",
            "Who gets those who mean it and type something else?", 7, True,
        ),
        FindingKind("handles", "Handles", "Handles", "Is the same handle free?", 3, True),
        FindingKind(
            "elsewhere", "Elsewhere in the world", "Abroad", "What is it in other languages?", 90
        ),
        FindingKind(
            "said", "Said and written", "Said", "How does it come across when said and seen?", 90
        ),
        FindingKind(
            "protection", "What to hold", "To hold", "Which names near it are worth holding?", 7
        ),
    )
}  # fmt: skip
WEIGHT_KINDS: Final[Mapping[Weight, WeightKind]] = {
    kind.name: kind
    for kind in (
        WeightKind("stop", "Stop", "Do not go on before this is settled"),
        WeightKind("think", "Think", "A reason to prefer another, or to act"),
        WeightKind("unknown", "Unknown", "It could not be found out"),
        WeightKind("note", "Note", "Good to know"),
        WeightKind("clear", "Clear", "Nothing was found against it"),
    )
}


def worst(weights: list[Weight]) -> Weight:
    """The worst of some; unknown where there is none."""
    return min(weights, key=WEIGHTS.index, default="unknown")
