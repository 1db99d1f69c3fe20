"""Runs the recipes, sieves and merges their drafts, grades them, and puts the list in order."""

from __future__ import annotations

import zlib
from collections.abc import Sequence
from dataclasses import dataclass

from vinetag.core.brief import Brief
from vinetag.core.candidates import Candidate
from vinetag.core.grade import MEASURES, Grade, Grader
from vinetag.core.lexicon import Lexicon
from vinetag.core.make.draft import Draft, Recipe
from vinetag.core.make.job import Job
from vinetag.core.make.recipes import RECIPES
from vinetag.core.make.sieve import Sieve
from vinetag.core.make.variety import varied

__all__ = ["GOOD_ENOUGH", "Graded", "Made", "make_names", "merge"]

GOOD_ENOUGH = 55.0


@dataclass(frozen=True, slots=True)
class Graded:
    """A candidate with its grade."""

    candidate: Candidate
    grade: Grade


@dataclass(frozen=True, slots=True)
class Made:
    """The list, best first, and what became of the drafts: `drafts` came from the recipes, `within`
    distinct names were within limits, `good` of them graded at least GOOD_ENOUGH.
    """

    names: Sequence[Graded]
    drafts: int
    within: int
    good: int


def make_names(
    brief: Brief,
    lexicon: Lexicon,
    *,
    seed: int = 1,
    limit: int = 2_000,
    recipes: Sequence[Recipe] = RECIPES,
) -> Made:
    """Candidates for the brief, best first, at most `limit`.

    The same brief and seed give the same list; the seed only decides between equals.
    """
    job, sieve = Job(brief, lexicon), Sieve(brief, lexicon)
    drafts = 0
    kept: list[tuple[str, Draft]] = []
    for recipe in recipes:
        for draft in recipe.make(job):
            drafts += 1
            if sieve.passes(draft):
                kept.append((recipe.name, draft))
    grader = Grader(brief, lexicon, MEASURES)
    graded = [Graded(c, grader.grade(grader.read(c))) for c in merge(kept)]
    graded.sort(key=lambda g: (-round(g.grade.grade, 1), _chance(seed, g.candidate.label)))
    return Made(
        names=varied(graded, limit),
        drafts=drafts,
        within=len(graded),
        good=sum(g.grade.grade >= GOOD_ENOUGH for g in graded),
    )


def merge(drafts: Sequence[tuple[str, Draft]]) -> list[Candidate]:
    """One candidate a label, in order of first appearance, remembering every recipe."""
    best: dict[str, Draft] = {}
    recipes: dict[str, tuple[str, ...]] = {}
    for recipe, draft in drafts:
        label = draft.label
        if label not in best:
            best[label], recipes[label] = draft, (recipe,)
            continue
        if draft.strength > best[label].strength:
            best[label] = draft
        if recipe not in recipes[label]:
            recipes[label] += (recipe,)
    return [Candidate(d.label, recipes[d.label], d.parts, d.strength) for d in best.values()]


def _chance(seed: int, label: str) -> int:
    """A number from the seed and this label alone: other names do not move it."""
    return zlib.crc32(label.encode("ascii"), seed & 0xFFFFFFFF)
