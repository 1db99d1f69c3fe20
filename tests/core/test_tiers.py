"""The first pass: it decides what is graded in full first, and must not decide badly."""

from collections import Counter

import pytest

from vinetag.core.brief import Brief, parse_brief
from vinetag.core.grade import MEASURES, Grader
from vinetag.core.lexicon import load_lexicon
from vinetag.core.make import RECIPES, Job, listing, make_names
from vinetag.core.make.draft import Draft
from vinetag.core.make.listing import grade_drafts, merge
from vinetag.core.make.sieve import Sieve

LEXICON = load_lexicon()
OF = parse_brief({"keywords": ["garden", "bread"], "limits": {"letters_max": 12}})


def drafts(of: Brief) -> list[tuple[str, Draft]]:
    job, sieve = Job(of, LEXICON), Sieve(of, LEXICON)
    return [(r.name, d) for r in RECIPES for d in r.make(job) if sieve.passes(d)]


@pytest.fixture(scope="module")
def made() -> list[tuple[str, Draft]]:
    return drafts(OF)


def test_tiers_hold_every_name_once(made: list[tuple[str, Draft]]) -> None:
    within, tiers = grade_drafts(made, OF, LEXICON, 1)
    lists = list(tiers)
    labels = [g.candidate.label for tier in lists for g in tier]
    assert len(labels) == len(set(labels)) == within == len(merge(made))
    for tier in lists:
        order = [round(g.rank, 1) for g in tier]
        assert order == sorted(order, reverse=True)


def test_every_recipe_is_in_the_first_tier(
    made: list[tuple[str, Draft]], monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(listing, "TIERS", ((50, 5, 40), (50, 5, 50)))
    _, tiers = grade_drafts(made, OF, LEXICON, 1)
    first = Counter(g.candidate.recipes[0] for g in next(tiers))
    every = Counter(c.recipes[0] for c in merge(made))
    for recipe, count in every.items():
        assert first[recipe] >= min(5, count), recipe


def test_the_first_pass_finds_what_full_grades_would_put_first(
    made: list[tuple[str, Draft]],
) -> None:
    _, tiers = grade_drafts(made, OF, LEXICON, 1)
    lists = list(tiers)
    every = sorted((g for tier in lists for g in tier), key=lambda g: -g.rank)
    for tiers_read, count in ((1, 200), (2, 1_500)):
        best = {g.candidate.label for g in every[:count]}
        first = {g.candidate.label for tier in lists[:tiers_read] for g in tier}
        assert len(best & first) / len(best) > 0.85


def test_a_longer_list_begins_with_the_shorter_over_the_edge_of_a_tier(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    monkeypatch.setattr(listing, "TIERS", ((90, 3, 60), (120, 3, 100)))
    lists = [
        [g.candidate.label for g in make_names(OF, LEXICON, limit=limit).names]
        for limit in (60, 150, 400)
    ]
    assert lists[1][:60] == lists[0]
    assert lists[2][:150] == lists[1]
    assert len(set(lists[2])) == 400


def test_the_rank_is_the_grade() -> None:
    grader = Grader(OF, LEXICON, MEASURES)
    for name in make_names(OF, LEXICON, limit=30).names:
        grade = grader.grade(grader.read(name.candidate))
        assert grade == name.grade
        assert name.rank == grade.grade
