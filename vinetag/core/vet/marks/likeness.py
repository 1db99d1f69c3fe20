"""How alike two marks are: in letters, in sounds, in meaning, and by one holding the other.

Weighted edit distances (Wagner and Fischer, The string-to-string correction problem, 1974), with
what is easily taken for something else counting less than a whole step.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Final, Literal

import numpy as np
import numpy.typing as npt
from rapidfuzz.distance import Levenshtein

from vinetag.core.vet.marks.forms import PHONES, VOWEL_SIGNS, Forms

__all__ = [
    "Likeness", "Way", "letters_alike", "likenesses", "same_letters", "sounds_alike",
]  # fmt: skip

Way = Literal[
    "same", "same_sound", "letters", "looks", "sounds", "same_words", "meaning", "contains",
    "contained",
]  # fmt: skip

# The part that distinguishes counts so much beside the whole.
PART: Final = 0.6
# What lies close in two ways lies closer than in one.
SECOND: Final = 0.15
NEAR_LETTERS: Final = (
    *((a, b, 0.25) for a, b in ("i1", "l1", "il", "o0", "uv", "nh")),
    *((a, b, 0.35) for a, b in ("ck", "cs", "sz", "iy", "kq", "gj", "vw", "ij", "mn", "dt", "bp")),
    *((a, b, 0.55) for i, a in enumerate("aeiou") for b in "aeiou"[i + 1 :]),
    *(("y", b, 0.55) for b in "aeou"),
)
# Drawn alike in common faces.
DRAWN: Final = (("rn", "m"), ("vv", "w"), ("cl", "d"), ("nn", "m"), ("0", "o"), ("1", "l"))
FOLDED_COST: Final = 0.3
DOUBLED, SILENT = 0.25, 0.6
NEAR_SOUNDS: Final = (
    *((a, b, 0.3) for a, b in (
        ("B", "P"), ("D", "T"), ("G", "K"), ("V", "F"), ("Z", "S"), ("DH", "TH"), ("ZH", "SH"),
        ("JH", "CH"), ("M", "N"), ("N", "NG"), ("L", "R"), ("V", "W"), ("S", "SH"), ("TH", "F"),
        ("D", "DH"), ("Z", "ZH"), ("Y", "IY"), ("W", "UW"), ("TH", "T"),
    )),
    *((a, b, 0.12) for a, b in (
        ("AH", "IH"), ("AA", "AO"), ("IH", "IY"), ("EH", "AE"), ("UH", "UW"), ("AH", "AA"),
        ("AH", "EH"), ("AO", "OW"), ("ER", "AH"), ("AH", "UH"), ("EY", "EH"), ("IH", "EH"),
    )),
)  # fmt: skip
OTHER_VOWEL: Final = 0.4
VOWEL_LOST, BREATH_LOST = 0.5, 0.45
# Who hears no difference takes one for the other; a sound less than a letter, since people read.
SAME_SOUND, BY_SOUND, SAME_WORDS, SHARED = 0.985, 0.99, 0.96, 0.52
Floats = npt.NDArray[np.float32]
SIGNS: Final = 128
Alike = Callable[[str, Sequence[str]], Floats]


class _Steps:
    """What it costs to take one sign for another, or to lose one."""

    def __init__(self, pairs: Sequence[tuple[str, str, float]], lost: Mapping[str, float]) -> None:
        self.swap = np.ones((SIGNS, SIGNS), np.float32)
        np.fill_diagonal(self.swap, 0)
        for one, two, cost in pairs:
            self.swap[ord(one), ord(two)] = self.swap[ord(two), ord(one)] = cost
        self.lost = np.ones(SIGNS, np.float32)
        for sign, cost in lost.items():
            self.lost[ord(sign)] = cost

    def losing(self, codes: npt.NDArray[np.uint8]) -> Floats:
        """What losing each sign of texts costs; one that repeats the sign before it, less."""
        costs: Floats = self.lost[codes]
        costs[:, 1:][codes[:, 1:] == codes[:, :-1]] = DOUBLED
        return costs

    def distances(self, one: str, others: Sequence[str]) -> Floats:
        """The least cost of the way from one text to each of the others, all at once."""
        sizes = np.fromiter(map(len, others), np.int64, len(others))
        longest = max(1, int(sizes.max(initial=0)))
        padded = "".join(text.ljust(longest, "\0") for text in others).encode("ascii")
        codes = np.frombuffer(padded, np.uint8).reshape(-1, longest)
        own = np.frombuffer(one.encode("ascii"), np.uint8).reshape(1, -1)
        losing, gone = self.losing(codes).T, self.losing(own)[0]
        row = np.zeros((longest + 1, len(others)), np.float32)
        np.cumsum(losing, axis=0, out=row[1:])
        columns = codes.T
        for i, sign in enumerate(own[0]):
            before, row = row, np.empty_like(row)
            row[0] = before[0] + gone[i]
            np.minimum(before[:-1] + self.swap[sign][columns], before[1:] + gone[i], out=row[1:])
            for j in range(longest):
                np.minimum(row[j + 1], row[j] + losing[j], out=row[j + 1])
        found: Floats = row[sizes, np.arange(len(others))]
        return found

    def alike(self, one: str, others: Sequence[str]) -> Floats:
        """From 0 to 1; 0 beside nothing."""
        if not one or not others:
            return np.zeros(len(others), np.float32)
        sizes = np.fromiter((max(len(one), len(text)) for text in others), np.float32, len(others))
        empty = np.fromiter((not text for text in others), bool, len(others))
        found = 1 - self.distances(one, others) / sizes
        found[empty] = 0
        return np.clip(found, 0, 1, out=found)


LETTERS: Final = _Steps(NEAR_LETTERS, {"e": SILENT, "h": SILENT})
SOUNDS: Final = _Steps(
    [
        *((a, b, OTHER_VOWEL) for a in VOWEL_SIGNS for b in VOWEL_SIGNS if a < b),
        *((PHONES[a], PHONES[b], cost) for a, b, cost in NEAR_SOUNDS),
    ],
    {**dict.fromkeys(VOWEL_SIGNS, VOWEL_LOST), PHONES["HH"]: BREATH_LOST},
)


@dataclass(frozen=True, slots=True)
class Likeness:
    """`score` from 0 to 1; `ways` in which the two are alike, the closest first."""

    score: float
    ways: tuple[Way, ...]


@lru_cache(200_000)
def drawn(text: str) -> tuple[str, int]:
    """The letters as they may be taken for others, and how many were."""
    count = 0
    for letters, other in DRAWN:
        count += text.count(letters)
        text = text.replace(letters, other)
    return text, count


WORN: Final = (
    ("ph", "f"), ("ck", "k"), ("qu", "kw"), ("c", "k"), ("x", "ks"), ("z", "s"), ("y", "i"),
)  # fmt: skip


def worn(text: str) -> str:
    """The letters as they are drawn alike, sound alike, and without doubling."""
    text = drawn(text)[0]
    for letters, other in WORN:
        text = text.replace(letters, other)
    return "".join(letter for i, letter in enumerate(text) if not i or letter != text[i - 1])


def letters_alike(one: str, others: Sequence[str]) -> Floats:
    """From 0 to 1, by letters and how they are drawn. Texts in a to z and digits."""
    found = LETTERS.alike(one, others)
    first, folds = drawn(one)
    redrawn = [drawn(text) for text in others]
    at = [i for i, (_, count) in enumerate(redrawn) if folds or count]
    if at:
        looks = LETTERS.alike(first, [redrawn[i][0] for i in at])
        sizes = np.array([max(len(one), len(others[i])) for i in at], np.float32)
        looks -= np.float32(FOLDED_COST) / sizes
        found[at] = np.maximum(found[at], looks)
    return found


def sounds_alike(one: str, others: Sequence[str]) -> Floats:
    """From 0 to 1, by signs of PHONES."""
    return SOUNDS.alike(one, others)


def likenesses(
    ours: Forms,
    all_theirs: Sequence[Forms],
    said: Sequence[str],
    meant: Mapping[str, float],
    beside: Mapping[str, float],
) -> list[Likeness]:
    """How alike each of some marks is to a name. `said`: further ways to say the name, as signs;
    `meant`: words that mean what the name's do, with how near they are; `beside`: words near one of
    the name's.
    """
    if not all_theirs:
        return []
    letters = _both(
        letters_alike, (ours.letters, ours.part), [(f.letters, f.part) for f in all_theirs]
    )
    sounds = _both(
        sounds_alike,
        (ours.sounds, ours.part_sounds),
        [(f.sounds, f.part_sounds) for f in all_theirs],
    )
    for other in said:
        sounds = np.maximum(sounds, sounds_alike(other, [f.sounds for f in all_theirs]))
    found = zip(all_theirs, letters.tolist(), sounds.tolist(), strict=True)
    return [
        _likeness(ours, theirs, one, two, meant.get(theirs.words) or _shared(ours, theirs, beside))
        for theirs, one, two in found
    ]


def _likeness(ours: Forms, theirs: Forms, letters: float, sounds: float, meant: float) -> Likeness:
    held, which = _containing(ours, theirs)
    found: dict[Way, float] = {}
    if ours.letters == theirs.letters:
        found["same"] = 1.0
    looks = letters < 1 and drawn(ours.letters)[0] == drawn(theirs.letters)[0]
    found["looks" if looks else "letters"] = letters
    found["same_sound" if sounds >= SAME_SOUND else "sounds"] = sounds * BY_SOUND
    if ours.words and ours.words == theirs.words:
        found["same_words"] = SAME_WORDS
    elif meant:
        found["meaning"] = meant
    if held:
        found[which] = held
    ranked = sorted(found, key=lambda way: -found[way])
    best, second = found[ranked[0]], found[ranked[1]]
    score = min(1.0, best + SECOND * max(0.0, second - 0.5) * (1 - best))
    return Likeness(score, tuple(way for way in ranked if found[way] >= max(0.6, best - 0.2)))


def _shared(ours: Forms, theirs: Forms, beside: Mapping[str, float]) -> float:
    """How near two marks of a few words are that have all but one in common."""
    own, other = {*ours.words.split()}, {*theirs.words.split()}
    if len(own) != len(other) or len(own) < 2 or len(own & other) != len(own) - 1:
        return 0.0
    (else_,) = other - own
    share = sum(map(len, own & other)) / sum(map(len, other))
    return SHARED + (1 - SHARED) * max(0.0, beside.get(else_, 0.0)) * 0.8 if share >= 0.3 else 0.0


def same_letters(one: str, two: str) -> tuple[tuple[int, int, int], ...]:
    """The letters two texts share, in order: (place in one, place in two, how many)."""
    blocks = Levenshtein.editops(one, two).as_matching_blocks()
    return tuple((b.a, b.b, b.size) for b in blocks if b.size)


def _both(alike: Alike, ours: tuple[str, str], all_theirs: Sequence[tuple[str, str]]) -> Floats:
    """By the whole, or by the part that distinguishes and the whole together: what merely
    describes may be left off.
    """
    wholes, parts = [f[0] for f in all_theirs], [f[1] for f in all_theirs]
    whole = alike(ours[0], wholes)
    part = np.maximum(whole, alike(ours[0], parts))
    if ours[0] != ours[1]:
        part = np.maximum(part, np.maximum(alike(ours[1], parts), alike(ours[1], wholes)))
    return np.maximum(whole, PART * part + (1 - PART) * whole)


def _containing(ours: Forms, theirs: Forms) -> tuple[float, Way]:
    """How much one is of the other that holds it; what distinguishes must be held, and be more than
    a syllable.
    """
    found: tuple[float, Way] = (0.0, "contains")
    pairs: tuple[tuple[str, str, Way], ...] = (
        (theirs.part, ours.letters, "contains"), (ours.part, theirs.letters, "contained"),
    )  # fmt: skip
    for inner, outer, way in pairs:
        if 4 <= len(inner) < len(outer) and inner in outer:
            edge = outer.startswith(inner) or outer.endswith(inner)
            share = len(inner) / len(outer)
            found = max(found, ((0.45 + 0.45 * share) * (1.0 if edge else 0.85), way))
    return found
