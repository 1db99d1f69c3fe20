"""How the measures judge, in worked examples from the demo projects."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache

from vinetag.apps.bench.demo_briefs import DEMO
from vinetag.core.brief import parse_brief
from vinetag.core.candidates import Candidate
from vinetag.core.grade import MEASURES, Grader, Reason
from vinetag.core.lexicon import load_lexicon

__all__ = ["Example", "examples"]

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


@cache
def examples() -> Mapping[str, Sequence[Example]]:
    """By measure, the same for everyone; worked out once."""
    briefs = {item["name"]: parse_brief(item["brief"]) for item in DEMO}
    graders = {name: Grader(b, load_lexicon(), MEASURES) for name, b in briefs.items()}
    found_for: dict[str, list[Example]] = {}
    for measure, names in EXAMPLES.items():
        found_for[measure] = []
        for project, label in names:
            grader = graders[project]
            found = grader.explain(grader.read_any(Candidate(label, (), (), 0.0)))
            found_for[measure].append(Example(project, label, *found[measure]))
    return found_for
