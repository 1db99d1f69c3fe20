"""Runs the recipes, sieves and merges their drafts, grades them, and puts the list in order."""

from __future__ import annotations

import zlib
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from vinetag.core.brief import Brief, Making
from vinetag.core.candidates import Candidate, Part
from vinetag.core.grade import MEASURES, Grade, Grader, Reading
from vinetag.core.grade.measures.fit import Fit
from vinetag.core.grade.measures.length import Length
from vinetag.core.lexicon import Lexicon
from vinetag.core.make.draft import Draft, Recipe
from vinetag.core.make.job import Job
from vinetag.core.make.recipes import RECIPES
from vinetag.core.make.sieve import Sieve
from vinetag.core.make.variety import varied

__all__ = [
    "GOOD_ENOUGH", "Graded", "Made", "grade_drafts", "in_order", "make_names", "merge", "ranked",
]  # fmt: skip

GOOD_ENOUGH = 80.0
DIAL = 60.0
# From the usual dial upwards keywords matter less and the dial itself more.
USUAL = Making().daring
DARING = 1.5
FAR_FROM_WORDS = 0.6
NO_KEYWORD = 24.0
TOGETHER = 16.0
WANTED = 6.0
A_WORD = 1.0
SELDOM = 2.0
COMMON = 4.3
FIRST_PASS = (Length(), Fit())
FIRST_SHARE = 0.6
NEW_LETTERS = 23.0
GRADED = 2_600
BY_RECIPE = 60


@dataclass(frozen=True, slots=True)
class Graded:
    """A candidate with its grade. `rank` orders the list: the grade, with `bonus` (more for parts
    that belong together, less what the person's dial takes off), less for straying from the
    keywords.
    """

    candidate: Candidate
    grade: Grade
    rank: float
    bonus: float = 0.0


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
    within, tiers = grade_drafts(kept, brief, lexicon, seed, recipes)
    names: list[Graded] = []
    good = 0
    for graded in tiers:
        good += sum(g.grade.grade >= GOOD_ENOUGH for g in graded)
        names += varied(graded, limit - len(names))
        if len(names) >= limit:
            break
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
    recipes: Sequence[Recipe] = RECIPES,
) -> tuple[int, Iterator[list[Graded]]]:
    """How many distinct names there are, and they, graded, tier by tier, the highest rank first.

    A cheap first pass (length, fit, and how well the parts belong together) puts those worth
    grading in full into the first tier: GRADED of them, and of each recipe the best BY_RECIPE
    whatever the others have. Later tiers are graded when they are asked for.
    """
    first = Grader(brief, lexicon, FIRST_PASS)
    readings = [(c, first.read(c)) for c in merge(drafts)]
    daring = brief.making.daring
    pull = DIAL * (1 + (DARING - 1) * _beyond_usual(daring))
    far = {r.name: pull * abs(r.daring - daring / 100) for r in recipes}
    bonus = [_bonus(c, far, lexicon) for c, _ in readings]
    quick = [_quickly(first.grade(r), r, bonus[i], daring) for i, (_, r) in enumerate(readings)]
    order = sorted(
        range(len(readings)),
        key=lambda i: (-round(quick[i], 1), _chance(seed, readings[i][0].label)),
    )
    tiers: list[list[int]] = [[]]
    ahead: Counter[str] = Counter()
    for place, i in enumerate(order):
        recipe = readings[i][0].recipes[0]
        ahead[recipe] += 1
        tier = 0 if ahead[recipe] <= BY_RECIPE else place // GRADED
        tiers += [[] for _ in range(tier + 1 - len(tiers))]
        tiers[tier].append(i)
    grader = Grader(brief, lexicon, MEASURES)

    def graded(places: Sequence[int]) -> list[Graded]:
        found = []
        for i in places:
            candidate, reading = readings[i]
            grade = grader.grade(reading)
            rank = ranked(grade.grade, grade.scores, bonus[i], daring)
            found.append(Graded(candidate, grade, rank, bonus[i]))
        return in_order(found, seed)

    return len(readings), (graded(places) for places in tiers)


def in_order(names: Sequence[Graded], seed: int) -> list[Graded]:
    """By rank, the seed deciding between equals."""
    return sorted(names, key=lambda g: (-round(g.rank, 1), _chance(seed, g.candidate.label)))


def ranked(grade: float, scores: Mapping[str, float], bonus: float, daring: int) -> float:
    """What a name is ranked by: its grade and bonus, less for straying from the keywords, which
    short and easy words would otherwise hide; to the daring (0 to 100) that matters less.
    """
    strays = 100 - scores.get("fit", 100.0)
    return grade + bonus - FAR_FROM_WORDS * (1 - _beyond_usual(daring)) * strays


def _beyond_usual(daring: int) -> float:
    """How far the dial is from its usual place to its end, 0 to 1."""
    return max(0.0, (daring - USUAL) / (100 - USUAL))


def _quickly(grade: Grade, reading: Reading, bonus: float, daring: int) -> float:
    """A rank from the first pass: what the other measures would say is guessed from the letters
    that stand in no known word (fitted to full grades, correlation 0.83 to 0.90).
    """
    words, given = reading.lexicon.words, reading.keywords
    unknown = sum(len(word) for _, word in reading.words if word not in words and word not in given)
    guess = FIRST_SHARE * grade.grade - NEW_LETTERS * unknown / len(reading.label)
    return ranked(guess, grade.scores, bonus, daring)


def _bonus(candidate: Candidate, far: Mapping[str, float], lexicon: Lexicon) -> float:
    """What the rank adds to the grade, whatever the weights: more for parts that belong together,
    less by how far its recipe is from the person's dial, for names without a keyword, and for those
    others surely thought of.
    """
    bonus = TOGETHER * candidate.strength - min(far.get(n, 0.0) for n in candidate.recipes)
    bonus -= WANTED * _wanted(candidate, lexicon)
    if all(_strays(part) for part in candidate.parts):
        bonus -= NO_KEYWORD
    return bonus


def _strays(part: Part) -> bool:
    """Whether a part is no keyword, nor made of one: made of a related word, or added."""
    if part.kind in ("form", "affix", "respell", "clip"):
        return part.text[:3] != part.keyword[:3]
    return part.kind in ("kin", "lead", "tail")


def _wanted(candidate: Candidate, lexicon: Lexicon) -> float:
    """How likely others thought of it: a word of the dictionary, or very common words, short
    together. 0 for most names.
    """
    words = lexicon.words
    if candidate.label in words:
        return A_WORD * max(0.0, words[candidate.label].zipf - SELDOM)
    known = [words[p.text].zipf for p in candidate.parts if p.text in words]
    if len(known) < 2:
        return 0.0
    return max(0.0, sum(known) / len(known) - COMMON) * max(0.0, 14 - candidate.letters) / 5


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
