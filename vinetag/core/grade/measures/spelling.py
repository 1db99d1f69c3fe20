"""spelling: would someone who hears the name write it right?

The score is the share of hearers, of 100, who write it as it is: every word by what becomes of it
between mouth and keyboard (vinetag.core.grade.hearing), and every join by what is lost at it.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Mapping
from types import MappingProxyType
from typing import Final

from vinetag.core.grade.hearing import Heard
from vinetag.core.grade.reading import Reading
from vinetag.core.grade.scale import Assessment, Finding, assess, not_graded
from vinetag.core.lexicon.sounds import VOWELS, as_heard

__all__ = ["Spelling", "misspellings", "settled"]

# Shares who keep what cannot be heard; by judgement.
DOUBLED: Final = 0.85
DOUBLED_VOWEL: Final = 0.9
HYPHEN: Final = 0.3
DIGITS: Final = 0.5
ACCENT: Final = 0.5
LEAST: Final = 0.0005
TOLD: Final = 0.04
CONTEXT: Final = 2.5
ONES: Final = (
    "zero",
    "one",
    "two",
    "three",
    "four",
    "five",
    "six",
    "seven",
    "eight",
    "nine",
    "ten",
)


class Spelling:
    """100 less those who would write something else, shared out among what makes them."""

    name = "spelling"
    of_letters = True
    wording: Mapping[str, str] = MappingProxyType(
        {
            "plain": "Heard as “{heard}”, {right} in 100 would write it so.",
            "rival": "“{word}” is heard as “{other}” too: {share} in 100 would write that.",
            "respelt": "Heard as “{heard}”, most would write “{other}”: the word they know.",
            "unit": "“{word}” is heard as “{heard}”: {share} in 100 would write “{wrong}”, with "
            "“{other}” for “{letters}”.",
            "rare": "Few know the word “{word}”; from “{heard}” {share} in 100 write “{wrong}”.",
            "unsaid": "“{word}” cannot be said as a word, so it has to be spelt out.",
            "double": "“{letters}” where “{first}” meets “{second}” is heard as one letter: "
            "{share} in 100 would write “{wrong}”.",
            "hyphen": "The hyphen is not heard: {share} in 100 would write “{closed}”.",
            "accent": "“{letter}” is not heard and on few keyboards: half would write “{plain}”.",
            "digits": "“{digits}” is heard as “{spoken}”: half would write it out.",
        }
    )

    def assess(self, reading: Reading) -> Assessment:
        """One finding for each word or join where hearers go astray."""
        if reading.foreign:
            return not_graded(reading)
        losses = [(right, f) for right, f in _losses(reading) if right < 1]
        right = math.prod(share for share, _ in losses)
        whole = -sum(math.log(share) for share, _ in losses)
        lost = 100 * (1 - right)
        found = [
            f._replace(points=-lost * -math.log(share) / whole)
            for share, f in losses
            if lost * -math.log(share) / whole >= 100 * TOLD
        ]
        explained = sum(f.points for f in found)
        end = len(reading.label)
        heard = " ".join(
            as_heard(reading.hearing.word(w).phones) or w.upper() for _, w in reading.words
        )
        if not found or right >= 0.9:
            args = {"heard": heard, "right": round(100 * right)}
            found.append(Finding("plain", -lost - explained, 0, end, args))
        else:
            found[0] = found[0]._replace(points=found[0].points - lost - explained)
        return assess(100.0, found)


def misspellings(reading: Reading, most: int = 10) -> list[tuple[str, float]]:
    """The likeliest ways to write the name wrong, with the share of hearers who would, 0 to 1."""
    label = reading.label
    if reading.foreign:
        return []
    shares: dict[str, float] = {}
    wrong: tuple[tuple[str, float], ...]
    right = math.prod(share for share, _ in _losses(reading)) or LEAST
    for at, word in reading.words:
        if not word.isalpha():
            spoken = "".join(_spoken(word))
            wrong, own = ((spoken, DIGITS),), DIGITS
        else:
            heard = settled(reading, at, word)
            wrong, own = heard.wrong, max(heard.right, LEAST)
        for text, share in wrong:
            whole = label[:at] + text + label[at + len(word) :]
            shares[whole] = shares.get(whole, 0.0) + right / own * share
    for first, second, start, keep in _doubles(reading):
        whole = label[: start - 1] + label[start:]
        if first and second:
            shares[whole] = shares.get(whole, 0.0) + right * (1 - keep) / keep
    if reading.accented:
        shares[label] = right * (1 - ACCENT) / ACCENT
    else:
        shares.pop(label, None)
    if "-" in label:
        closed = label.replace("-", "")
        shares[closed] = shares.get(closed, 0.0) + right * (1 - HYPHEN) / HYPHEN
    ranked = sorted(shares.items(), key=lambda s: (-s[1], s[0]))
    return [(text, min(1.0, share)) for text, share in ranked[:most] if share > 0]


def settled(reading: Reading, at: int, word: str) -> Heard:
    """The word as heard in this name: a word that sounds the same is the less likely, the worse it
    goes with the words beside it.
    """
    heard = reading.hearing.word(word)
    if not heard.rivals or len(reading.words) < 2:
        return heard
    beside = [w for start, w in reading.words if start != at]
    fit = reading.lexicon.likeness
    own = max(fit(word, beside))
    shift: dict[str, float] = {}
    for rival, share in heard.rivals:
        near = max(fit(rival, beside)) - own
        shift[rival] = share * min(2.0, math.exp(CONTEXT * near))
    whole = 1 - sum(s for _, s in heard.rivals) + sum(shift.values())
    return heard._replace(
        right=min(1.0, heard.right / whole),
        rivals=tuple((r, shift[r] / whole) for r, _ in heard.rivals),
        wrong=tuple((w, shift.get(w, s) / whole) for w, s in heard.wrong),
    )


def _losses(reading: Reading) -> Iterator[tuple[float, Finding]]:
    """(share who get it right, the finding) for each word and each join."""
    label = reading.label
    args: dict[str, object]
    for at, word in reading.words:
        if word.isalpha():
            heard = settled(reading, at, word)
            yield max(heard.right, LEAST), _about(word, at, heard)
        else:
            args = {"digits": word, "spoken": " ".join(_spoken(word))}
            yield DIGITS, Finding("digits", 0.0, at, at + len(word), args)
    if reading.accented:
        at = next(i for i, c in enumerate(reading.accented) if c != label[i])
        args = {"letter": reading.accented[at], "plain": label}
        yield ACCENT, Finding("accent", 0.0, at, at + 1, args)
    for first, second, start, keep in _doubles(reading):
        args = {
            "letters": label[start - 1] + label[start],
            "first": first,
            "second": second,
            "share": round(100 * (1 - keep)),
            "wrong": label[: start - 1] + label[start:],
        }
        yield keep, Finding("double", 0.0, start - 1, start + 1, args)
    for at, character in enumerate(label):
        if character == "-":
            args = {"closed": label.replace("-", ""), "share": round(100 * (1 - HYPHEN))}
            yield HYPHEN, Finding("hyphen", 0.0, at, at + 1, args)


def _doubles(reading: Reading) -> Iterator[tuple[str, str, int, float]]:
    """Joins at which one letter meets itself: both words, where the second begins, and the share
    who keep both letters.
    """
    for (at, first), (start, second) in itertools.pairwise(reading.words):
        if at + len(first) == start and first[-1] == second[0] and first[-1].isalpha():
            yield first, second, start, DOUBLED_VOWEL if first[-1] in "aeiou" else DOUBLED


def _about(word: str, at: int, heard: Heard) -> Finding:
    end = at + len(word)
    sound = as_heard(heard.phones)
    if not heard.units or not any(p[:2] in VOWELS for p in heard.phones):
        return Finding("unsaid", 0.0, at, end, {"word": word})
    if heard.rivals and heard.rivals[0][1] >= max(TOLD, heard.wrong[0][1] * 0.5):
        other, share = heard.rivals[0]
        if not heard.known:
            return Finding("respelt", 0.0, at, end, {"heard": sound, "other": other})
        args = {"word": word, "other": other, "share": max(1, round(100 * share))}
        return Finding("rival", 0.0, at, end, args)
    if not heard.wrong:
        return Finding("unsaid", 0.0, at, end, {"word": word})
    wrong, share = heard.wrong[0]
    args = {"word": word, "heard": sound, "wrong": wrong, "share": max(1, round(100 * share))}
    if 0 < heard.known < 0.75:
        return Finding("rare", 0.0, at, end, args)
    for unit in heard.units:
        for letters, _ in unit.others:
            changed = word[: unit.start] + letters + word[unit.start + len(unit.letters) :]
            if changed == wrong:
                start = at + unit.start
                args = {**args, "letters": unit.letters, "other": letters}
                return Finding("unit", 0.0, start, start + len(unit.letters), args)
    return Finding("rare", 0.0, at, end, args)


def _spoken(digits: str) -> list[str]:
    return [ONES[10]] if digits == "10" else [ONES[int(d)] if d.isdigit() else d for d in digits]
