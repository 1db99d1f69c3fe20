"""sense: does the name mean something here, in natural English?

The points are judgement, weighed on the marks readers gave to names of half of the briefs in
tests/readings/marks.json; scripts/eval_appeal.py tells how well they do on the other half.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from functools import lru_cache
from types import MappingProxyType
from typing import Final

from vinetag.core.candidates import Part
from vinetag.core.grade.reading import Reading
from vinetag.core.grade.scale import Assessment, Finding, assess, not_graded
from vinetag.core.lexicon import Lexicon
from vinetag.core.lexicon.endings import ENDINGS, takes
from vinetag.core.world.incidental import SMALL, says
from vinetag.core.world.world import World

__all__ = ["Sense"]

BASE: Final = 44.0
# An entry's expected mark (1 to 5) that leaves the base, and points for a mark more.
ENTRY_AT: Final = 1.45
ENTRY: Final = 22.0
# How near all its words together are to the sentence: the usual cosine, points for 1 more, and the
# cosine from which more says nothing new.
USUAL_NEAR: Final = 0.2
NEAR: Final = 46.0
NEAR_ENOUGH: Final = 0.45
ELSEWHERE: Final = 16.0
LISTED: Final = 12.0
GLOSS: Final = 0.25
STRANGER: Final = 4.0
STRANGE: Final = 0.06
TACKED: Final = 6.0
INCIDENTAL: Final = 8.0
CATEGORY: Final = 18.0
REVERSED: Final = 10.0
STUB: Final = 20.0
COINED: Final = 5.0
# An ending that says something on a thing one can picture.
ENDED: Final = 9.0
SHORT_STUB: Final = 4
SPOKEN: Final = 5.0
WHOLE_PHRASE: Final = 10.0
# A keyword as it is names the thing outright; that is what a descriptive name is for.
OUTRIGHT: Final = {"brand": 12.0, "mix": 10.0, "descriptive": 4.0}
ALONE: Final = 6.0
# Words alike (cosine) say one thing twice.
TWICE_AT: Final = 0.5
TWICE: Final = 20.0
# A keyword named beside a word it has no tie to is glued there; a descriptive name may.
GLUED: Final = {"brand": 11.0, "mix": 9.0, "descriptive": 5.0}
TIED: Final = 0.3
# A rarer word that is known says more than a common one: by Zipf value.
RARE_AT: Final = 4.2
RARE: Final = 4.0
MOST_RARE: Final = 9.0
# Pointwise mutual information (nats) from which words are usual in that order.
DONE: Final = frozenset(("act", "event", "process", "person", "group"))
USUAL_ORDER: Final = 2.5
DAUNTING: Final = 5
TOO_MANY: Final = 12.0


class Sense:
    """Sayings and couples of the world, how the parts go together, and what spoils them."""

    name = "sense"
    of_letters = False
    wording: Mapping[str, str] = MappingProxyType(
        {
            "no_brief": "Not graded, because the brief has neither a sentence nor words.",
            "saying": "“{said}” is said in {field}.",
            "couple": "“{said}” go together in {field}.",
            "call": "“{said}” is what one does in {field}.",
            "near": "“{said}” comes near what you are naming.",
            "far": "“{said}” says little of what you are naming.",
            "spoken": "“{said}” is put as people speak.",
            "alone": "“{word}” stands alone: one word seldom says enough.",
            "outright": "“{word}” names the thing outright, as others do.",
            "listed": "“{said}” is in the dictionary already: {gloss}.",
            "twice": "“{first}” and “{second}” say nearly the same.",
            "glued": "“{word}” is glued to it: the two have no tie.",
            "telling": "“{word}” is particular: it says more than a common word.",
            "common": "“{word}” is said of everything.",
            "elsewhere": "“{said}” is known as something else: {gloss}.",
            "stranger": "“{word}” has nothing to do with what you are naming.",
            "tacked": "“{word}” goes with anything: it says nothing of yours.",
            "incidental": "“{word}” could be said of nearly any venture.",
            "category": "“{word}” only names the kind of thing.",
            "reversed": "People say “{usual}”, the other way round.",
            "stub": "“{word}” is a stub: no word, and nothing that can be read as one.",
            "ended": "“{word}” with “-{ending}”: {means}.",
            "coined": "“{word}” is a coined word: it has to be given its meaning.",
            "against": "“{word}” works against what you promise.",
            "many": "{words} words are a sentence, not a name.",
        }
    )

    def assess(self, reading: Reading) -> Assessment:
        """The entry it is, or how its parts stand to each other and to the brief."""
        world, end = reading.world, len(reading.label)
        if reading.foreign:
            return not_graded(reading)
        if world is None or not world.informed:
            return not_graded(reading, "no_brief")
        words = [(at, w) for at, w in reading.words if w.isalpha()]
        said = [(at, w) for at, w in words if w not in SMALL] or words
        found = [*_whole(words, said, reading, world)]
        found += _parts(said, reading, world)
        if len(words) >= DAUNTING:
            found.append(Finding("many", -TOO_MANY, 0, end, {"words": len(words)}))
        return assess(BASE, found)


def _whole(
    words: Sequence[tuple[int, str]],
    said: Sequence[tuple[int, str]],
    reading: Reading,
    world: World,
) -> Iterator[Finding]:
    """What the name says as a whole."""
    end = len(reading.label)
    entry = world.entries.get(reading.label)
    text = " ".join(w for _, w in words)
    if entry:
        codes = {"phrases": "saying", "pairs": "couple", "does": "call"}
        more = ENTRY * (entry.mark - ENTRY_AT)
        args = {"said": " ".join(entry.words), "field": entry.field}
        yield Finding(codes[entry.facet], more, 0, end, args)
        return
    near = world.near(text) if words else 0.0
    points = NEAR * (min(near, NEAR_ENOUGH) - USUAL_NEAR)
    yield Finding("near" if points >= 0 else "far", points, 0, end, {"said": text})
    gloss = _elsewhere(text, reading.label, reading.lexicon)
    named = {part.start for part in reading.carried if part.kind == "keyword"}
    asked_for = all(at in named for at, _ in said)
    if gloss and not asked_for:
        far = _gloss_near(gloss, world) < GLOSS
        args = {"said": text, "gloss": gloss[:60]}
        yield Finding(
            "elsewhere" if far else "listed", -(ELSEWHERE if far else LISTED), 0, end, args
        )
    if len(said) > 2 or 1 < len(said) < len(words):
        points = WHOLE_PHRASE if len(said) > 2 else SPOKEN
        yield Finding("spoken", points, 0, end, {"said": text})
    if len(words) == 1 and not reading.carried:
        yield Finding("alone", -ALONE, 0, end, {"word": text})
    if len(said) == 2:
        yield from _two(said, reading, world, beside=len(words) == 2)


def _two(
    said: Sequence[tuple[int, str]], reading: Reading, world: World, *, beside: bool
) -> Iterator[Finding]:
    """How two words stand to each other."""
    (at, first), (start, second) = said
    end = start + len(second)
    lexicon = reading.lexicon
    rows = lexicon.meanings.rows([first, second])
    alike = float(rows[0] @ rows[1])
    args = {"first": first, "second": second}
    if alike > TWICE_AT:
        yield Finding("twice", -TWICE * (alike - TWICE_AT) / (1 - TWICE_AT) - 3, at, end, args)
    asked = {part.start for part in reading.carried if part.kind == "keyword"}
    acted = {at, start} <= asked and _done(first, lexicon) and not _done(second, lexicon)
    if beside and (acted or _reversed(first, second, lexicon)):
        yield Finding("reversed", -REVERSED, at, end, {"usual": f"{second} {first}"})
    if beside and second in ENDINGS and takes(first, second, lexicon):
        yield Finding(
            "ended", ENDED, at, end, {"word": first, "ending": second, "means": ENDINGS[second]}
        )
    elif (at in asked) != (start in asked) and alike < TIED:
        other = second if at in asked else first
        if other not in world.words:
            cost = GLUED[reading.purpose]
            yield Finding("glued", -cost, at, end, {**args, "word": other})


def _parts(said: Sequence[tuple[int, str]], reading: Reading, world: World) -> Iterator[Finding]:
    """What single words do to it."""
    asked = {part.start: part for part in reading.carried if part.kind in ("keyword", "form")}
    entry = reading.label in world.entries
    ended = (
        len(said) == 2 and said[1][1] in ENDINGS and takes(said[0][1], said[1][1], reading.lexicon)
    )
    for at, word in said[:1] if ended else said:
        stop = at + len(word)
        if word in world.against:
            yield Finding("against", -ELSEWHERE, at, stop, {"word": word})
        if not entry:
            yield from _part(at, word, asked.get(at), len(said), reading)
    if entry:
        return
    outright = next(((at, w) for at, w in said if at in asked), None)
    if outright:
        at, word = outright
        yield Finding("outright", -OUTRIGHT[reading.purpose], at, at + len(word), {"word": word})
    words = reading.lexicon.words
    rarest = min(((words[w].zipf, at, w) for at, w in said if w in words), default=None)
    if rarest:
        zipf, at, word = rarest
        points = min(MOST_RARE, max(-MOST_RARE, RARE * (RARE_AT - zipf)))
        code = "telling" if points >= 0 else "common"
        yield Finding(code, points, at, at + len(word), {"word": word})


def _part(
    at: int, word: str, asked: Part | None, count: int, reading: Reading
) -> Iterator[Finding]:
    world, lexicon = reading.world, reading.lexicon
    stop, args = at + len(word), {"word": word}
    if asked:
        if says(word) < 1 and reading.keywords.get(asked.keyword, 3) <= 3:
            yield Finding("incidental", -INCIDENTAL, at, stop, args)
        elif count == 1:
            yield Finding("category", -CATEGORY, at, stop, args)
    elif word not in lexicon.words and word not in reading.keywords:
        code = "stub" if len(word) < SHORT_STUB and count > 1 else "coined"
        yield Finding(code, -(STUB if code == "stub" else COINED), at, stop, args)
    elif world and word not in world.words:
        if word in _tails(lexicon) and count > 1:
            yield Finding("tacked", -TACKED, at, stop, args)
        elif world.near(word) < STRANGE:
            yield Finding("stranger", -STRANGER, at, stop, args)


@lru_cache(2)
def _tails(lexicon: Lexicon) -> frozenset[str]:
    return frozenset(w.text for w in (*lexicon.bank.leads, *lexicon.bank.tails))


@lru_cache(20_000)
def _elsewhere(text: str, label: str, lexicon: Lexicon) -> str:
    """What the dictionary says of the words as one entry; "" when it has none."""
    senses = lexicon.thesaurus.senses(text) if " " in text else ()
    senses = senses or lexicon.thesaurus.senses(label)
    return senses[0].gloss if senses else ""


def _gloss_near(gloss: str, world: World) -> float:
    words = [w.strip(".,;:()'\"") for w in gloss.lower().split()]
    return float(world.nears([[w for w in words if w.isalpha() and w not in SMALL]])[0])


def _reversed(first: str, second: str, lexicon: Lexicon) -> bool:
    usual = lexicon.followers(second).get(first, 0.0)
    return usual >= USUAL_ORDER and lexicon.followers(first).get(second, 0.0) < usual / 2


def _done(word: str, lexicon: Lexicon) -> bool:
    """Whether it says what is done or who does it, which stands last in a trade's name."""
    return word.endswith("ing") or lexicon.field(word) in DONE
