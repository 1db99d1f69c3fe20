"""clarity: is it read in one way only, and in no unlucky one?"""

from __future__ import annotations

import itertools
import math
import re
from collections.abc import Iterator, Mapping, Sequence
from types import MappingProxyType
from typing import Final

from vinetag.core.grade.reading import Reading
from vinetag.core.grade.scale import Assessment, Finding, assess, not_graded
from vinetag.core.lexicon import Lexicon
from vinetag.core.lexicon.segment import reading_cost, splits

__all__ = ["Clarity", "intended_share", "look_alikes", "unlucky"]

OTHERWISE: Final = 55.0
NEW_WORD: Final = 12.0
UNLUCKY: Final = 60.0
SHARED: Final = 0.03
MISTAKEN: Final = 5.0
DIGIT_MISTAKEN: Final = 14.0
TRIPLE: Final = 14.0
SHORT_FORM: Final = 18.0
# Letters taken for others, in the common typefaces of screens and signs.
ALIKE: Final = (("rn", "m"), ("vv", "w"), ("cl", "d"), ("nn", "m"))
DIGITS_ALIKE: Final = (("0", "o"), ("1", "l"), ("5", "s"), ("8", "b"))
VOWELLESS: Final = re.compile(r"^[^aeiouy0-9]{2,}$")


class Clarity:
    """100 for one reading; less by what readers might see instead."""

    name = "clarity"
    of_letters = True
    wording: Mapping[str, str] = MappingProxyType(
        {
            "one": "Read as “{intended}”; any other reading is {times} times less likely.",
            "whole": "Read as one new word: no common words are seen in “{label}”.",
            "other": "Could be read as “{other}”: {share} in 100 readers would.",
            "inside": "“{other}” is seen in the new word “{intended}” before it is known.",
            "unlucky": "“{rude}” can be read in it.",
            "alike": "“{letters}” can be taken for “{other}”: “{whole}”.",
            "digit": "“{letters}” can be taken for “{other}”.",
            "triple": "“{letters}” comes three times in a row where words join.",
            "short": "Few will guess what “{text}” is short for.",
        }
    )

    def assess(self, reading: Reading) -> Assessment:
        """Readings without spaces, as a person sees the name in an address."""
        if reading.foreign:
            return not_graded(reading)
        label = reading.label
        found = [_read(reading)]
        rude = unlucky(label, reading.words, reading.lexicon)
        if rude:
            text, at = rude
            found.append(Finding("unlucky", -UNLUCKY, at, at + len(text), {"rude": text}))
        for letters, other, at in look_alikes(label, reading):
            points = -DIGIT_MISTAKEN if letters.isdigit() else -MISTAKEN
            args = {"letters": letters, "other": other}
            args["whole"] = label[:at] + other + label[at + len(letters) :]
            code = "digit" if letters.isdigit() else "alike"
            found.append(Finding(code, points, at, at + len(letters), args))
        for match in re.finditer(r"([a-z])\1\1", label):
            args = {"letters": match.group(1)}
            found.append(Finding("triple", -TRIPLE, match.start(), match.end(), args))
        for at, word in reading.words:
            if VOWELLESS.match(word) and not reading.hearing.known(word) > 0.9:
                args = {"text": word}
                found.append(Finding("short", -SHORT_FORM, at, at + len(word), args))
        return assess(100.0, found)


def intended_share(words: Sequence[str], lexicon: Lexicon) -> tuple[float, tuple[str, ...], float]:
    """The share of readers who see `words` when they are closed up, 0 to 1; the likeliest other
    words seen (() when there are none), and the share who see those.
    """
    text = "".join(words)
    total, best = splits(text, lexicon)
    own = reading_cost(words, lexicon)
    # A word nobody lists is costly; whole as it stands it is still what is seen at first.
    unknown = any(w not in lexicon.reading_costs for w in words)
    others = [s for s in best if s.words != tuple(words)]
    listed = [s for s in others if all(w in lexicon.reading_costs for w in s.words)]
    if unknown:
        if not listed:
            return 1.0, (), 0.0
        own = min(own, listed[0].cost + _unseen(listed[0].words))
        weight = math.exp(listed[0].cost - own)
        return weight / (1 + weight), listed[0].words, 1 / (1 + weight)
    share = min(1.0, math.exp(total - own))
    if not listed:
        return share, (), 0.0
    return share, listed[0].words, min(1.0, math.exp(total - listed[0].cost))


def _unseen(words: Sequence[str]) -> float:
    """How little it strikes the eye, in nats, that a new word falls into these: short and many
    words do not.
    """
    return -3.5 if len(words) > 2 or min(map(len, words)) < 4 else -0.5


def unlucky(
    label: str, words: Sequence[tuple[int, str]], lexicon: Lexicon
) -> tuple[str, int] | None:
    """An offensive word read across a join of the label's words or in a word nobody knows, a phrase
    of such a meaning, or a word that is unlucky as a word, and where; None when there is none.
    Letters wholly inside an ordinary word do not count.
    """
    for start, word in words:
        if word in lexicon.unlucky_words:
            return word, start
    for match in lexicon.rude_inside(label):
        text, at = match
        inside = [w for start, w in words if start <= at and at + len(text) <= start + len(w)]
        if not inside or inside[0] == text or inside[0] not in lexicon.words:
            return text, at
    return None


def look_alikes(label: str, reading: Reading) -> Iterator[tuple[str, str, int]]:
    """Letters that can be taken for others, the others, and where: across a join, in a new word, or
    where the change gives another word.
    """
    for letters, other in ALIKE:
        for match in re.finditer(letters, label):
            if _mistaken(other, *match.span(), reading):
                yield letters, other, match.start()
    if any(c.isdigit() for c in label):
        for digit, other in DIGITS_ALIKE:
            if digit in label and label.strip("0123456789"):
                yield digit, other, label.index(digit)


def _mistaken(other: str, at: int, end: int, reading: Reading) -> bool:
    for start, word in reading.words:
        if start <= at and end <= start + len(word):
            changed = word[: at - start] + other + word[end - start :]
            return changed in reading.lexicon.words or not reading.hearing.known(word)
    return True


def _read(reading: Reading) -> Finding:
    label, end = reading.label, len(reading.label)
    words = [w for _, w in reading.words]
    stretches = [list(g) for _, g in itertools.groupby(_numbered(reading), key=lambda s: s[0])]
    other: tuple[str, ...] = ()
    share, seen = 1.0, 0.0
    for stretch in stretches:
        one, instead, odds = intended_share([w for _, w in stretch], reading.lexicon)
        share *= one
        if odds > seen:
            other, seen = instead, odds
    intended = " ".join(words)
    unknown = any(w.isalpha() and w not in reading.lexicon.reading_costs for w in words)
    if unknown and not other:
        return Finding("whole", -NEW_WORD, 0, end, {"label": label})
    args = {"intended": intended, "other": " ".join(other), "share": round(100 * seen)}
    if share > 1 - SHARED or not other:
        odds = share / max(seen, 1e-6)
        args["times"] = f"{round(odds):,}" if odds < 10_000 else "over 10,000"
        return Finding("one", -OTHERWISE * (1 - share), 0, end, args)
    return Finding("inside" if unknown else "other", -OTHERWISE * (1 - share), 0, end, args)


def _numbered(reading: Reading) -> Iterator[tuple[int, str]]:
    """Each word with the number of hyphens before it: words apart are not read together."""
    for at, word in reading.words:
        yield reading.label.count("-", 0, at), word
