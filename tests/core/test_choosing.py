"""Weighing pairs, sieving drafts and ordering the list, against plain statements of the rules."""

from collections import Counter

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from vinetag.core.brief import Brief, Keyword, Limits, parse_brief
from vinetag.core.candidates import Candidate, Part
from vinetag.core.concepts import Change
from vinetag.core.grade import Grade
from vinetag.core.lexicon import load_lexicon
from vinetag.core.lexicon.morphology import gerund
from vinetag.core.make import Draft, Graded, Job, make_names
from vinetag.core.make import variety as v
from vinetag.core.make.draft import hyphened, joined
from vinetag.core.make.sieve import Sieve
from vinetag.core.make.stems import Stem, brief_stems

LEXICON = load_lexicon()
BRIEF = parse_brief(
    {"keywords": ["paper", "night"], "limits": {"letters_min": 6, "letters_max": 11}}
)


def stem(text: str, worth: float = 0.5, pos: str = "n", goes_with: str = "") -> Stem:
    return Stem((text,), "keyword", "paper", worth, pos, goes_with)


class TestJoints:
    def test_every_pair_within_the_limits_is_considered_and_the_best_come_first(self) -> None:
        job = Job(BRIEF, LEXICON)
        firsts = [stem(w) for w in ("paper", "night", "ink", "letterpress")]
        seconds = [stem(w) for w in ("club", "bag", "paper", "owl")]
        found = list(job.joints("pair", firsts, seconds, 100))
        expected = {
            (a.text, b.text)
            for a in firsts
            for b in seconds
            if a.text != b.text and 6 <= len(a.text + b.text) <= 11
        }
        assert {(a.text, b.text) for a, b, _ in found} == expected
        assert job.considered["pair"] == len(expected)
        strengths = {(a.text, b.text): s for a, b, s in found}
        for (a, b), strength in strengths.items():
            assert strength == pytest.approx(job.belonging(a, b), abs=1e-5)

    def test_what_is_said_together_beats_what_is_not(self) -> None:
        job = Job(BRIEF, LEXICON)
        assert job.belonging("paper", "bag") > job.belonging("paper", "owl")
        assert job.belonging("night", "owl") > job.belonging("paper", "owl")

    def test_parts_of_speech_stand_in_their_usual_order(self) -> None:
        job = Job(Brief(limits=Limits(letters_max=20)), LEXICON)
        quiet, sky = stem("quiet", pos="a"), stem("sky")
        [(_, _, before)] = job.joints("pair", [quiet], [sky], 1)
        [(_, _, behind)] = job.joints("pair", [sky], [quiet], 1)
        assert before > 1.5 * behind

    def test_words_of_the_bank_stand_beside_what_they_go_with(self) -> None:
        job = Job(Brief(limits=Limits(letters_max=20)), LEXICON)
        the = stem("the", goes_with="n")
        found = list(job.joints("lead", [the], [stem("paper"), stem("carefully", pos="r")], 10))
        assert [b.text for _, b, _ in found] == ["paper"]

    def test_things_of_the_bank_want_to_have_been_seen_beside_the_word(self) -> None:
        job = Job(parse_brief({"keywords": ["kitchen"]}), LEXICON)
        tails = {t.text: t for t in job.bank("tail")}

        def together(tail: str, *, broad: bool) -> float:
            return float(
                job.collocation.together(job.stems[:1], [tails[tail]._replace(broad=broad)])[0, 0]
            )

        assert not tails["hammer"].broad
        assert together("hammer", broad=False) < 0.5 * together("hammer", broad=True)
        assert together("table", broad=False) == together("table", broad=True)  # seen

    @pytest.mark.parametrize("purpose", ["brand", "mix", "descriptive"])
    def test_pictures_suit_brands_and_trades_suit_what_describes(self, purpose: str) -> None:
        job = Job(parse_brief({"keywords": ["kitchen"], "purpose": purpose}), LEXICON)
        tails = {t.text: t for t in job.bank("tail")}
        assert tails["nest"].broad == tails["grove"].broad == (purpose != "descriptive")
        assert tails["shop"].broad == tails["service"].broad == (purpose != "brand")
        more, less = ("shop", "nest") if purpose == "descriptive" else ("nest", "shop")
        assert tails[more].worth > tails[less].worth or purpose == "mix"

    def test_one_of_a_thing_stands_before_another_word(self) -> None:
        job = Job(parse_brief({"keywords": ["children", "board games", "media", "dice"]}), LEXICON)
        fronts = [s.text for s in job.modifiers]
        assert fronts[:2] == ["child", "boardgame"]
        assert {"children", "boardgames", "media", "dice"} <= set(fronts)
        assert not {"medium", "die", "child"} & {s.text for s in job.stems[:4]}
        assert job.belonging("star", "club") > 1.5 * job.belonging("stars", "club")

    def test_what_is_done_and_who_does_it_stand_behind_what_it_is_done_to(self) -> None:
        of = parse_brief(
            {"keywords": ["piano", "tuning", "baking", "evening"], "purpose": "descriptive"}
        )
        job = Job(of, LEXICON)
        assert dict(job.doers) == {"tuner": "tuning", "baker": "baking"}
        others = "evening", "wedding", "pudding", "wing", "ceiling"
        assert [gerund(w, LEXICON) for w in ("running", "baking", *others)] == [
            ["run"], ["bake"], *([] for _ in others),
        ]  # fmt: skip
        assert [(s.text, s.keyword) for s in job.heads[:2]] == [
            ("tuner", "tuning"), ("baker", "baking"),
        ]  # fmt: skip
        found = [g.candidate.label for g in make_names(of, LEXICON, limit=100).names]
        assert {"pianotuner", "pianotuning"} <= set(found)

    def test_two_animals_side_by_side_are_a_list(self) -> None:
        job = Job(parse_brief({"keywords": ["dog", "park"]}), LEXICON)
        assert job.collocation.seen("dog", "horse")
        assert job.belonging("dog", "horse") < 0.5 < job.belonging("horse", "race")

    def test_many_people_are_seldom_described_in_a_name(self) -> None:
        job = Job(parse_brief({"keywords": ["children", "toys"]}), LEXICON)
        [small] = [s for s in job.bank("lead") if s.text == "small"]
        assert job.collocation.seen("small", "children")
        [[many]] = job.collocation.together([small], job.stems[:1])
        [[one]] = job.collocation.together([small], [job.stems[0]._replace(words=("child",))])
        assert many < 0.5 * one

    @pytest.mark.parametrize(
        ("first", "second"),
        [("beeswax", "wax"), ("star", "starlight"), ("heating", "heater"), ("coach", "coaching")],
    )
    def test_nothing_is_said_twice(self, first: str, second: str) -> None:
        job = Job(Brief(limits=Limits(letters_max=20)), LEXICON)
        assert list(job.joints("pair", [stem(first)], [stem(second)], 5)) == []
        assert list(job.joints("pair", [stem(first)], [stem("night")], 5)) != []

    def test_nothing_to_join_gives_nothing(self) -> None:
        job = Job(BRIEF, LEXICON)
        assert list(job.joints("pair", [], [stem("paper")], 5)) == []
        assert list(job.joints("pair", [stem("paper")], [stem("paper")], 5)) == []


class TestStems:
    def test_keywords_come_first_and_each_word_once(self) -> None:
        found = brief_stems(BRIEF, LEXICON)
        assert [s.text for s in found[:2]] == ["paper", "night"]
        assert len({s.text for s in found}) == len(found)
        assert {s.kind for s in found[2:]} == {"kin"}
        assert all(s.worth < found[0].worth for s in found[2:])

    def test_what_only_compares_is_no_stem(self) -> None:
        found = {s.text for s in brief_stems(parse_brief({"keywords": ["small", "old"]}), LEXICON)}
        assert not {"smaller", "larger", "older", "oldest"} & found
        assert len(found) > 20

    def test_dropped_and_avoided_words_are_no_stems(self) -> None:
        some = [s.text for s in brief_stems(BRIEF, LEXICON)[2:6]]
        keywords = (Keyword(("paper",), drop=tuple(some)), Keyword(("night",), drop=tuple(some)))
        fewer = brief_stems(Brief(keywords=keywords, avoid=("sheet",)), LEXICON)
        assert not {"sheet", *some} & {s.text for s in fewer}

    def test_many_keywords_do_not_mean_many_times_the_work(self) -> None:
        words = "paper ink post garden piano night sky coffee bread river stone music light".split()
        many = brief_stems(Brief(keywords=tuple(Keyword((w,)) for w in words)), LEXICON)
        assert len(many) < 460


class TestSieve:
    @pytest.mark.parametrize(
        ("draft", "passes"),
        [
            (joined([stem("paper"), stem("club")], 1), True),
            (joined([stem("ink"), stem("x")], 1), False),  # four letters
            (joined([stem("letterpress"), stem("club")], 1), False),  # fifteen
            (joined([stem(w) for w in "a bb cc dd ee".split()], 1), False),  # five words
            (hyphened([stem("paper")], [stem("club")], 1), False),
            (joined([stem("paper"), stem("42")], 1), False),
            (joined([stem("pen"), stem("island")], 1), False),
            (Draft("-paperclub", (), 1), False),
        ],
    )
    def test_only_what_keeps_the_brief_and_reads_well(self, draft: Draft, passes: bool) -> None:
        assert Sieve(BRIEF, LEXICON).passes(draft) == passes

    def test_offensive_letters_inside_an_ordinary_word_are_not_read(self) -> None:
        assert Sieve(BRIEF, LEXICON).passes(joined([stem("cockpit"), stem("lab")], 1))
        made_up = Draft("cocklet", (Part("cocklet", "invent", "", 0, Change("new", {})),), 1)
        assert not Sieve(BRIEF, LEXICON).passes(made_up)


def graded(label: str, rank: float, recipe: str, *parts: tuple[str, str, str]) -> Graded:
    made = tuple(Part(text, kind, keyword, 0) for text, kind, keyword in parts)
    return Graded(Candidate(label, (recipe,), made, 0.5), Grade(rank, {}), rank)


names = st.lists(
    st.builds(
        lambda n, rank, recipe, tail, keyword: graded(
            f"name{n}", rank, recipe, (keyword, "keyword", keyword), (tail, "tail", "")
        ),
        st.integers(0, 10**6),
        st.integers(0, 60).map(float),
        st.sampled_from(["pair", "tail", "couple"]),
        st.sampled_from(["club", "house", "yard"]),
        st.sampled_from(["paper", "night"]),
    ),
    max_size=140,
    unique_by=lambda g: g.candidate.label,
)


@given(names, st.sampled_from(["brand", "mix", "descriptive"]))
@settings(deadline=None)
def test_a_list_is_put_into_screens_whole_and_each_by_grade(
    found: list[Graded], purpose: str
) -> None:
    brief = parse_brief({"purpose": purpose, "keywords": ["paper"]})
    ranked = sorted(found, key=lambda g: -g.rank)
    chosen = v.diversify(ranked, 500, brief, LEXICON)
    assert sorted(g.candidate.label for g in chosen) == sorted(g.candidate.label for g in found)
    assert v.diversify(ranked, 60, brief, LEXICON) == chosen[:60]
    screen = chosen[: v.SCREEN]
    assert [g.rank for g in screen] == sorted((g.rank for g in screen), reverse=True)


@pytest.mark.parametrize("purpose", ["brand", "mix", "descriptive"])
def test_screens_keep_to_their_places_and_no_word_fills_one(purpose: str) -> None:
    brief = parse_brief({"purpose": purpose, "keywords": ["paper"]})
    pairs = [graded(f"c{i}", 90.0, "couple", (f"w{i}", "world", "")) for i in range(60)]
    said = [
        graded(f"s{i}", 85.0, "saying", (f"x{i}", "world", ""), ("often", "world", ""))
        for i in range(60)
    ]
    others = [graded(f"t{i}", 84.0, "saying", (f"y{i}", "world", "")) for i in range(60)]
    screen = v.diversify([*pairs, *said, *others], v.SCREEN, brief, LEXICON)
    assert sum(g.candidate.recipes[0] == "couple" for g in screen) == v.places_of(brief)["couple"]
    words = Counter(p.text for g in screen for p in g.candidate.parts)
    assert words["often"] == v.ONE_WORD


def test_the_same_words_in_another_order_wait_for_the_next_screen() -> None:
    brief = parse_brief({"purpose": "descriptive", "keywords": ["paper"]})
    one, other = ("ink", "world", ""), ("pot", "world", "")
    both = [
        graded("inkpot", 90.0, "plain", one, other),
        graded("potink", 89.0, "plain", other, one),
    ]
    rest = [graded(f"t{i}", 80.0, "saying", (f"y{i}", "world", "")) for i in range(60)]
    screen = [g.candidate.label for g in v.diversify([*both, *rest], v.SCREEN, brief, LEXICON)]
    assert ("inkpot" in screen, "potink" in screen) == (True, False)


def test_a_full_group_gives_up_its_place_to_names_not_much_worse_only() -> None:
    brief = parse_brief({"purpose": "descriptive", "keywords": ["paper"]})
    sayings = [graded(f"s{i}", 80.0, "saying", (f"w{i}", "world", "")) for i in range(60)]
    near = [graded(f"t{i}", 75.0, "tail", (f"x{i}", "world", "")) for i in range(20)]
    far = [graded(f"u{i}", 60.0, "tail", (f"y{i}", "world", "")) for i in range(20)]
    with_near = v.diversify([*sayings, *near, *far], 50, brief, LEXICON)
    assert sum(g.candidate.label[0] == "t" for g in with_near) == v.places_of(brief)["added"]
    assert not any(
        g.candidate.label[0] == "u" for g in v.diversify([*sayings, *far], 50, brief, LEXICON)
    )


def test_the_dial_moves_the_places() -> None:
    def places(purpose: str, group: str) -> list[int]:
        dials = (parse_brief({"purpose": purpose, "making": {"daring": d}}) for d in (0, 35, 100))
        return [v.places_of(brief)[group] for brief in dials]

    plain, usual, bold = places("brand", "coined")
    assert plain < usual == v.PLACES["brand"]["coined"] < bold
    plain, usual, bold = places("descriptive", "asked")
    assert plain > usual == v.PLACES["descriptive"]["asked"] > bold


def test_every_keyword_weighed_up_is_on_the_first_screen_even_a_word_nobody_lists() -> None:
    words = [{"text": w, "weight": 4} for w in ("vintorik", "paper", "garden", "quiet")]
    of = parse_brief({"keywords": words})
    first = [g.candidate for g in make_names(of, LEXICON, limit=50).names]
    shown = {p.text for c in first for p in c.parts if p.kind == "keyword"}
    assert shown >= {"vintorik", "paper", "garden", "quiet"}


@pytest.mark.parametrize("purpose", ["brand", "mix", "descriptive"])
def test_a_brand_word_is_in_many_names_though_it_is_hard_to_spell(purpose: str) -> None:
    of = parse_brief({"keywords": ["zolvra", "skin", "cream"], "purpose": purpose})
    first = [g.candidate.label for g in make_names(of, LEXICON, limit=50).names]
    assert sum("zolvra" in label for label in first) >= 6


def test_a_word_nobody_lists_gets_words_beside_it_and_other_spellings() -> None:
    made = make_names(parse_brief({"keywords": ["vintorik"]}), LEXICON, limit=400).names
    labels = {g.candidate.label for g in made}
    assert {"vintoriklab", "vintoric"} <= labels
    recipes = {g.candidate.recipes[0] for g in made}
    assert {"tail", "lead", "affix", "respell", "exact"} <= recipes
