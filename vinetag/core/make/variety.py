"""Ordering a graded list so that near-twins do not stand in a row."""

from __future__ import annotations

import heapq
from collections import Counter
from collections.abc import Sequence
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from vinetag.core.make.planner import Graded

__all__ = ["varied"]

_Steps = tuple[list[str], list[str], list[tuple[str, float, int, int]]]

WORD_COST = 2.5
WORD_STEPS = 8
CHANGE_COST = 3.0
SAME_STEM = 1.5
NOT_YET = 40.0
KEYWORD_COST = 1.6
KEYWORD_EVERY = 4
KEYWORD_STEPS = 10
RECIPE_COST = 1.2
RECIPE_EVERY = 5
RECIPE_STEPS = 14


def varied(ranked: Sequence[Graded], limit: int) -> list[Graded]:
    """The first `limit` of a list by rank, each name set back for what was already shown.

    A name costs WORD_COST points for each time one of its added or related words stood above it,
    KEYWORD_COST for every KEYWORD_EVERY times a keyword did, and RECIPE_COST for every RECIPE_EVERY
    times its least shown recipe did; a changed word CHANGE_COST for each time its keyword was
    changed in that way above it, and SAME_STEM for each other way; each up to so many steps. One
    that brings a keyword for the first time comes NOT_YET points forward. Costs only grow, so a
    lazy heap is exact, and in bounded steps, so a name is weighed again few times. A longer list
    begins with the shorter one.
    """
    seen: Counter[str] = Counter()
    weighed = [_steps(g) for g in ranked]
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
        seen.update(p.text for p in name.candidate.parts if p.kind != "hyphen")
        seen.update({f"/{p.keyword}" for p in name.candidate.parts if p.keyword})
        changes = [p for p in name.candidate.parts if p.change]
        seen.update(f"{p.kind}/{p.keyword}" for p in changes)
        seen.update(f"*/{p.keyword}" for p in changes)
        seen.update(f"={recipe}" for recipe in name.candidate.recipes)
    return chosen


def _steps(name: Graded) -> _Steps:
    """What of a name is counted: its recipes, its keywords, and (what, points a step, so many of it
    to a step, steps at most) of the rest.
    """
    keywords, rest = [], []
    for part in name.candidate.parts:
        if part.kind == "keyword":
            keywords.append(part.text)
        elif part.kind != "hyphen":
            rest.append((part.text, WORD_COST, 1, WORD_STEPS))
            if part.change:
                rest.append((f"{part.kind}/{part.keyword}", CHANGE_COST, 1, WORD_STEPS))
                rest.append((f"*/{part.keyword}", SAME_STEM, 1, WORD_STEPS))
            if part.keyword:
                every = 3 * KEYWORD_EVERY
                rest.append((f"/{part.keyword}", KEYWORD_COST, every, KEYWORD_STEPS))
    return [f"={recipe}" for recipe in name.candidate.recipes], keywords, rest


def _cost(steps: _Steps, seen: Counter[str]) -> float:
    recipes, keywords, rest = steps
    cost = RECIPE_COST * min(RECIPE_STEPS, min([seen[r] for r in recipes]) // RECIPE_EVERY)
    for keyword in keywords:
        shown = seen[keyword]
        cost += KEYWORD_COST * min(KEYWORD_STEPS, shown // KEYWORD_EVERY) if shown else -NOT_YET
    for key, points, every, most in rest:
        shown = seen[key]
        if shown:
            cost += points * min(most, shown // every)
    return cost
