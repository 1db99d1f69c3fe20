"""Runs the recipes, sieves and merges their drafts, grades them, and puts the list in order."""

from __future__ import annotations

import zlib
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from vinetag.core.brief import Brief, Making
from vinetag.core.candidates import Candidate, Part
from vinetag.core.grade import MEASURES, Grade, Grader
from vinetag.core.lexicon import Lexicon
from vinetag.core.make.draft import Draft, Recipe
from vinetag.core.make.first import FirstPass
from vinetag.core.make.job import Job
from vinetag.core.make.recipes import RECIPES
from vinetag.core.make.sieve import Sieve
from vinetag.core.make.variety import varied

__all__ = [
    "GOOD_ENOUGH", "TIERS", "Graded", "Made", "grade_drafts", "in_order", "make_names", "merge",
    "ranked",
]  # fmt: skip

GOOD_ENOUGH = 80.0
# Whatever speaks for a name, one graded lower is listed when nothing better is left.
POOR = 45.0
DIAL = 60.0
# From the usual dial upwards keywords matter less and the dial itself more.
USUAL = Making().daring
DARING = 1.5
FAR_FROM_WORDS = 0.6
NO_KEYWORD = 34.0
# The nearer the dial is to plain, the more: up to so many times of it.
DESCRIBES_NOTHING = 2.5
# A keyword nobody lists, such as a brand's own, is graded as hard to spell; that is its point.
OWN_WORD = 32.0
TOGETHER = 16.0
WANTED = 6.0
A_WORD = 1.0
SELDOM = 2.0
COMMON = 4.3
# Tiers: so many names graded in full, of each recipe so many whatever the others have, and so many
# of them listed before the next tier is graded. The last line is for all that follow.
TIERS = ((600, 25, 300), (2_000, 60, 1_700), (2_600, 60, 2_600))


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
    seen: Counter[str] = Counter()
    left: list[Graded] = []
    poor: list[Graded] = []
    good = 0
    for number, graded in enumerate(tiers):
        good += sum(g.grade.grade >= GOOD_ENOUGH for g in graded)
        poor += [g for g in graded if g.grade.grade < POOR]
        left = in_order([*left, *(g for g in graded if g.grade.grade >= POOR)], seed)
        listed = TIERS[min(number, len(TIERS) - 1)][2]
        names += varied(left, min(listed, limit - len(names)), lexicon, seen)
        if len(names) >= limit:
            break
        shown = {id(g) for g in names[-listed:]}
        left = [g for g in left if id(g) not in shown]
    else:
        names += varied(left, limit - len(names), lexicon, seen)
        names += varied(in_order(poor, seed), limit - len(names), lexicon, seen)
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
    grading in full into the first tiers (TIERS), of each recipe some. Later tiers are graded when
    they are asked for.
    """
    first = FirstPass(brief, lexicon)
    readings = [(c, first.grader.read(c)) for c in merge(drafts)]
    daring = brief.dial
    pull = DIAL * (1 + (DARING - 1) * _beyond_usual(daring))
    far = {r.name: pull * abs(r.daring - daring / 100) for r in recipes}
    lacks = NO_KEYWORD * (1 + (DESCRIBES_NOTHING - 1) * max(0.0, 1 - daring / USUAL))
    bonus = [_bonus(c, far, lacks, lexicon) for c, _ in readings]
    quick = []
    for i, (_, reading) in enumerate(readings):
        guess, fit = first.guess(reading)
        quick.append(ranked(guess, {"fit": fit}, bonus[i], daring))
    order = sorted(
        range(len(readings)),
        key=lambda i: (-round(quick[i], 1), _chance(seed, readings[i][0].label)),
    )
    tiers: list[list[int]] = [[]]
    ahead: Counter[str] = Counter()
    for place, i in enumerate(order):
        recipe = readings[i][0].recipes[0]
        ahead[recipe] += 1
        tier = _tier(place, ahead[recipe])
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


def ranked(grade: float, scores: Mapping[str, float], bonus: float, daring: int) -> float:
    """What a name is ranked by: its grade and bonus, less for straying from the keywords, which
    short and easy words would otherwise hide; to the daring (0 to 100) that matters less.
    """
    strays = 100 - scores.get("fit", 100.0)
    return grade + bonus - FAR_FROM_WORDS * (1 - _beyond_usual(daring)) * strays


def _beyond_usual(daring: int) -> float:
    """How far the dial is from its usual place to its end, 0 to 1."""
    return max(0.0, (daring - USUAL) / (100 - USUAL))


def _bonus(candidate: Candidate, far: Mapping[str, float], lacks: float, lexicon: Lexicon) -> float:
    """What the rank adds to the grade, whatever the weights: more for parts that belong together,
    less by how far its recipe is from the person's dial, for names without a keyword, and for those
    others surely thought of.
    """
    bonus = TOGETHER * candidate.strength - min(far.get(n, 0.0) for n in candidate.recipes)
    bonus -= WANTED * _wanted(candidate, lexicon)
    if all(_strays(part) for part in candidate.parts):
        bonus -= lacks
    if any(p.kind == "keyword" and p.text not in lexicon.words for p in candidate.parts):
        bonus += OWN_WORD
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
