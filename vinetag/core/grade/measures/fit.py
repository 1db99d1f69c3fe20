"""fit: how much the name says of the brief: its keywords, its world, its sentence."""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache
from itertools import takewhile
from statistics import NormalDist
from types import MappingProxyType
from typing import Final

from vinetag.core.candidates import Part
from vinetag.core.grade.reading import Reading
from vinetag.core.grade.scale import Assessment, Finding, assess, not_graded
from vinetag.core.lexicon import Lexicon
from vinetag.core.world.incidental import SMALL, says

__all__ = ["Fit"]

BASE: Final = 14.0
FIRST: Final = 48.0
MORE: Final = 9.0
# How near the whole name is to the sentence: points at NEAREST.
WHOLE: Final = 28.0
MOST_MORE: Final = 2
# A keyword at the beginning is seen and found first.
LATER: Final = 4.0
FREE_LETTERS: Final = 4
FOREIGN_LETTER: Final = 1.0
# Closeness (Lexicon.closeness) from which a related word counts, and at which it counts most.
FAR: Final = -0.25
CLOSE: Final = 0.05
KIN_LEAST: Final = 0.15
KIN_MOST: Final = 0.75
# A word of the world: what the least and the most worth carry; the cosine to the sentence at which
# a word says as much; the share from which it is told of.
WORLD_LEAST: Final = 0.35
WORLD_MOST: Final = 0.92
NEAREST: Final = 0.5
LEAST_TOLD: Final = 0.3
# Of words taken at random: the mean closeness and its spread.
BY_CHANCE: Final = NormalDist(-0.46, 0.17)
OF_RELATED: Final = 0.3
# A blend in which every letter of the keyword still stands; one of what a keyword says many of.
STILL_WHOLE: Final = 0.95
CHANGED: Final[Mapping[str, float]] = MappingProxyType(
    {
        "form": 0.85, "affix": 0.9, "respell": 0.8, "homophone": 0.8, "blend": 0.75, "clip": 0.6,
        "acrossdot": 0.75, "mirror": 0.2, "invent": 0.75, "initials": 0.12,
    }
)  # fmt: skip


class Fit:
    """The first keyword counts most, by its weight and by how much of it is there; others add to
    it; letters that say something else take away.
    """

    name = "fit"
    of_letters = False
    wording: Mapping[str, str] = MappingProxyType(
        {
            "none": "“{label}” carries none of your words: nobody will guess what it is for.",
            "no_keywords": "Not graded, because the brief has no words to compare it with.",
            "carries": "Carries “{keyword}” (weight {weight} of 5).",
            "as": "Carries “{keyword}” (weight {weight} of 5) as “{text}”.",
            "also": "Carries “{keyword}” as well (weight {weight} of 5).",
            "kin": "“{text}” is closer in meaning to “{keyword}” than {near} in 100 words are.",
            "plays": "Plays on “{keyword}”: {change}.",
            "sound": "“{text}” sounds like your word “{keyword}”.",
            "name": "“{label}” is the name you gave.",
            "later": "“{text}” comes second, where fewer look for it.",
            "world": "“{text}” belongs to {field}, your world.",
            "near": "“{text}” is near in meaning to your sentence.",
            "whole": "“{text}” as a whole comes near what you are naming.",
            "added": "“{text}” is none of your words: {letters} letters that say something else.",
        }
    )

    def assess(self, reading: Reading) -> Assessment:
        """Without keywords there is nothing to judge by."""
        label, end = reading.label, len(reading.label)
        if reading.foreign:
            return not_graded(reading)
        found: list[Finding] = []
        if reading.is_name:
            found.append(Finding("name", 100.0 - BASE, 0, end, {"label": label}))
        elif not reading.keywords and not (reading.world and reading.world.informed):
            return not_graded(reading, "no_keywords")
        heaviest = max(reading.keywords.values(), default=5)
        shares = [
            (
                _share(c, label, reading.lexicon)
                * (0.5 + 0.5 * reading.keywords[c.keyword] / heaviest)
                * _said_by(c, reading.keywords[c.keyword]),
                c,
            )
            for c in reading.carried
        ]
        shares.sort(key=lambda s: (-s[0], s[1].start))
        seen: set[str] = set()
        for share, part in shares:
            place = len(seen)
            if part.keyword in seen or (place and share < shares[0][0] * 0.1):
                continue
            seen.add(part.keyword)
            points = share * (FIRST if not found else MORE if place <= MOST_MORE else 0.0)
            found.append(_found(part, points, reading, also=bool(found)))
        if not reading.is_name:
            found += _of_world(reading, {f.start for f in found}, first=not found)
        if not found:
            return assess(0.0, [Finding("none", 0.0, 0, end, {"label": label})])
        best = shares[0][1] if shares else None
        if best and best.start and not reading.is_name:
            stop = best.start + len(best.text)
            found.append(Finding("later", -LATER, best.start, stop, {"text": best.text}))
        apart = _apart(reading)
        letters = sum(len(word) for _, _, word in apart)
        if letters > FREE_LETTERS and not reading.is_name:
            found.append(_added(apart, letters))
        return assess(BASE, [*found, *_as_a_whole(reading)])


def _found(part: Part, points: float, reading: Reading, *, also: bool) -> Finding:
    args = {
        "keyword": part.keyword,
        "weight": reading.keywords[part.keyword],
        "text": part.text,
        "change": part.change.text() if part.change else "",
    }
    code = "also" if also else "carries"
    if part.kind == "kin":
        code = "kin"
        near = BY_CHANCE.cdf(_near(part.keyword, part.text, reading.lexicon))
        args["near"] = min(99, round(100 * near))
    elif part.kind == "homophone":
        code = "sound"
    elif part.change:
        code = "plays"
    elif _stands_for(part):
        code = "as"
    return Finding(code, points, part.start, part.start + len(part.text), args)


def _as_a_whole(reading: Reading) -> list[Finding]:
    """How near all its words together are to the sentence."""
    words = [w for _, w in reading.words if w.isalpha()]
    if reading.world is None or reading.is_name or not words:
        return []
    near = reading.world.near(" ".join(words))
    points = WHOLE * min(1.0, max(0.0, near / NEAREST))
    return [Finding("whole", points, 0, len(reading.label), {"text": " ".join(words)})]


def _said_by(part: Part, weight: int) -> float:
    """Little by a keyword for the kind of venture, unless it is weighed up."""
    return max(says(part.keyword.split()[-1]), 0.3, (weight - 3) / 2)


def _of_world(reading: Reading, seen: set[int], *, first: bool) -> list[Finding]:
    """Words of the brief's world, and near to its sentence; the best counts most."""
    world = reading.world
    if world is None:
        return []
    entry = world.entries.get(reading.label)
    shares = []
    for at, word in reading.words:
        if at in seen or word in SMALL or not word.isalpha():
            continue
        known = world.words.get(word)
        near = max(0.0, min(1.0, world.near(word) / NEAREST))
        share = max(WORLD_LEAST + (WORLD_MOST - WORLD_LEAST) * known.worth if known else 0.0,
                    WORLD_MOST * near)  # fmt: skip
        field = known.field if known else ""
        if entry and share < WORLD_LEAST + 0.25:
            share, field = WORLD_LEAST + 0.25, entry.field
        if share >= LEAST_TOLD:
            shares.append((share, at, word, field))
    shares.sort(key=lambda s: (-s[0], s[1]))
    found = []
    for place, (share, at, word, field) in enumerate(shares[: 1 + MOST_MORE]):
        points = share * (FIRST if first and not place else MORE)
        code = "world" if field else "near"
        found.append(Finding(code, points, at, at + len(word), {"text": word, "field": field}))
    return found


def _apart(reading: Reading) -> list[tuple[int, int, str]]:
    """(letters, place, word) of words that are no keyword's, nor of the brief's world."""
    held = [(p.start, p.start + len(p.text)) for p in reading.carried]
    world = reading.world
    entry = world is not None and reading.label in world.entries
    return [
        (len(word), at, word)
        for at, word in reading.words
        if not any(a < at + len(word) and at < b for a, b in held)
        and not (
            word in SMALL
            or entry
            or (world and (word in world.words or world.near(word) >= NEAREST * LEAST_TOLD))
        )
    ]


def _added(apart: list[tuple[int, int, str]], letters: int) -> Finding:
    """The longest stretch that is foreign is the one that is spoken of."""
    points = -FOREIGN_LETTER * (letters - FREE_LETTERS)
    length, start, text = max(apart)
    return Finding("added", points, start, start + length, {"text": text, "letters": letters})


def _share(part: Part, label: str, lexicon: Lexicon) -> float:
    """How much of a keyword a part carries: all, or by closeness and by how it was changed."""
    if part.kind == "kin":
        near = (_near(part.keyword, part.text, lexicon) - FAR) / (CLOSE - FAR)
        return KIN_LEAST + (KIN_MOST - KIN_LEAST) * min(1.0, max(0.0, near))
    if _stands_for(part):
        return STILL_WHOLE
    share = CHANGED.get(part.kind, 1.0)
    if part.kind == "invent":
        kept = takewhile(lambda two: two[0] == two[1], zip(part.text, part.keyword, strict=False))
        return share * sum(1 for _ in kept) / len(part.keyword)
    if part.kind == "blend" and part.keyword in label:
        return STILL_WHOLE
    return share if part.text[:3] == part.keyword[:3] or share < 0.5 else OF_RELATED * share


def _stands_for(part: Part) -> bool:
    """Whether it is a keyword in another form (star for stars, tuner for tuning)."""
    letters = part.keyword.replace(" ", "")
    return part.kind == "keyword" and part.text.replace("-", "") != letters


@lru_cache(50_000)
def _near(keyword: str, text: str, lexicon: Lexicon) -> float:
    return lexicon.closeness(keyword, [text])[0]
