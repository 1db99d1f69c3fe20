"""What every measure shares: findings add up to a score, and say why in words."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING, Any, NamedTuple, Protocol

if TYPE_CHECKING:
    from vinetag.core.grade.reading import Reading

__all__ = ["Assessment", "Finding", "Measure", "Reason", "assess", "not_graded", "reasons"]

SHOWN = 3
LONGEST_TOLD = 32
SHARED_WORDING = {"foreign": "Not graded, because “{shown}” is written in letters beyond a to z."}


class Finding(NamedTuple):
    """One thing a measure saw. `points` (negative counts against) speak of the letters from `start`
    up to `end`; `args` fill the measure's wording for `code`.
    """

    code: str
    points: float
    start: int
    end: int
    args: Mapping[str, Any]


class Assessment(NamedTuple):
    """`score`, 0 to 100, is the measure's base plus its findings' points, clipped; None when the
    name cannot be judged, and the findings say why.
    """

    score: float | None
    findings: tuple[Finding, ...]


class Reason(NamedTuple):
    """A finding in words."""

    text: str
    points: float
    start: int
    end: int


class Measure(Protocol):
    """One way to judge a name: a module of its own, pure."""

    @property
    def name(self) -> str:
        """The name of its record in vinetag.core.concepts."""

    @property
    def of_letters(self) -> bool:
        """Whether it looks at the label and its words alone, and at nothing of the brief."""

    @property
    def wording(self) -> Mapping[str, str]:
        """A sentence for each finding's code."""

    def assess(self, reading: Reading) -> Assessment:
        """Judge one name. Never raises for a valid label; gives at least one finding."""


def assess(base: float, findings: Sequence[Finding]) -> Assessment:
    """The assessment whose findings add to `base`."""
    score = base + sum(f.points for f in findings)
    return Assessment(min(100.0, max(0.0, score)), tuple(findings))


def not_graded(reading: Reading, code: str = "foreign") -> Assessment:
    """No score; the one finding says why: by default, that the letters are beyond a to z."""
    args = {"shown": reading.label}
    return Assessment(None, (Finding(code, 0.0, 0, len(reading.label), args),))


def _shortened(value: object) -> object:
    """Long stretches are told by their beginning."""
    if isinstance(value, str) and len(value) > LONGEST_TOLD and " " not in value:
        return value[: LONGEST_TOLD - 1] + "…"
    return value


def reasons(measure: Measure, assessment: Assessment) -> list[Reason]:
    """The weightiest findings in words, at most SHOWN, the weightiest first."""
    ordered = sorted(assessment.findings, key=lambda f: -abs(f.points))
    wording = {**SHARED_WORDING, **measure.wording}
    return [
        Reason(
            wording[f.code].format(**{k: _shortened(v) for k, v in f.args.items()}),
            round(max(-100.0, f.points), 1),
            f.start,
            f.end,
        )
        for f in ordered[:SHOWN]
    ]
