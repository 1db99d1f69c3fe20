"""fit: how well the name carries the brief's keywords."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

from vinetag.core.grade.judge import Reading
from vinetag.core.grade.scale import Assessment, Finding, assess

__all__ = ["Fit"]

FIRST_KEYWORD = 62.0
MORE_KEYWORDS = 16.0
BELONGING = 26.0
ADDED_LETTER = 1.2


class Fit:
    """Points for the keywords carried, by weight, and for parts that belong together."""

    name = "fit"
    wording: Mapping[str, str] = MappingProxyType(
        {
            "none": "Carries none of your words.",
            "no_keywords": "No words were given to compare it with.",
            "carries": "Carries “{keyword}” (weight {weight} of 5).",
            "also": "Carries “{keyword}” as well (weight {weight} of 5).",
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
        carried = sorted(reading.carried, key=lambda c: -reading.keywords[c.keyword])
        for place, part in enumerate(carried):
            weight = reading.keywords[part.keyword]
            full = FIRST_KEYWORD if not found else MORE_KEYWORDS if place < 3 else 0.0
            points = full * (0.55 + 0.45 * weight / heaviest)
            args = {"keyword": part.keyword, "weight": weight}
            code = "also" if found else "carries"
            found.append(Finding(code, points, part.start, part.start + len(part.text), args))
        if not found:
            return assess(0.0, [Finding("none", 0.0, 0, end, {})])
        how = _how(reading.strength)
        found.append(Finding("together", BELONGING * reading.strength, 0, end, {"how": how}))
        if reading.added:
            points = -ADDED_LETTER * max(0, reading.added - 3)
            found.append(Finding("added", points, 0, end, {"letters": reading.added}))
        return assess(0.0, found)


def _how(strength: float) -> str:
    if strength > 0.75:
        return "belong together"
    if strength > 0.5:
        return "go well together"
    return "go together" if strength > 0.3 else "are seldom seen together"
