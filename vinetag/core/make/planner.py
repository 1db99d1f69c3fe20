"""Runs the recipes, sieves and merges their drafts, grades them, and puts the list in order."""

from __future__ import annotations

import zlib
from collections.abc import Collection, Mapping, Sequence
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

__all__ = ["GOOD_ENOUGH", "Graded", "Made", "grade_drafts", "make_names", "merge"]

GOOD_ENOUGH = 70.0
DIAL = 60.0
FAR_FROM_WORDS = 0.6
NO_KEYWORD = 24.0
TOGETHER = 16.0
WANTED = 5.0


@dataclass(frozen=True, slots=True)
class Graded:
    """A candidate with its grade; `rank` is the grade, more for parts that belong together, less
    what the person's dial takes off, and less for straying from the keywords, which short and easy
    words would otherwise hide.
    """

    candidate: Candidate
    grade: Grade
    rank: float


@dataclass(frozen=True, slots=True)
class Made:
    """The list, best first, and what became of the drafts: `considered` names were weighed by the
    recipes, `within` distinct ones were worth grading and within limits, `good` of them graded at
    least GOOD_ENOUGH. `by_recipe` splits `considered`.
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
    without: Collection[str] = (),
) -> Made:
    """Candidates for the brief, best first, at most `limit`, none of `without`.

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
            if sieve.passes(draft) and draft.label not in without:
                kept.append((recipe.name, draft))
        job.considered[recipe.name] = max(job.considered[recipe.name], drafts)
    graded = grade_drafts(kept, brief, lexicon, seed, recipes)
    return Made(
        names=varied(graded, limit),
        considered=job.considered.total(),
        within=len(graded),
        good=sum(g.grade.grade >= GOOD_ENOUGH for g in graded),
        by_recipe=job.considered,
    )


def grade_drafts(
    drafts: Sequence[tuple[str, Draft]],
    brief: Brief,
    lexicon: Lexicon,
    seed: int,
    recipes: Sequence[Recipe] = RECIPES,
) -> list[Graded]:
    """Merged and graded, the highest rank first."""
    grader = Grader(brief, lexicon, MEASURES)
    dial = brief.making.daring / 100
    far = {r.name: DIAL * abs(r.daring - dial) for r in recipes}
    graded = []
    for candidate in merge(drafts):
        grade = grader.grade(grader.read(candidate))
        off = min(far.get(name, 0.0) for name in candidate.recipes)
        foreign = FAR_FROM_WORDS * (100 - grade.scores.get("fit", 100.0))
        if all(part.kind in ("kin", "lead", "tail") for part in candidate.parts):
            foreign += NO_KEYWORD
        foreign += WANTED * _wanted(candidate, lexicon)
        graded.append(
            Graded(candidate, grade, grade.grade + TOGETHER * candidate.strength - off - foreign)
        )
    graded.sort(key=lambda g: (-round(g.rank, 1), _chance(seed, g.candidate.label)))
    return graded


def _wanted(candidate: Candidate, lexicon: Lexicon) -> float:
    """How likely others thought of it: very common words, short together. 0 for most names."""
    known = [lexicon.words[p.text].zipf for p in candidate.parts if p.text in lexicon.words]
    if len(known) < 2:
        return 0.0
    return max(0.0, sum(known) / len(known) - 4.3) * max(0.0, 14 - candidate.letters) / 5


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
