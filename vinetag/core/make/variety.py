"""Ordering a graded list so that near-twins do not stand in a row."""

from __future__ import annotations

import heapq
from collections import Counter
from collections.abc import Sequence
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from vinetag.core.lexicon import Lexicon
    from vinetag.core.make.planner import Graded

__all__ = ["varied"]

_Steps = tuple[list[str], list[str], list[tuple[str, float, int, int]], bool]

WORD_COST = 2.5
WORD_STEPS = 8
TURNED_COST = 16.0
SORT_COST = 1.3
SORT_STEPS = 10
CHANGE_COST = 2.2
SAME_STEM = 1.0
# How far forward a keyword comes that stood in so many names above: none, one, two …
KEYWORD_AHEAD = (40.0, 34.0, 29.0, 24.0, 19.0, 14.0, 9.0, 4.0)
# The same for a recipe, by its names of at least this grade, when the dial is not far from it.
RECIPE_AHEAD = (16.0, 12.0, 9.0, 6.0, 4.0, 2.0)
DID_WELL = 62.0
FITTING = -12.0
KEYWORD_COST = 1.6
KEYWORD_EVERY = 4
KEYWORD_STEPS = 10
RECIPE_COST = 1.2
RECIPE_EVERY = 5
RECIPE_STEPS = 14


def varied(
    ranked: Sequence[Graded], limit: int, lexicon: Lexicon, seen: Counter[str] | None = None
) -> list[Graded]:
    """The first `limit` of a list by rank, each name set back for what was already shown: in this
    list, and in those before it by the same count of what was `seen`.

    A name costs WORD_COST points for each time one of its added or related words stood above it,
    SORT_COST for each time another of that sort stood beside the same words, TURNED_COST when its
    words did in another order, KEYWORD_COST for every KEYWORD_EVERY times a keyword did, and
    RECIPE_COST for every RECIPE_EVERY times its least shown recipe did; a changed word CHANGE_COST
    for each time its keyword was changed in that way above it, and (but for half of a blend)
    SAME_STEM for each other way; each up to so many steps. Those that bring a keyword, or show a
    recipe that did well, for the first times come forward (KEYWORD_AHEAD, RECIPE_AHEAD), so that
    each is seen early. Costs only grow, so a lazy heap is exact, and in bounded steps, so a name is
    weighed again few times. A longer list begins with the shorter one.
    """
    seen = Counter() if seen is None else seen
    weighed = [_steps(g, lexicon) for g in ranked]
    heap = [
        (_cost(steps, seen) - g.rank, i)
        for i, (g, steps) in enumerate(zip(ranked, weighed, strict=True))
    ]
    heapq.heapify(heap)
    chosen: list[Graded] = []
    while heap and len(chosen) < limit:
        value, place = heap[0]
        name = ranked[place]
        actual = _cost(weighed[place], seen) - name.rank
        if actual > value + 1e-9:
            heapq.heapreplace(heap, (actual, place))
            continue
        heapq.heappop(heap)
        chosen.append(name)
        seen.update(_seen_in(name, lexicon))
        seen.update({f"/{p.keyword}" for p in name.candidate.parts if p.keyword})
        changes = [p for p in name.candidate.parts if p.change]
        seen.update(f"{p.kind}/{p.keyword}" for p in changes)
        seen.update(f"*/{p.keyword}" for p in changes)
        seen.update(f"={recipe}" for recipe in name.candidate.recipes)
    return chosen


def _seen_in(name: Graded, lexicon: Lexicon) -> set[str]:
    """Its keywords, its other words, what sort of words they are beside which, and all together."""
    parts = [p for p in name.candidate.parts if p.kind != "hyphen"]
    words = {p.keyword if p.kind == "keyword" else _word(p.text) for p in parts}
    return words.union(_sorts(name, lexicon), _turned(name))


def _turned(name: Graded) -> list[str]:
    """The words of a name of two and more, in no order; one of a thing and many are the same."""
    words = sorted(_word(p.text) for p in name.candidate.parts if p.kind != "hyphen")
    return ["&" + "+".join(words)] if len(words) > 1 else []


def _sorts(name: Graded, lexicon: Lexicon) -> list[str]:
    """Added or related words by their sort (plant, colour …), with the words they stand beside."""
    found = []
    parts = name.candidate.parts
    for at, part in enumerate(parts):
        if part.kind in ("lead", "tail", "kin") and not part.change:
            sort = lexicon.sort_of(part.text)
            if sort:
                beside = "+".join(p.text for p in (*parts[:at], *parts[at + 1 :]))
                found.append(f"{sort}~{beside}")
    return found


def _word(text: str) -> str:
    """One word and many of it count as the same: maker, makers."""
    return text[:-1] if len(text) > 3 and text.endswith("s") else text


def _steps(name: Graded, lexicon: Lexicon) -> _Steps:
    """What of a name is counted: its recipes, its keywords, and (what, points a step, so many of it
    to a step, steps at most) of the rest; and whether its recipe did well by it.
    """
    keywords: dict[str, None] = {}
    rest = []
    for part in name.candidate.parts:
        if part.kind == "keyword":
            keywords[part.keyword] = None
        elif part.kind != "hyphen":
            rest.append((_word(part.text), WORD_COST, 1, WORD_STEPS))
            if part.change:
                rest.append((f"{part.kind}/{part.keyword}", CHANGE_COST, 1, WORD_STEPS))
                # Two words blended differ more from the next blend than a word with other endings.
                if part.kind != "blend":
                    rest.append((f"*/{part.keyword}", SAME_STEM, 1, WORD_STEPS))
            if part.keyword:
                every = 3 * KEYWORD_EVERY
                rest.append((f"/{part.keyword}", KEYWORD_COST, every, KEYWORD_STEPS))
    rest += [(words, TURNED_COST, 1, 1) for words in _turned(name)]
    rest += [(sort, SORT_COST, 1, SORT_STEPS) for sort in _sorts(name, lexicon)]
    well = name.grade.grade >= DID_WELL and name.bonus >= FITTING
    return [f"={recipe}" for recipe in name.candidate.recipes], list(keywords), rest, well


def _cost(steps: _Steps, seen: Counter[str]) -> float:
    recipes, keywords, rest, well = steps
    shown = min([seen[r] for r in recipes])
    cost = RECIPE_COST * min(RECIPE_STEPS, shown // RECIPE_EVERY)
    if well and shown < len(RECIPE_AHEAD):
        cost -= RECIPE_AHEAD[shown]
    for keyword in keywords:
        shown = seen[keyword]
        cost += KEYWORD_COST * min(KEYWORD_STEPS, shown // KEYWORD_EVERY)
        if shown < len(KEYWORD_AHEAD):
            cost -= KEYWORD_AHEAD[shown]
    for key, points, every, most in rest:
        shown = seen[key]
        if shown:
            cost += points * min(most, shown // every)
    return cost
