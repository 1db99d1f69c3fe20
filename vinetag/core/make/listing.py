"""Runs the recipes, sieves and merges their drafts, grades them, and puts the list in order."""

from __future__ import annotations

import zlib
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from vinetag.core.brief import Brief
from vinetag.core.candidates import Candidate
from vinetag.core.grade import MEASURES, Grader
from vinetag.core.lexicon import Lexicon
from vinetag.core.make.draft import Draft, Recipe
from vinetag.core.make.expected import expected
from vinetag.core.make.graded import Graded
from vinetag.core.make.job import Job
from vinetag.core.make.recipes import RECIPES
from vinetag.core.make.sieve import Sieve
from vinetag.core.make.variety import diversify

__all__ = [
    "GOOD_ENOUGH", "TIERS", "Made", "grade_drafts", "in_order", "make_names", "merge",
]  # fmt: skip

GOOD_ENOUGH = 70.0
# Tiers: so many names graded in full, of each recipe so many whatever the others have, and so many
# of them listed before the next tier is graded. The last line is for all that follow.
TIERS = ((400, 12, 300), (2_000, 60, 1_700), (2_600, 60, 2_600))


@dataclass(frozen=True, slots=True)
class Made:
    """The list, best first, and what became of the drafts: `considered` names were weighed by the
    recipes, `within` distinct ones were within limits, `good` of those graded in full got at least
    GOOD_ENOUGH. `by_recipe` splits `considered`.
    """

    names: Sequence[Graded]
    considered: int
    within: int
    good: int
    by_recipe: Mapping[str, int]


def make_names(
    brief: Brief,
    lexicon: Lexicon,
    *,
    seed: int = 1,
    limit: int = 2_000,
    recipes: Sequence[Recipe] = RECIPES,
) -> Made:
    """Candidates for the brief, best first, at most `limit`.

    The same brief and seed give the same list, and a longer one begins with the shorter. The seed
    decides between equals, and draws invented words.
    """
    job, sieve = Job(brief, lexicon, seed), Sieve(brief, lexicon)
    kept: list[tuple[str, Draft]] = []
    for recipe in recipes:
        if recipe.name in brief.making.off:
            continue
        drafts = 0
        for draft in recipe.make(job):
            drafts += 1
            if sieve.passes(draft):
                kept.append((recipe.name, draft))
        job.considered[recipe.name] = max(job.considered[recipe.name], drafts)
    within, tiers = grade_drafts(kept, brief, lexicon, seed)
    names: list[Graded] = []
    left: list[Graded] = []
    good = 0
    for number, graded in enumerate(tiers):
        good += sum(g.grade.grade >= GOOD_ENOUGH for g in graded)
        left = in_order([*left, *graded], seed)
        listed = TIERS[min(number, len(TIERS) - 1)][2]
        names += diversify(left, min(listed, limit - len(names)), brief, lexicon)
        if len(names) >= limit:
            break
        taken = {id(g) for g in names[-listed:]}
        left = [g for g in left if id(g) not in taken]
    else:
        names += diversify(left, limit - len(names), brief, lexicon)
    return Made(
        names=names,
        considered=job.considered.total(),
        within=within,
        good=good,
        by_recipe=job.considered,
    )


def grade_drafts(
    drafts: Sequence[tuple[str, Draft]],
    brief: Brief,
    lexicon: Lexicon,
    seed: int,
) -> tuple[int, Iterator[list[Graded]]]:
    """How many distinct names there are, and they, graded, tier by tier, the highest rank first.

    A guess (`expected`) puts those worth grading in full into the first tiers (TIERS), of each
    recipe some. Later tiers are graded when they are asked for.
    """
    found = merge(drafts)
    guesses = expected(found, brief, lexicon)
    chances = np.array([_chance(seed, candidate.label) for candidate in found])
    order = np.lexsort((chances, -np.round(guesses, 3))).tolist()
    tiers: list[list[Candidate]] = [[]]
    ahead: Counter[str] = Counter()
    for place, i in enumerate(order):
        recipe = found[i].recipes[0]
        ahead[recipe] += 1
        tier = _tier(place, ahead[recipe])
        tiers += [[] for _ in range(tier + 1 - len(tiers))]
        tiers[tier].append(found[i])
    grader = Grader(brief, lexicon, MEASURES)

    def graded(candidates: Sequence[Candidate]) -> list[Graded]:
        grades = grader.grades([grader.read(c) for c in candidates])
        return in_order(
            [Graded(c, g, g.grade) for c, g in zip(candidates, grades, strict=True)], seed
        )

    return len(found), (graded(tier) for tier in tiers)


def _tier(place: int, of_recipe: int) -> int:
    """The tier of a name at this place of the first pass, so many of its recipe up to it."""
    begins = 0
    for number, (size, by_recipe, _) in enumerate(TIERS[:-1]):
        begins += size
        if place < begins or of_recipe <= by_recipe:
            return number
    return len(TIERS) - 1 + (place - begins) // TIERS[-1][0]


def in_order(names: Sequence[Graded], seed: int) -> list[Graded]:
    """By rank, the seed deciding between equals."""
    return sorted(names, key=lambda g: (-round(g.rank, 1), _chance(seed, g.candidate.label)))


def merge(drafts: Sequence[tuple[str, Draft]]) -> list[Candidate]:
    """One candidate a label, in order of first appearance, remembering every recipe: with the parts
    of the draft that has most keywords, and the strength of the strongest.
    """
    best: dict[str, Draft] = {}
    recipes: dict[str, tuple[str, ...]] = {}
    for recipe, draft in drafts:
        label = draft.label
        if label not in best:
            best[label], recipes[label] = draft, (recipe,)
            continue
        last = best[label]
        if (_asked(draft), draft.strength) > (_asked(last), last.strength):
            best[label] = draft
        strength = max(draft.strength, last.strength)
        best[label] = best[label]._replace(strength=strength)
        if recipe not in recipes[label]:
            recipes[label] += (recipe,)
    return [Candidate(d.label, recipes[d.label], d.parts, d.strength) for d in best.values()]


def _asked(draft: Draft) -> int:
    return sum(part.kind == "keyword" for part in draft.parts)


def _chance(seed: int, label: str) -> int:
    """A number from the seed and this label alone: other names do not move it."""
    return zlib.crc32(label.encode("ascii"), seed & 0xFFFFFFFF)
