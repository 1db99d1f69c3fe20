"""Fields, the world of a brief, and the table of meanings."""

import re
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.brief import FACETS, Brief, parse_brief
from vinetag.core.lexicon import load_lexicon
from vinetag.core.world.fields import ABOUT, entry_words, parse_fields, read_fields
from vinetag.core.world.incidental import says
from vinetag.core.world.promise import against
from vinetag.core.world.shown import FACET_WORDS, QUESTIONS, find_fields, shown_world
from vinetag.core.world.world import OWN, TOLD, World, world_of

LEXICON = load_lexicon()
POTTERY = "A pottery studio with open hours for beginners and hobby makers."
FIELDS = read_fields()


def brief(about: str = "", *words: str, **fields: object) -> Brief:
    return parse_brief({"about": about, "keywords": list(words), **fields})


def world(about: str = "", *words: str, **chosen: object) -> World:
    return world_of(brief(about, *words, world=chosen), LEXICON)


class TestFields:
    def test_there_are_many_and_each_is_whole(self) -> None:
        assert len(FIELDS) >= 600
        assert len({f.title for f in FIELDS}) == len(FIELDS)
        for field in FIELDS:
            assert len(field.facets["about"]) >= 6, field.title
            assert len(field.facets["phrases"]) >= 10, field.title
            for facet in ("things", "acts", "pairs", "does", "plain"):
                assert len(field.facets[facet]) >= 5, (field.title, facet)

    @pytest.mark.parametrize("field", FIELDS, ids=lambda f: f.title)
    def test_entries_have_their_form(self, field: object) -> None:
        assert hasattr(field, "facets")
        for facet, entries in field.facets.items():
            assert len(set(entries)) == len(entries), facet
            for entry in entries:
                assert re.fullmatch(r"[a-z][a-z' &-]*[a-z.]|[a-z]", entry), (facet, entry)
                assert len(entry) <= 40
                if facet == "pairs":
                    first, _, second = entry.partition(" & ")
                    assert first, entry
                    assert second, entry
                    assert first != second, entry

    def test_no_entry_is_offensive(self) -> None:
        for field in FIELDS:
            for entry in field.everything():
                found = set(re.findall("[a-z]+", entry)) & LEXICON.offensive
                assert not found, (field.title, entry)

    def test_nearly_every_single_word_is_one_the_word_data_knows(self) -> None:
        words = {e for f in FIELDS for facet in ("things", "acts") for e in f.facets[facet]}
        single = {w for w in words if " " not in w and w.isalpha()}
        assert sum(w in LEXICON.words for w in single) / len(single) > 0.95

    @pytest.mark.parametrize(
        "text",
        ["things: kiln", "[clay]\nthings kiln", "[clay]\nodd: kiln", "[a]\nacts: b\nacts: c"],
    )
    def test_what_is_no_field_is_told_by_its_line(self, text: str) -> None:
        with pytest.raises(ValueError, match=r"line \d"):
            parse_fields(text)

    def test_a_field_is_read_facet_by_facet(self) -> None:
        [clay, glass] = parse_fields(
            "[clay]\nabout: pot\nthings: kiln, , slip\n\n[glass]\nabout: pane"
        )
        assert (clay.title, clay.facets["things"], glass.facets["things"]) == (
            "clay", ("kiln", "slip"), (),
        )  # fmt: skip
        assert tuple(clay.facets) == ABOUT
        assert set(FACET_WORDS) == set(FACETS) >= {q.facet for q in QUESTIONS}


class TestFinding:
    @pytest.mark.parametrize(
        ("about", "words", "title"),
        [
            (POTTERY, ("clay", "wheel"), "pottery and ceramics"),
            ("A tailor who alters suits.", ("tailor",), "tailoring and alterations"),
            ("", ("bees", "honey"), "honey and bees"),
            ("A calm driving school for nervous learners.", (), "driving school"),
            ("Handmade candles for quiet evenings.", ("candle", "wax"), "candles and soap"),
        ],
    )
    def test_the_right_field_comes_first(
        self, about: str, words: tuple[str, ...], title: str
    ) -> None:
        assert world(about, *words).fields[0].field.title == title

    def test_words_for_the_kind_of_venture_say_little(self) -> None:
        assert says("app") < says("small") < says("clay") == 1
        plain, dressed = (
            world(about, "clay").fields[0].field.title
            for about in ("Clay.", "A friendly local subscription club and newsletter about clay.")
        )
        assert plain == dressed
        heavy = parse_brief({"keywords": [{"text": "newsletter", "weight": 5}, "clay"]})
        light = parse_brief({"keywords": [{"text": "newsletter", "weight": 3}, "clay"]})
        near = [world_of(b, LEXICON).near("mailing list") for b in (heavy, light)]
        assert near[0] > near[1]

    @pytest.mark.parametrize(
        ("about", "words", "title"),
        [
            (
                "Emergency boxes for a family of four.",
                ("emergency", "kit", "family"),
                "emergency kits and being prepared",
            ),
            (
                "Software that helps teams decide what to build next.",
                ("product", "roadmap"),
                "product teams and roadmaps",
            ),
            ("Sleeper vans for rent by lakes.", ("van", "lake", "rent"), "rivers and lakes"),
            ("Lessons for families.", ("homeschool",), "teaching at home"),
        ],
    )
    def test_words_nearly_any_venture_has_do_not_lead_astray(
        self, about: str, words: tuple[str, ...], title: str
    ) -> None:
        assert title in [f.field.title for f in world(about, *words).fields[:2]]

    def test_a_closed_up_keyword_is_read_as_the_common_words_it_closes_up(self) -> None:
        assert LEXICON.meanings.place("rivermusic") < 0
        closed, apart = world("", "rivermusic"), world("", "river music")
        assert [f.field.title for f in closed.ranked] == [f.field.title for f in apart.ranked]
        # A made-up name is not taken apart, nor is a word that has a meaning of its own.
        assert not world("", "harrowmere").query.any()
        assert world("", "butterfly").ranked[0].field is not world("", "butter fly").ranked[0].field

    def test_fields_are_switched_off_and_on_and_found_by_typing(self) -> None:
        off = world(POTTERY, "clay", off=["pottery and ceramics"])
        assert "pottery and ceramics" not in [f.field.title for f in off.fields]
        on = world(POTTERY, "clay", on=["chess", "no such field"])
        assert [f.chosen for f in on.fields if f.field.title == "chess"] == [True]
        assert "checkmate" in " ".join(find_fields("chess")) or "chess" in find_fields("chess")
        assert find_fields("c") == []

    def test_without_anything_to_go_by_there_is_no_world(self) -> None:
        for empty in (world(), world("", "zzkvq")):
            assert not empty.fields or empty.informed
        assert not world().informed
        assert world().words == {} == world().entries

    def test_where_no_field_fits_words_near_in_meaning_help(self) -> None:
        odd = world("", "zeppelin")
        automatic = [w for w in odd.words.values() if not w.field]
        assert odd.fits or automatic
        assert all(w.worth < 0.6 for w in automatic)


class TestWords:
    def test_dropped_words_are_gone_with_what_holds_them(self) -> None:
        before, after = (
            world(POTTERY, "clay"),
            world(POTTERY, "clay", drop=["kiln", "down to earth"]),
        )
        assert "kiln" in before.words
        assert "kiln" not in after.words
        assert not any("kiln" in e.words for e in after.entries.values())
        assert "downtoearth" in before.entries
        assert "downtoearth" not in after.entries

    def test_own_words_are_worth_more_than_any_list(self) -> None:
        own = world(
            POTTERY,
            own={"things": ["sgraffito"], "phrases": ["spin a yarn"], "pairs": ["rib & wire"]},
        )
        assert own.words["sgraffito"].field == OWN
        assert own.words["sgraffito"].worth >= max(w.worth for w in own.words.values())
        assert {"spinayarn", "ribandwire"} <= set(own.entries)
        assert own.entries["ribandwire"].mark > 3.5

    def test_weights_move_words_and_what_holds_them(self) -> None:
        usual, more = (
            world(POTTERY, "clay"),
            world(POTTERY, "clay", weights={"kiln": 5, "glaze": 1}),
        )
        assert (
            more.words["kiln"].worth > usual.words["kiln"].worth or usual.words["kiln"].worth == 1
        )
        assert more.words["glaze"].worth < usual.words["glaze"].worth
        assert more.entries["clayandkiln"].mark > usual.entries["clayandkiln"].mark

    def test_everything_dropped_leaves_nothing_and_breaks_nothing(self) -> None:
        every = world(POTTERY, "clay")
        gone = world(POTTERY, "clay", off=[f.field.title for f in every.ranked][:40])
        assert gone.words is not None

    @pytest.mark.parametrize(
        ("about", "out", "kept"),
        [
            ("Vegan lunch boxes for offices.", {"lamb", "butter"}, {"bean"}),
            ("A gas-free kitchen.", {"gas"}, {"kitchen"}),
            ("A wedding photographer with an unposed style.", {"posed"}, {"bride"}),
            ("Heating for homes leaving oil behind.", {"oil"}, {"heat"}),
            ("A butcher.", set(), {"lamb"}),
        ],
    )
    def test_what_works_against_the_promise_stays_out(
        self, about: str, out: set[str], kept: set[str]
    ) -> None:
        found = against(about)
        assert out <= found
        assert not kept & found
        assert not found & set(world(about).words)

    def test_the_best_entries_come_first(self) -> None:
        marks = [e.mark for e in world(POTTERY, "clay").entries.values()]
        assert all(a >= b for a, b in pairwise(marks))
        assert all(1 <= m <= 5 for m in marks)
        assert entry_words("Rock 'n & roll") == ("rock", "n", "and", "roll")


class TestMeanings:
    def test_likeness_by_hand(self) -> None:
        meanings = LEXICON.meanings
        kiln, oven, tax = meanings.rows(["kiln", "oven", "tax"])
        assert kiln @ oven > kiln @ tax + 0.15
        assert meanings.rows(["kilns"])[0] @ kiln > 0.6
        assert np.allclose(np.linalg.norm(meanings.rows(["kiln", "oven"]), axis=1), 1, atol=1e-4)
        assert not meanings.rows(["zzkvq"]).any()
        near = [w for w, _ in meanings.nearest(kiln, 25)]
        assert {"pottery", "furnace"} & set(near)

    @given(
        st.lists(
            st.lists(st.sampled_from(["clay", "the", "zzkvq", "kiln"]), max_size=4), max_size=5
        )
    )
    def test_phrases_together_are_what_each_is_alone(self, texts: list[list[str]]) -> None:
        meanings = LEXICON.meanings
        together = meanings.phrases(texts)
        assert together.shape == (len(texts), meanings.dimensions)
        for row, text in zip(together, texts, strict=True):
            assert np.allclose(row, meanings.phrases([text])[0], atol=1e-5)
            assert np.allclose(row, meanings.mean([(w, 1.0) for w in text]), atol=1e-3)


class TestSecondSubject:
    ABOUT = "A choir for people with dementia and those who care for them."

    def test_what_the_nearest_field_leaves_has_a_field_of_its_own(self) -> None:
        titles = [f.field.title for f in world(self.ABOUT, "choir", "memory", "singing").fields]
        assert titles[0] == "singing and choirs"
        assert "dementia and memory" in titles

    def test_it_does_not_pass_the_nearest(self) -> None:
        first, second = world("Diets for football teams.", "nutrition", "football").ranked[:2]
        assert {first.field.title, second.field.title} == {
            "nutrition and diet", "football and team sports",
        }  # fmt: skip
        assert 0.9 * first.nearness <= second.nearness < first.nearness

    def test_the_sentence_has_to_speak_of_it(self) -> None:
        """A potter's wheel is no bicycle's, nor is a sourdough starter a start-up."""
        bakery = world("A bakery of sourdough and rolls.", "bread", "starter", "crust").fields
        assert "startups pitching and first customers" not in [f.field.title for f in bakery]
        wheel = world(POTTERY, "clay", "wheel").ranked
        plain = world("", "clay", "wheel").ranked
        assert wheel[0].field.title == "pottery and ceramics"
        assert all(f.nearness < 9 for f in plain if "bicycles" in f.field.title)

    def test_words_for_the_kind_of_venture_and_light_ones_have_none(self) -> None:
        plain = world("A clay studio.", "clay", "pottery").ranked
        titles = [f.field.title for f in plain[:4]]
        for more in ({"text": "school"}, {"text": "rocket", "weight": 1}):
            of = parse_brief({"about": "A clay studio.", "keywords": ["clay", "pottery", more]})
            found = [f.field.title for f in world_of(of, LEXICON).fields]
            assert not {"school and student life", "rockets and spaceflight"} & set(found)
        assert titles[0] in [f.field.title for f in world("A clay studio.", "clay").fields]

    def test_an_entry_counts_by_the_keyword_it_comes_nearest_to(self) -> None:
        entries = world(self.ABOUT, "choir", "memory", "singing").entries
        assert "downmemorylane" in list(entries)[:60]

    def test_words_are_near_to_what_was_asked_for_or_to_the_whole(self) -> None:
        of = world(self.ABOUT, "choir", "memory")
        near = of.near_asked(["choir", "recall", "gravel"])
        assert near[0] == pytest.approx(1, abs=1e-3)
        assert near[1] > near[2]
        alone = world("Clay bowls.", "studio")
        assert alone.near_asked(["bowl"])[0] == pytest.approx(alone.near("bowl"), abs=1e-4)


def test_what_a_sentence_tells_by_the_way_is_no_word_of_the_world() -> None:
    of = world("Washing cars at your door, with a bucket.", "washing", "car")
    assert "bucket" in of.words
    assert "door" not in of.words or of.words["door"].field != TOLD


def test_nearness_is_the_same_one_by_one_and_at_once() -> None:
    words = ["kiln", "open hours", "zzyxq", "wheel", "to the wheel", "kiln"]
    at_once, alone = World(POTTERY, (), brief().world, LEXICON), world(POTTERY)
    at_once.look_up(words)
    for word in words:
        assert at_once.near(word) == pytest.approx(alone.near(word), abs=1e-5)
    assert at_once.near("kiln") > 0.2
    assert at_once.near("zzyxq") == 0


def test_entries_of_any_field_that_carry_a_keyword_are_found_in_any_form() -> None:
    carried = [e for e in world("", "letter").entries.values() if "letter" in e.label]
    assert {"letters", "letter"} <= {w for e in carried for w in e.words}


def test_the_world_as_it_is_shown() -> None:
    of = brief(
        POTTERY,
        "clay",
        world={"drop": ["kiln"], "own": {"tools": ["rib"]}, "off": ["glass and stained glass"]},
    )
    shown = shown_world(of, LEXICON)
    assert shown.informed
    assert shown.fields[0].on
    assert "glass and stained glass" in [f.title for f in shown.fields if not f.on]
    [kiln] = [e for e in shown.facets["things"] if e.text == "kiln"] or [None]
    assert kiln is None or kiln.dropped
    assert shown.facets["tools"][0].text == "rib"
    assert shown.facets["tools"][0].field == OWN
    assert shown_world(brief(), LEXICON).fields == []
