"""length: how much there is to type, to say, and to fit on a sign."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType
from typing import Final, NamedTuple

from vinetag.core.brief import Purpose
from vinetag.core.facts import beats
from vinetag.core.grade.reading import Reading
from vinetag.core.grade.scale import Assessment, Finding, assess
from vinetag.core.names import unicode_label

__all__ = ["Length"]


class Curve(NamedTuple):
    """Full marks from `low` to `high` letters and up to `syllables`; what each one beyond costs."""

    low: int
    high: int
    letter: float
    syllables: int
    syllable: float
    words: int


# A brand is said and written many times a day; a descriptive name is found rather than typed.
CURVES: Final[Mapping[Purpose, Curve]] = {
    "brand": Curve(5, 9, 7.0, 3, 5.0, 2),
    "mix": Curve(5, 10, 6.0, 4, 4.0, 2),
    "descriptive": Curve(6, 14, 4.5, 5, 3.0, 3),
}
KINDS: Final[Mapping[Purpose, str]] = {
    "brand": "a brand-like", "mix": "a mixed", "descriptive": "a descriptive",
}  # fmt: skip
SHORT: Final = 5.0
A_WORD: Final = 7.0
HYPHEN: Final = 8.0
# ".com" is four strokes with its dot; a longer ending costs a point for each letter beyond.
EXTENSION_LETTERS: Final = 3
EXTENSION: Final = 1.0


class Length:
    """A curve over letters, syllables and words, by purpose, and what the extension adds."""

    name = "length"
    of_letters = False
    wording: Mapping[str, str] = MappingProxyType(
        {
            "best": "{letters} letters: within the {low} to {high} that suit {kind} name.",
            "long": "{letters} letters: {over} more than the {high} that suit {kind} name.",
            "short": "{count}: so short that it says little, and such names are scarce.",
            "syllables": "{syllables} beats to say: {over} more than {most}.",
            "words": "{words} words to keep in order.",
            "hyphen": "The hyphen after “{before}” is one more thing to type and to say.",
            "extension": ".{extension} adds {letters} letters to type.",
        }
    )

    def assess(self, reading: Reading) -> Assessment:
        """Counts letters without hyphens; a label in other letters by its Unicode form."""
        label = reading.label
        curve = CURVES[reading.purpose]
        shown = unicode_label(label) if reading.foreign else label
        letters, end = len(shown) - shown.count("-"), len(label)
        args = {
            "letters": letters,
            "low": curve.low,
            "high": curve.high,
            "count": "1 letter" if letters == 1 else f"{letters} letters",
            "kind": KINDS[reading.purpose],
            "over": letters - curve.high,
        }
        if letters > curve.high:
            points = -curve.letter * (letters - curve.high)
            start = min(curve.high, end - 1)
            found = [Finding("long", points, 0 if reading.foreign else start, end, args)]
        elif letters < curve.low:
            found = [Finding("short", -SHORT * (curve.low - letters), 0, end, args)]
        else:
            found = [Finding("best", 0.0, 0, end, args)]
        if reading.foreign:
            return assess(100.0, found)
        spoken = sum(beats(word, reading.lexicon) for _, word in reading.words)
        if spoken > curve.syllables:
            over = spoken - curve.syllables
            args = {"syllables": spoken, "over": over, "most": curve.syllables}
            found.append(Finding("syllables", -curve.syllable * over, 0, end, args))
        words = len(reading.words)
        if words > curve.words:
            points = -A_WORD * (words - curve.words)
            found.append(Finding("words", points, 0, end, {"words": words}))
        at = label.find("-")
        while at >= 0:
            before = label[:at].rpartition("-")[2]
            found.append(Finding("hyphen", -HYPHEN, at, at + 1, {"before": before}))
            at = label.find("-", at + 1)
        extension = len(reading.extension.replace(".", ""))
        if extension > EXTENSION_LETTERS:
            points = -EXTENSION * (extension - EXTENSION_LETTERS)
            adds = {"extension": reading.extension, "letters": extension}
            found.append(Finding("extension", points, 0, end, adds))
        return assess(100.0, found)
