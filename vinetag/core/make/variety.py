"""Ordering a graded list so that near-twins do not stand in a row."""

from __future__ import annotations

import heapq
from collections import Counter
from collections.abc import Sequence
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from vinetag.core.make.planner import Graded

__all__ = ["varied"]

KEYWORD_STEP = 8
KEYWORD_COST = 2.0
WORD_COST = 2.5
STEPS_MAX = 6


def varied(ranked: Sequence[Graded], limit: int) -> list[Graded]:
    """The first `limit` of a list ranked by grade, each name set back for the words already shown.

    A name costs WORD_COST grade points for each time its lead or tail stood above it, and
    KEYWORD_COST for every KEYWORD_STEP times a keyword did, each up to STEPS_MAX times. Costs only
    grow, so a lazy heap is exact, and in bounded steps, so a name is weighed again few times.
    """
    seen: Counter[str] = Counter()
    heap = [(-g.grade.grade, i) for i, g in enumerate(ranked)]
    heapq.heapify(heap)
    chosen: list[Graded] = []
    while heap and len(chosen) < limit:
        value, place = heap[0]
        name = ranked[place]
        actual = _cost(name, seen) - name.grade.grade
        if actual > value:
            heapq.heapreplace(heap, (actual, place))
            continue
        heapq.heappop(heap)
        chosen.append(name)
        seen.update(p.text for p in name.candidate.parts)
    return chosen


def _cost(name: Graded, seen: Counter[str]) -> float:
    cost = 0.0
    for part in name.candidate.parts:
        if part.keyword:
            cost += KEYWORD_COST * min(STEPS_MAX, seen[part.text] // KEYWORD_STEP)
        else:
            cost += WORD_COST * min(STEPS_MAX, seen[part.text])
    return cost
