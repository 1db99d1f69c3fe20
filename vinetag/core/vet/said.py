"""How a name comes across when it is said and seen: spelt on the telephone, in capitals, as an
address and a handle, and beside the other names of a shortlist.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from vinetag.core.grade import Reading
from vinetag.core.lexicon.sounds import as_heard
from vinetag.core.vet.findings import Finding
from vinetag.core.vet.marks.forms import FormMaker
from vinetag.core.vet.marks.likeness import letters_alike, sounds_alike

__all__ = ["ALPHABET", "Presented", "presented", "said_findings"]

# Radiotelephony spelling alphabet (ICAO Annex 10, volume II, 5.2.1.3).
ALPHABET: Final = dict(
    zip(
        "abcdefghijklmnopqrstuvwxyz0123456789-",
        (
            "Alfa Bravo Charlie Delta Echo Foxtrot Golf Hotel India Juliett Kilo Lima Mike "
            "November Oscar Papa Quebec Romeo Sierra Tango Uniform Victor Whiskey X-ray Yankee "
            "Zulu zero one two three four five six seven eight nine hyphen"
        ).split(),
        strict=True,
    )
)
# Letters whose names sound alike on a line that cuts off high tones.
ALIKE_SAID: Final = ("bdegptv", "fs", "mn")
# In capitals of faces without serifs, and in a hand.
ALIKE_CAPITALS: Final = (("VV", "W"), ("RN", "M"))
TOO_ALIKE: Final = 0.82
MANY: Final = 0.7


@dataclass(frozen=True, slots=True)
class Presented:
    """A name as it is met: `alphabet` letter by letter, `said` aloud in plain letters ("" where
    that is not known), in `capitals`, as an `email` address and a `handle`.
    """

    alphabet: Sequence[tuple[str, str]]
    said: str
    capitals: str
    email: str
    handle: str


def presented(reading: Reading, extension: str) -> Presented:
    """A name under an extension."""
    shown = reading.shown
    said = " ".join(
        as_heard(reading.hearing.word(word).phones)
        for _, word in reading.words
        if word.isalpha() and reading.hearing.word(word).phones
    )
    return Presented(
        [(letter.upper(), ALPHABET.get(letter, letter)) for letter in shown],
        "" if reading.foreign else said,
        shown.upper(),
        f"hello@{shown}.{extension}",
        "" if reading.foreign else f"@{reading.label.replace('-', '')}",
    )


def said_findings(
    reading: Reading, others: Sequence[Reading], forms: FormMaker, extension: str
) -> list[Finding]:
    """`others` are the rest of the shortlist."""
    label, shown = reading.label, reading.shown
    found = _beside(reading, others, forms)
    met = presented(reading, extension)
    ways = (
        ("spelt", " ".join(word for _, word in met.alphabet)),
        ("said", met.said),
        ("in capitals", met.capitals),
        ("an address", met.email),
        ("a handle", met.handle),
    )
    rows = tuple({"as": way, "text": text} for way, text in ways if text)
    for letters, other in ALIKE_CAPITALS:
        if letters in met.capitals:
            alike = {"letters": letters, "other": other}
            found.append(Finding("said", "note", "seen_alike", alike, (), "rules"))
    latin = "" if reading.foreign else label
    mixed = [c for c in latin if any(c in group for group in ALIKE_SAID)]
    if len(mixed) >= MANY * len(latin.replace("-", "")) and len(mixed) > 2:
        args = {"letters": len(mixed), "which": ", ".join(dict.fromkeys(c.upper() for c in mixed))}
        found.append(Finding("said", "note", "spelt_out", args, (), "rules"))
    if not found:
        beats = met.said.count("-") + met.said.count(" ") + 1 if met.said else 0
        plural = "one beat" if beats == 1 else f"{beats} beats"
        clear = {"beats": plural if beats else "its own way", "letters": len(shown)}
        return [Finding("said", "clear", "said_clear", clear, rows, "rules")]
    first = found[0]
    found[0] = Finding(
        "said", first.weight, first.code, first.args, (*first.evidence, *rows), first.source
    )
    return found


def _beside(reading: Reading, others: Sequence[Reading], forms: FormMaker) -> list[Finding]:
    """Names of the shortlist that are easily taken for this one."""
    own = _forms(reading, forms)
    found = []
    for other in others:
        if other.label == reading.label:
            continue
        theirs = _forms(other, forms)
        letters = float(letters_alike(own[0], [theirs[0]])[0])
        sounds = float(sounds_alike(own[1], [theirs[1]])[0])
        if max(letters, sounds) >= TOO_ALIKE:
            how = "sound alike" if sounds >= letters else "look alike"
            args = {
                "label": reading.shown,
                "other": other.shown,
                "how": how,
            }
            row = {"as": "beside it", "text": other.shown}
            found.append(Finding("said", "think", "said_like", args, (row,), "rules"))
    return found


def _forms(reading: Reading, forms: FormMaker) -> tuple[str, str]:
    words = [word for _, word in reading.words if word] or [reading.label.replace("-", "")]
    made = forms.of_words(words)
    return made.letters, made.sounds
