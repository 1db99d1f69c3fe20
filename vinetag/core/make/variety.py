"""Putting a graded list in order so that no kind of name, and no word, fills a screen."""

from __future__ import annotations

from collections import Counter
from collections.abc import Collection, Mapping, Sequence
from typing import Final, NamedTuple

from vinetag.core.brief import Brief, Making, Purpose
from vinetag.core.concepts import RECIPE_KINDS
from vinetag.core.lexicon import Lexicon
from vinetag.core.make.graded import Graded
from vinetag.core.world.incidental import SMALL, says

__all__ = ["GROUPS", "SCREEN", "Shown", "diversify", "places_of"]

SCREEN: Final = 50
# What stands together in a screen's places; a name of several recipes stands with the first.
IN_ORDER: Final = (
    "saying", "couple", "call", "plain", "combined", "asked", "added", "changed", "ended", "coined",
)  # fmt: skip
GROUPS: Final[Mapping[str, str]] = {
    kind.name: kind.group
    for kind in sorted(RECIPE_KINDS, key=lambda kind: IN_ORDER.index(kind.group))
}
# Of every SCREEN names, so many places at most for each.
PLACES: Final[Mapping[Purpose, Mapping[str, int]]] = {
    "brand": {
        "saying": 28, "couple": 9, "call": 8, "plain": 1, "combined": 1, "asked": 0, "added": 0,
        "changed": 0, "ended": 6, "coined": 2,
    },
    "mix": {
        "saying": 26, "couple": 9, "call": 8, "plain": 5, "combined": 0, "asked": 1, "added": 0,
        "changed": 0, "ended": 2, "coined": 1,
    },
    "descriptive": {
        "saying": 19, "couple": 7, "call": 6, "plain": 12, "combined": 0, "asked": 2, "added": 0,
        "changed": 0, "ended": 0, "coined": 0,
    },
}  # fmt: skip
PLAINER = frozenset(("plain", "asked"))
BOLDER = frozenset(("ended", "coined", "changed"))
# Of every screen, so many places at least, as far as there are names: a brand wants coined words to
# choose from, and who asks for a description wants to see them.
LEAST: Final[Mapping[Purpose, Mapping[str, int]]] = {
    "brand": {"ended": 4}, "mix": {"plain": 2},
    "descriptive": {"plain": 9, "asked": 1},
}  # fmt: skip
# What was written as it stands goes on when a screen has room; the others keep to their places.
FREE: Final = frozenset(("saying", "call", ""))
# Points of grade by which names of other groups may be behind those of a full one.
MUCH_WORSE: Final = 9.0
# One word, in a name of several, and one last word.
ONE_WORD: Final = 5
OWN_NAMES: Final = 8
MOST_WANTED: Final = 12
# A keyword nobody lists is no made-up word when two words so long and so common (Zipf) stand in it.
LEAST_HALF: Final = 4
COMMON_HALF: Final = 3.0


class Shown:
    """What a screen holds already."""

    def __init__(self) -> None:
        self.groups: Counter[str] = Counter()
        self.words: Counter[_Said] = Counter()
        self.sets: set[frozenset[_Said]] = set()

    def add(self, item: _Item) -> None:
        """Another name."""
        self.groups[item.group] += 1
        self.words.update(item.words)
        self.sets.add(frozenset(item.words))

    def has_room(self, item: _Item, places: Mapping[str, int]) -> bool:
        """Whether one more of this group with these words may stand here."""
        return self.groups[item.group] < places.get(item.group, SCREEN) and self.may_say(item)

    def may_say(self, item: _Item) -> bool:
        """Whether its words were not said too often, nor the same ones in another order."""
        return not self.said(item) and all(self.words[w] < ONE_WORD for w in item.words)

    def said(self, item: _Item) -> bool:
        """Whether its words were said, several of them, in this or another order."""
        return len(item.words) > 1 and frozenset(item.words) in self.sets


class _Said(NamedTuple):
    """What may tire when it comes too often: a word, or a keyword that was `changed`."""

    text: str
    changed: bool = False


class _Wanted(NamedTuple):
    """What so many names of a screen have at least: a group of recipes, or a keyword."""

    group: str = ""
    keyword: str = ""


class _Item(NamedTuple):
    name: Graded
    group: str
    words: Sequence[_Said]
    keys: frozenset[_Wanted]


def places_of(brief: Brief) -> Mapping[str, int]:
    """How many places of a screen each group of recipes has at most, by the brief's purpose and
    the dial: the plainer, the more for what was asked for; the bolder, the more for coined words.
    """
    turned = (brief.making.daring - Making().daring) / 100
    found = {}
    for group, places in PLACES[brief.purpose].items():
        lean = -1.2 if group in PLAINER else 6.0 if group in BOLDER else 0.0
        found[group] = max(0, round(places * (1 + lean * turned)))
    return found


def diversify(
    ranked: Sequence[Graded],
    limit: int,
    brief: Brief,
    lexicon: Lexicon,
    spared: Collection[str] = (),
) -> list[Graded]:
    """The first `limit` of a list by grade, in screens of SCREEN names, each screen by grade: each
    group of recipes within its places, each word at most ONE_WORD times; what does not fit waits
    for the next screen. A keyword that was weighed up is on every screen, and a word of the
    person's own in several names. Words that are `spared` may come as often as they do. A longer
    list begins with the shorter one.
    """
    places = places_of(brief)
    wanted = _wanted(brief, lexicon) if not spared else {}
    waiting = [
        _Item(n, _group(n), [w for w in _words(n) if w.text not in spared], _keys(n, wanted))
        for n in ranked
    ]
    chosen: list[Graded] = []
    while waiting and len(chosen) < limit:
        taken = _screen(waiting, places, wanted)
        chosen += [item.name for item in taken]
        ids = {id(item) for item in taken}
        waiting = [item for item in waiting if id(item) not in ids]
    return chosen[:limit]


def _screen(
    waiting: Sequence[_Item], places: Mapping[str, int], wanted: Mapping[_Wanted, int]
) -> list[_Item]:
    """The next screen. A group that is full gives up its place only to names that are not much
    worse: otherwise its own go on, but for those that tire (FREE do not).
    """
    shown = Shown()
    taken = _sure(waiting, wanted)
    ids = {id(item) for item in taken}
    for item in taken:
        shown.add(item)
    over: list[_Item] = []
    rest: list[_Item] = []
    for item in waiting:
        while over and len(taken) < SCREEN and item.name.rank < over[0].name.rank - MUCH_WORSE:
            first = over.pop(0)
            if shown.may_say(first):
                taken.append(first)
                shown.add(first)
            else:
                rest.append(first)
        if len(taken) >= SCREEN:
            break
        if id(item) in ids:
            continue
        if shown.has_room(item, places):
            taken.append(item)
            shown.add(item)
        elif item.group in FREE and shown.may_say(item):
            over.append(item)
        else:
            rest.append(item)
    taken += [*over, *rest][: SCREEN - len(taken)]
    return sorted(taken[:SCREEN], key=lambda i: -i.name.rank)


def _sure(waiting: Sequence[_Item], wanted: Mapping[_Wanted, int]) -> list[_Item]:
    """The best names of each keyword, as many as are wanted of it."""
    found: dict[int, _Item] = {}
    having: Counter[_Wanted] = Counter()
    shown = Shown()
    for item in waiting:
        if any(having[key] < wanted[key] for key in item.keys) and not shown.said(item):
            shown.add(item)
            found[id(item)] = item
            having.update(item.keys)
        if all(having[key] >= count for key, count in wanted.items()):
            break
    return list(found.values())


def _wanted(brief: Brief, lexicon: Lexicon) -> Mapping[_Wanted, int]:
    """Names of a screen at least, by group (LEAST; more coined ones the bolder the dial) and by
    keyword: of those weighed up one each, where names describe of all that say something, and of
    a word of the person's own OWN_NAMES.
    """
    least = dict(LEAST[brief.purpose])
    if brief.making.daring > Making().daring:
        places = places_of(brief)
        least |= {"coined": places["coined"], "ended": places["ended"] // 2}
    found = {_Wanted(group=group): count for group, count in least.items()}
    describes = brief.purpose == "descriptive"
    for keyword in sorted(brief.keywords, key=lambda k: -k.weight)[:MOST_WANTED]:
        if any(_made_up(word, lexicon) for word in keyword.words):
            found[_Wanted(keyword=keyword.text)] = OWN_NAMES
        elif keyword.weight > 3 or (describes and says(keyword.words[-1]) == 1):
            found[_Wanted(keyword=keyword.text)] = 1
    return found


def _made_up(word: str, lexicon: Lexicon) -> bool:
    """Whether nobody lists the word, whole or as two common words in a row (stairlift)."""
    words = lexicon.words
    if word in words:
        return False
    halves = ((word[:at], word[at:]) for at in range(LEAST_HALF, len(word) - LEAST_HALF + 1))
    return not any(all(h in words and words[h].zipf >= COMMON_HALF for h in two) for two in halves)


def _keys(name: Graded, wanted: Mapping[_Wanted, int]) -> frozenset[_Wanted]:
    carried = {_Wanted(keyword=p.keyword) for p in name.candidate.parts if p.kind == "keyword"}
    return frozenset((carried | {_Wanted(group=_group(name))}).intersection(wanted))


def _group(name: Graded) -> str:
    """The group of the first recipe, in their order, that made it; a word with an ending that says
    nothing by itself is one that was changed.
    """
    recipes = name.candidate.recipes
    found = next((group for recipe, group in GROUPS.items() if recipe in recipes), "")
    says_so = any(part.kind == "ending" for part in name.candidate.parts)
    return "changed" if found == "ended" and not says_so else found


def _words(name: Graded) -> list[_Said]:
    """Its words but the small ones; one and many are the same. None for a single word."""
    parts = [p for p in name.candidate.parts if p.kind != "hyphen"]
    if len(parts) < 2:
        return [_Said(p.keyword, changed=True) for p in parts if p.change and p.keyword]
    words = [p.text for p in parts if p.text not in SMALL]
    return [_Said(w[:-1] if len(w) > 3 and w.endswith("s") else w) for w in words]
