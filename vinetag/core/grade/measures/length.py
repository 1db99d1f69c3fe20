"""length: how much there is to type, say and fit on a sign."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType
from typing import Final

from vinetag.core.grade.judge import Reading
from vinetag.core.grade.scale import Assessment, Finding, assess

__all__ = ["Length"]

BEST = range(5, 10)
POINTS_A_LETTER: Final = 7.0
POINTS_A_LETTER_SHORT: Final = 5.0
WORDS_FREE = 2


class Length:
    """Full marks for 5 to 9 letters in at most two words; each letter and word beyond costs."""

    name = "length"
    wording: Mapping[str, str] = MappingProxyType(
        {
            "best": "{letters} letters: short enough to type from memory.",
            "long": "{letters} letters: {over} more than the nine that are typed with ease.",
            "short": "{letters} letters: so short that it says little, and such names are scarce.",
            "words": "{words} words to keep in order.",
            "hyphen": "{count} hyphen to type and to say.",
            "hyphens": "{count} hyphens to type and to say.",
        }
    )

    def assess(self, reading: Reading) -> Assessment:
        """Counts letters without hyphens; hyphens and words are counted apart."""
        label = reading.label
        hyphens = label.count("-")
        letters = len(label) - hyphens
        args = {"letters": letters, "over": letters - BEST[-1]}
        findings = []
        if letters in BEST:
            findings.append(Finding("best", 0.0, 0, len(label), args))
        elif letters < BEST[0]:
            points = -POINTS_A_LETTER_SHORT * (BEST[0] - letters)
            findings.append(Finding("short", points, 0, len(label), args))
        else:
            points = -POINTS_A_LETTER * (letters - BEST[-1])
            findings.append(Finding("long", points, BEST[-1], len(label), args))
        words = len(reading.words)
        if words > WORDS_FREE:
            points = -8.0 * (words - WORDS_FREE)
            findings.append(Finding("words", points, 0, len(label), {"words": words}))
        if hyphens:
            code = "hyphen" if hyphens == 1 else "hyphens"
            at = label.index("-")
            findings.append(Finding(code, -8.0 * hyphens, at, at + 1, {"count": hyphens}))
        return assess(100.0, findings)
