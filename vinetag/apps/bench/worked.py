"""How the measures are worked out, with worked examples from the demo projects."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache

from vinetag.apps.bench.demo_briefs import DEMO
from vinetag.core.brief import parse_brief
from vinetag.core.candidates import Candidate
from vinetag.core.grade import EXPONENT, MEASURES, PRESETS, Grader, Reason
from vinetag.core.lexicon import load_lexicon

__all__ = ["Example", "Weighing", "weighing"]

PIANO, SKY, PRESS = (item["name"] for item in DEMO)
# A strong name, a weaker one and a poor one for each measure.
EXAMPLES: Mapping[str, Sequence[tuple[str, str]]] = {
    "length": ((SKY, "quietsky"), (SKY, "quietbackyardsky"), (PIANO, "piano-tuning-and-repair")),
    "spelling": ((SKY, "bluesky"), (SKY, "nightsky"), (PRESS, "klaypress")),
    "fit": ((PRESS, "inkpaper"), (PRESS, "stationeryclub"), (PIANO, "brandolo")),
    "sense": ((PRESS, "hotoffthepress"), (PRESS, "inkshop"), (PIANO, "redtide")),
    "sound": ((PIANO, "pianokeyboard"), (SKY, "starsspace"), (PRESS, "pstlpress")),
    "memory": ((SKY, "skyowl"), (PIANO, "pianomaintenance"), (PRESS, "quixaria")),
    "clarity": ((PRESS, "paperpost"), (PRESS, "inksandpress"), (PRESS, "pressexchange")),
}


@dataclass(frozen=True, slots=True)
class Example:
    """A name graded by one measure for a demo project; `score` is None when it could not be."""

    project: str
    label: str
    score: float | None
    reasons: Sequence[Reason]


@dataclass(frozen=True, slots=True)
class Weighing:
    """What the grade is made of: the exponent of its mean, the weights by purpose, and examples by
    measure.
    """

    exponent: float
    presets: Mapping[str, Mapping[str, int]]
    examples: Mapping[str, Sequence[Example]]


@cache
def weighing() -> Weighing:
    """The same for everyone; worked out once."""
    briefs = {item["name"]: parse_brief(item["brief"]) for item in DEMO}
    graders = {name: Grader(b, load_lexicon(), MEASURES) for name, b in briefs.items()}
    examples: dict[str, list[Example]] = {}
    for measure, names in EXAMPLES.items():
        examples[measure] = []
        for project, label in names:
            grader = graders[project]
            found = grader.explain(grader.read_any(Candidate(label, (), (), 0.0)))
            examples[measure].append(Example(project, label, *found[measure]))
    return Weighing(EXPONENT, PRESETS, examples)
