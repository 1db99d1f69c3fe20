"""fit: how well the name carries the brief's keywords."""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache
from types import MappingProxyType
from typing import Final

from vinetag.core.grade.judge import Reading
from vinetag.core.grade.scale import Assessment, Finding, assess
from vinetag.core.lexicon import Lexicon

__all__ = ["Fit"]

FIRST_KEYWORD = 62.0
MORE_KEYWORDS = 16.0
BELONGING = 26.0
ADDED_LETTER = 1.2
KIN_LEAST = 0.3
OF_RELATED = 0.5
CHANGED: Final[Mapping[str, float]] = MappingProxyType(
    {
        "form": 0.75, "affix": 0.85, "respell": 0.8, "blend": 0.7, "clip": 0.6, "acrossdot": 0.7,
        "mirror": 0.25, "invent": 0.3, "initials": 0.15,
    }
)  # fmt: skip


class Fit:
    """Points for the keywords carried, by weight, and for parts that belong together."""

    name = "fit"
    wording: Mapping[str, str] = MappingProxyType(
        {
            "none": "Carries none of your words.",
            "no_keywords": "No words were given to compare it with.",
            "carries": "Carries “{keyword}” (weight {weight} of 5).",
            "also": "Carries “{keyword}” as well (weight {weight} of 5).",
            "kin": "“{text}” is close to your word “{keyword}”.",
            "plays": "Plays on “{keyword}”: {change}.",
            "name": "It is the name you gave.",
            "together": "Its parts {how}.",
            "added": "{letters} letters come from words you did not give.",
        }
    )

    def assess(self, reading: Reading) -> Assessment:
        """Without keywords the score is a neutral 50, and says so."""
        end = len(reading.label)
        if not reading.keywords:
            return assess(50.0, [Finding("no_keywords", 0.0, 0, end, {})])
        found: list[Finding] = []
        heaviest = max(reading.keywords.values())
        if reading.is_name:
            found.append(Finding("name", FIRST_KEYWORD, 0, end, {}))
        carried = sorted(
            reading.carried,
            key=lambda c: (
                -reading.keywords[c.keyword] * _share(c.kind, c.text, c.keyword, reading.lexicon)
            ),
        )
        for place, part in enumerate(carried):
            weight = reading.keywords[part.keyword]
            full = FIRST_KEYWORD if not found else MORE_KEYWORDS if place < 3 else 0.0
            points = (
                full
                * (0.55 + 0.45 * weight / heaviest)
                * _share(part.kind, part.text, part.keyword, reading.lexicon)
            )
            args = {
                "keyword": part.keyword, "weight": weight, "text": part.text, "change": part.change,
            }  # fmt: skip
            code = "also" if found else "carries"
            if part.kind == "kin":
                code = "kin"
            elif part.change:
                code = "plays"
            found.append(Finding(code, points, part.start, part.start + len(part.text), args))
        if not found:
            return assess(0.0, [Finding("none", 0.0, 0, end, {})])
        how = _how(reading.strength)
        found.append(Finding("together", BELONGING * reading.strength, 0, end, {"how": how}))
        if reading.added:
            points = -ADDED_LETTER * max(0, reading.added - 3)
            found.append(Finding("added", points, 0, end, {"letters": reading.added}))
        return assess(0.0, found)


@lru_cache(50_000)
def _share(kind: str, text: str, keyword: str, lexicon: Lexicon) -> float:
    """How much of a keyword a part carries: all, or by closeness and by how it was changed."""
    if kind == "kin":
        near = lexicon.vectors([keyword, text])
        return KIN_LEAST + (1 - KIN_LEAST) * max(0.0, float(near[0] @ near[1])) * 0.55
    share = CHANGED.get(kind, 1.0)
    return share if text[:3] == keyword[:3] or share < 0.5 else OF_RELATED * share


def _how(strength: float) -> str:
    if strength > 0.75:
        return "belong together"
    if strength > 0.5:
        return "go well together"
    return "go together" if strength > 0.3 else "are seldom seen together"
