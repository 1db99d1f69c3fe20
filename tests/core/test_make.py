"""Making names: the contract every recipe keeps, and what the planner promises."""

from collections import Counter

import pytest
from hypothesis import given, settings

from tests.strategies import briefs
from vinetag.core.brief import Brief, Keyword, Limits, parse_brief
from vinetag.core.candidates import Part
from vinetag.core.concepts import RECIPE_KINDS
from vinetag.core.lexicon import load_lexicon
from vinetag.core.make import RECIPES, Draft, Job, Recipe, make_names
from vinetag.core.make.listing import merge
from vinetag.core.make.sieve import Sieve
from vinetag.core.names import is_ldh_label

LEXICON = load_lexicon()


def brief(*words: str, **fields: object) -> Brief:
    return parse_brief({"keywords": list(words), **fields})


def every_label(of: Brief) -> set[str]:
    """All that passes the sieve, whatever its grade would be."""
    job, sieve = Job(of, LEXICON), Sieve(of, LEXICON)
    return {d.label for r in RECIPES for d in r.make(job) if sieve.passes(d)}


def labels(of: Brief, **options: object) -> list[str]:
    return [g.candidate.label for g in make_names(of, LEXICON, **options).names]


@pytest.mark.parametrize("recipe", RECIPES, ids=lambda r: r.name)
class TestEveryRecipe:
    @given(of=briefs)
    @settings(max_examples=6, deadline=None)
    def test_drafts_are_made_of_their_parts(self, recipe: Recipe, of: Brief) -> None:
        known = {k.text for k in of.keywords}
        for draft in recipe.make(Job(of, LEXICON)):
            assert "".join(p.text for p in draft.parts) == draft.label
            assert all(draft.label.startswith(p.text, p.start) for p in draft.parts)
            assert {p.keyword for p in draft.parts if p.keyword} <= known
            assert 0 <= draft.strength <= 1

    @given(of=briefs)
    @settings(max_examples=2, deadline=None)
    def test_the_same_job_gives_the_same_drafts(self, recipe: Recipe, of: Brief) -> None:
        assert list(recipe.make(Job(of, LEXICON))) == list(recipe.make(Job(of, LEXICON)))

    def test_it_copes_with_nothing_and_with_the_unknown(self, recipe: Recipe) -> None:
        assert list(recipe.make(Job(Brief(), LEXICON))) == []
        list(recipe.make(Job(brief("zzyxq", "quux blarg"), LEXICON)))

    def test_it_says_what_it_does(self, recipe: Recipe) -> None:
        [kind] = [kind for kind in RECIPE_KINDS if kind.name == recipe.name]
        assert kind.name.islower()
        assert kind.summary


@given(of=briefs)
@settings(max_examples=5, deadline=None)
def test_the_list_keeps_the_brief(of: Brief) -> None:
    made = make_names(of, LEXICON, limit=300)
    found = [g.candidate for g in made.names]
    assert len({c.label for c in found}) == len(found)
    for candidate in found:
        hyphens = candidate.label.count("-")
        assert is_ldh_label(candidate.label)
        assert of.limits.letters_min <= candidate.letters <= of.limits.letters_max
        assert hyphens <= of.limits.hyphens
        assert sum(p.kind != "hyphen" for p in candidate.parts) <= of.limits.words
        assert candidate.recipes
    assert len(found) <= made.within <= made.considered
    assert made.good <= made.within


def test_the_same_brief_and_seed_give_the_same_list() -> None:
    of = brief("paper", "ink", "post")
    longer = labels(of, seed=4, limit=2_500)
    assert longer[:2_000] == labels(of, seed=4)
    assert longer[:2_000] != labels(of, seed=5)
    assert len(set(longer)) == len(longer) == 2_500


def test_duplicates_remember_every_recipe() -> None:
    part = lambda text, kind: Part(text, kind, "", 0)  # noqa: E731 - a shorthand
    weak = Draft("inkpost", (part("inkpost", "tail"),), 0.2)
    strong = Draft("inkpost", (part("inkpost", "keyword"),), 0.9)
    [one] = merge([("tail", weak), ("pair", strong), ("tail", weak)])
    assert one.recipes == ("tail", "pair")
    assert (one.parts, one.strength) == (strong.parts, strong.strength)


def test_each_recipe_does_what_its_name_says() -> None:
    of = brief("paper", "ink", name="Alder & Co", limits={"hyphens": 1, "letters_max": 20})
    by_recipe = {r.name: {d.label for d in r.make(Job(of, LEXICON))} for r in RECIPES}
    assert by_recipe["exact"] == {"paper", "ink", "alderandco"}
    assert {"paperink", "inkpaper"} <= by_recipe["pair"]
    assert {"paper-ink", "alder-andco"} <= by_recipe["hyphen"]
    assert {"paperbag", "papermill"} <= by_recipe["tail"]
    assert len(by_recipe["tail"]) > 200


def test_no_hyphen_unless_the_brief_allows_one() -> None:
    assert not any("-" in label for label in labels(brief("paper", "ink")))


def test_leads_and_tails_fit_the_part_of_speech() -> None:
    of = Brief(keywords=(Keyword(("carefully",)),), limits=Limits(letters_max=20))
    found = {d.label for r in RECIPES if r.name == "lead" for d in r.make(Job(of, LEXICON))}
    assert "thecarefully" not in found
    assert "whitepaper" in {
        d.label
        for d in next(r for r in RECIPES if r.name == "lead").make(Job(brief("paper"), LEXICON))
    }


def test_words_to_avoid_never_appear_even_across_a_seam() -> None:
    of = brief("plant", "house", avoid=["thou", "plants", "tho"])
    found = every_label(of)
    assert set(labels(of, limit=200)) <= found
    assert "planthouse" not in found  # the seam spells "tho"
    assert not any("plants" in label for label in found)
    heart = every_label(brief("heart", avoid=["ear", "art"]))
    assert "heart" in heart  # inside an ordinary word the letters are not read


def test_near_twins_do_not_stand_in_a_row() -> None:
    top = make_names(brief("paper", "ink", "post", "letter"), LEXICON, limit=60).names
    parts = [p for g in top[:50] for p in g.candidate.parts if not p.keyword]
    others = Counter(p.text for p in parts if p.kind != "small")
    assert max(others.values()) <= 5
    keywords = Counter(p.keyword for g in top for p in g.candidate.parts if p.keyword)
    assert set(keywords) == {"paper", "ink", "post", "letter"}


def test_a_heavier_keyword_comes_forward() -> None:
    def share(weight: int) -> int:
        words = [{"text": "ink", "weight": weight}, {"text": "paper", "weight": 3}]
        return sum("ink" in label for label in labels(parse_brief({"keywords": words}), limit=400))

    assert share(5) > share(1)


def test_purposes_change_the_order() -> None:
    lists = {p: labels(brief("paper", "letterpress", purpose=p)) for p in ("brand", "descriptive")}
    mean = {p: sum(map(len, found[:80])) / 80 for p, found in lists.items()}
    assert mean["brand"] < mean["descriptive"]


def test_the_bank_is_large_and_known() -> None:
    bank = LEXICON.bank
    assert len({w.text for w in bank.leads}) > 200
    assert len({w.text for w in bank.tails}) > 500
    odd = {w.text for w in (*bank.leads, *bank.tails) if w.text not in LEXICON.words}
    assert odd <= {"gazer", "gazers"}  # seen only in compounds, as in stargazer
    job = Job(brief("paper", making={"added_max": 4}), LEXICON)
    for role in ("lead", "tail"):
        found = [s.text for s in job.bank(role)]
        assert len(found) == len(set(found)) > 50
        assert max(map(len, found)) == 4
