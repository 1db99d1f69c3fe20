"""sound: can it be said, and in one way?"""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Mapping
from types import MappingProxyType
from typing import Final

from vinetag.core.grade.hearing import Heard
from vinetag.core.grade.reading import Reading
from vinetag.core.grade.scale import Assessment, Finding, assess, not_graded
from vinetag.core.lexicon.sounds import VOWELS, as_heard, bare

__all__ = ["Sound"]

BASE: Final = 94.0
# Words of a dictionary stand around -2.6; nineteen in twenty are above USUAL.
USUAL: Final = -3.35
A_BIT: Final = 26.0
MOST_ODD: Final = 60.0
TWO_WAYS: Final = 34.0
CLUSTER: Final = 3
EACH_CONSONANT: Final = 7.0
SAME_SOUND: Final = 6.0
VOWELS_MEET: Final = 6.0
EASY_BEATS: Final = 4
A_BEAT: Final = 4.0
SWING: Final = 6.0
DIGITS: Final = 10.0
# Written one way and said two: what else they may be said as.
TWO_VOICES: Final[Mapping[str, tuple[str, str]]] = MappingProxyType(
    {
        "read": ("reed", "red"), "lead": ("leed", "led"), "live": ("liv", "lyv"),
        "wind": ("wind", "wynd"), "tear": ("teer", "tair"), "bow": ("boh", "bow"),
        "row": ("roh", "row"), "close": ("klohs", "klohz"), "dove": ("duv", "dohv"),
        "minute": ("mi-nit", "my-noot"), "polish": ("pah-lish", "poh-lish"),
        "bass": ("bays", "bas"), "sow": ("soh", "sow"), "wound": ("woond", "wownd"),
        "use": ("yoos", "yooz"), "desert": ("de-zert", "di-zert"),
        "object": ("ahb-jekt", "ub-jekt"), "record": ("re-kerd", "ri-kawrd"),
        "project": ("prah-jekt", "pru-jekt"), "content": ("kahn-tent", "kun-tent"),
        "present": ("pre-zunt", "pri-zent"), "console": ("kahn-sohl", "kun-sohl"),
    }
)  # fmt: skip


class Sound:
    """Starts near the top and takes away for what is hard or can be said otherwise."""

    name = "sound"
    of_letters = True
    wording: Mapping[str, str] = MappingProxyType(
        {
            "smooth": "Said “{heard}”, in one way: {beats}.",
            "swing": "Said “{heard}”: strong and weak beats take turns.",
            "odd": "“{letters}” {place} {percent} of English words, so “{word}” is hard to say.",
            "unsaid": "“{word}” cannot be said as a word: people will spell it out.",
            "ways": "“{word}” can be said “{first}” or “{second}”: {share} in 100 would choose the "
            "second.",
            "voices": "“{word}” is said “{first}” or “{second}”, and nothing tells which.",
            "cluster": "{count} consonants meet where “{first}” joins “{second}”.",
            "same": "“{first}” ends on the sound “{second}” begins with: they run together.",
            "vowels": "Vowels meet where “{first}” joins “{second}”: a small halt.",
            "long": "{beats}: more than is said in one breath of a sentence.",
            "digits": "“{digits}” is said as a number or digit by digit.",
        }
    )

    def assess(self, reading: Reading) -> Assessment:
        """Words first, then the joins between them, then the whole."""
        if reading.foreign:
            return not_graded(reading)
        hear = reading.hearing.word
        found = [f for at, word in reading.words for f in _word(word, at, hear(word), reading)]
        found += _joins(reading)
        stress = [p[-1] for _, w in reading.words for p in hear(w).phones if p[-1] in "01"]
        heard = "-".join(as_heard(hear(w).phones) or w for _, w in reading.words)
        end = len(reading.label)
        beats = "1 beat" if len(stress) == 1 else f"{len(stress)} beats"
        if len(stress) > EASY_BEATS:
            points = -A_BEAT * (len(stress) - EASY_BEATS)
            found.append(Finding("long", points, 0, end, {"beats": beats}))
        if stress and not any(f.code in ("unsaid", "odd") for f in found):
            if 2 <= len(stress) <= EASY_BEATS and all(
                a != b for a, b in itertools.pairwise(stress)
            ):
                found.append(Finding("swing", SWING, 0, end, {"heard": heard}))
            elif not found:
                found.append(Finding("smooth", 0.0, 0, end, {"heard": heard, "beats": beats}))
        if not found:
            found.append(Finding("smooth", 0.0, 0, end, {"heard": heard, "beats": beats}))
        return assess(BASE, found)


def _word(word: str, at: int, heard: Heard, reading: Reading) -> Iterator[Finding]:
    end = at + len(word)
    if not word.isalpha():
        yield Finding("digits", -DIGITS, at, end, {"digits": word})
        return
    vowels = any(p in VOWELS for p in bare(heard.phones))
    if not heard.phones or not vowels or (heard.known == 0 and not set("aeiouy") & set(word)):
        yield Finding("unsaid", -MOST_ODD, at, end, {"word": word})
        return
    if word in TWO_VOICES:
        first, second = TWO_VOICES[word]
        args = {"word": word, "first": first, "second": second}
        yield Finding("voices", -TWO_WAYS / 2, at, end, args)
    if heard.known > 0.5:
        return
    odd = USUAL - heard.ease
    if odd > 0 and len(word) > 1:
        letters, place, share, start = reading.lexicon.rarity.rarest(word)
        percent = f"{100 * share:.1f} %" if share >= 0.001 else "under 0.1 %"
        args = {"letters": letters, "place": place, "percent": percent, "word": word}
        points = -min(MOST_ODD, A_BIT * odd)
        yield Finding("odd", points, at + start, at + start + 2, args)
    if len(heard.readings) > 1:
        share = heard.readings[0][1]
        first, second = (as_heard(r[0]) for r in heard.readings[:2])
        if share < 0.93 and first != second:
            args = {"word": word, "first": first, "second": second}
            args["share"] = str(round(100 * heard.readings[1][1]))
            yield Finding("ways", -TWO_WAYS * (1 - share), at, end, args)


def _joins(reading: Reading) -> Iterator[Finding]:
    for (at, first), (start, second) in itertools.pairwise(reading.words):
        before = bare(reading.hearing.word(first).phones)
        after = bare(reading.hearing.word(second).phones)
        if at + len(first) != start or not before or not after:
            continue
        trail = next((i for i, p in enumerate(before[::-1]) if p in VOWELS), len(before))
        onset = next((i for i, p in enumerate(after) if p in VOWELS), len(after))
        args = {"first": first, "second": second, "count": trail + onset}
        if before[-1] == after[0]:
            yield Finding("same", -SAME_SOUND, start - 1, start + 1, args)
        elif trail + onset > CLUSTER:
            points = -EACH_CONSONANT * (trail + onset - CLUSTER)
            yield Finding("cluster", points, max(at, start - trail), start + onset, args)
        elif trail + onset == 0:
            yield Finding("vowels", -VOWELS_MEET, start - 1, start + 1, args)
