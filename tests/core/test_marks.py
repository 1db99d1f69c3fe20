"""Marks: what they come to, which are found, and in what order."""

from __future__ import annotations

import random
import string

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from rapidfuzz.distance import Levenshtein

from vinetag.core.brief import Brief, parse_brief
from vinetag.core.candidates import Candidate
from vinetag.core.grade import MEASURES, Grader
from vinetag.core.lexicon import load_lexicon
from vinetag.core.vet.marks import (
    CLASSES,
    FormMaker,
    Index,
    Indexed,
    Near,
    nearness,
    proposed_classes,
    query_of,
    reach,
    same_letters,
)
from vinetag.core.vet.marks.likeness import letters_alike, sounds_alike, worn

LEXICON = load_lexicon()
FORMS = FormMaker(LEXICON)
LETTERS = st.text(string.ascii_lowercase, min_size=1, max_size=14)


def index_of(*words: str, classes: tuple[int, ...] = (16,), alive: bool = True) -> Index:
    """Marks numbered as they stand."""
    found = [(i, FORMS.of_text(word, classes)) for i, word in enumerate(words)]
    return Index(Indexed(i, forms, classes, alive) for i, forms in found if forms)


def found_for(name: str, index: Index, classes: tuple[int, ...] = (16,)) -> list[Near]:
    """What is nearest to a typed name."""
    reading = Grader(Brief(), LEXICON, MEASURES).read_any(Candidate(name, (), (), 0.0))
    return index.nearest(query_of(reading, classes, FORMS), 10)


@pytest.mark.parametrize(
    ("name", "mark", "way"),
    [
        ("inkpost", "Inkpost", "same"),
        ("inkpost", "Inkpost Ltd.", "same_words"),
        ("inkpost", "Ynkpoast", "sounds"),
        ("fonefair", "Phonefair", "same_sound"),
        ("modern", "Modem", "looks"),
        ("inkposts", "Ink Post", "same_words"),
        ("postink", "Ink Post", "same_words"),
        ("clevermouse", "Smart Mouse", "meaning"),
        ("moonpaper", "Luna Papier", "same_words"),
        ("moonlion", "Luna Lowe", "same_words"),
        ("brightlantern", "Lantern", "contains"),
        ("lantern", "Bright Lantern", "contained"),
    ],
)
def test_what_is_alike_is_found_and_said(name: str, mark: str, way: str) -> None:
    [near] = found_for(name, index_of(mark), classes=(40,))
    assert way in near.likeness.ways
    assert near.likeness.score > 0.55


def test_the_order_is_by_likeness_classes_and_state() -> None:
    marks = ("Inkpost", "Ynkpost", "Pinkest", "Orchard")
    assert [n.number for n in found_for("inkpost", index_of(*marks))][:2] == [0, 1]
    same = found_for("inkpost", index_of("Inkpost"))[0].weight
    near = found_for("inkpost", index_of("Inkpost", classes=(41,)))[0]
    other = found_for("inkpost", index_of("Inkpost", classes=(7,)))[0]
    gone = found_for("inkpost", index_of("Inkpost", alive=False))[0]
    unknown = found_for("inkpost", index_of("Inkpost", classes=()))[0]
    assert same == 1 > near.weight > other.weight
    assert (near.nearness, other.nearness, unknown.nearness) == ("near", "other", "unknown")
    assert gone.weight < same
    assert not gone.alive
    assert not any(n.number == 3 for n in found_for("inkpost", index_of(*marks)))


def test_what_merely_describes_counts_less() -> None:
    """In the class of paper, a paper shop is known by the other word."""
    forms = FORMS.of_text("The Harrow Paper Shop", (16,))
    assert forms is not None
    assert (forms.letters, forms.part) == ("theharrowpapershop", "harrow")
    # Where everything describes, all of it stands.
    only = FORMS.of_text("Paper", (16,))
    assert only is not None
    assert only.part == "paper"
    close, far = found_for("harrowprint", index_of("Harrow Paper", "Kestrel Print"))
    assert close.number == 0
    assert close.weight > far.weight + 0.1


@pytest.mark.parametrize("text", ["株式会社", "—", "", "   "])
def test_marks_without_letters_have_no_forms(text: str) -> None:
    assert FORMS.of_text(text) is None


def test_accents_digits_and_length_are_read() -> None:
    forms = FORMS.of_text("Café Großmann & Söhne 42")
    assert forms is not None
    assert forms.letters == "cafegrossmannandsohne42"
    long = FORMS.of_text("paper " * 500)
    assert long is not None
    assert len(long.letters) <= 120


@settings(max_examples=60, deadline=None)
@given(st.lists(LETTERS, min_size=1, max_size=40, unique=True), LETTERS)
def test_nothing_within_reach_is_missed(marks: list[str], name: str) -> None:
    """Beside going through all of them by plain edit distance of the letters as they are worn."""
    index = index_of(*marks, classes=())
    query = query_of(
        Grader(Brief(), LEXICON, MEASURES).read_any(Candidate(name, (), (), 0.0)), (), FORMS
    )
    found = {near.number for near in index.nearest(query, len(marks), least=0.0)}
    own = worn(query.forms.letters)
    for number, mark in enumerate(marks):
        forms = FORMS.of_text(mark)
        assert forms is not None
        if Levenshtein.distance(own, worn(forms.letters)) <= reach(len(own)):
            assert number in found


@settings(max_examples=80, deadline=None)
@given(LETTERS, LETTERS)
def test_likeness_is_a_share_and_the_same_both_ways(one: str, two: str) -> None:
    forth, back = letters_alike(one, [two])[0], letters_alike(two, [one])[0]
    assert 0 <= forth <= 1
    assert abs(forth - back) < 0.35
    assert letters_alike(one, [one])[0] == 1
    said = FORMS.sounds(one)
    if said:
        assert sounds_alike(said, [said])[0] == 1
    for first, second, size in same_letters(one, two):
        assert one[first : first + size] == two[second : second + size]


def test_together_or_alone_a_mark_is_weighed_the_same() -> None:
    rng = random.Random(4)
    words = ["".join(rng.choices("aeilmnorst", k=rng.randint(2, 12))) for _ in range(40)]
    together = letters_alike("lantern", words)
    alone = [letters_alike("lantern", [word])[0] for word in words]
    assert together.tolist() == pytest.approx(alone, abs=1e-6)


def test_what_says_the_same_is_weighed_however_many_are_nearer(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    monkeypatch.setattr("vinetag.core.vet.marks.index.MOST_WEIGHED", 4)
    crowd = [f"inkpos{letter}" for letter in "abcdefgh"]
    found = found_for("inkposts", index_of(*crowd, "Ink Post"))
    assert found[0].number == len(crowd)


def test_an_empty_register_has_nothing() -> None:
    assert found_for("inkpost", Index([])) == []


@pytest.mark.parametrize("name", ["a", "x" * 63, "9", "a-b"])
def test_the_shortest_and_longest_names_are_asked_about(name: str) -> None:
    found = found_for(name, index_of(name.replace("-", " "), "Orchard"))
    assert found[0].number == 0


def test_classes_lie_near_each_other_both_ways() -> None:
    assert sorted(CLASSES) == list(range(1, 46))
    for number, kind in CLASSES.items():
        assert number not in kind.near
        assert all(other in CLASSES for other in kind.near)
    assert nearness((16,), (16, 7)) == "same"
    assert nearness((16,), (41,)) == nearness((41,), (16,)) == "near"
    assert nearness((), (41,)) == "unknown"


@pytest.mark.parametrize(
    ("about", "words", "first"),
    [
        ("A monthly letterpress stationery club", "paper,ink,post", 16),
        ("A piano tuner in the valley", "piano,tuning,repair", 15),
        ("A bakery that delivers bread", "bread,oven", 30),
        ("A podcast about the night sky", "stars,telescope", 9),
    ],
)
def test_classes_are_proposed_from_the_words(about: str, words: str, first: int) -> None:
    brief = parse_brief({"about": about, "keywords": words.split(",")})
    proposed = proposed_classes(brief, LEXICON)
    assert proposed[0] == first
    assert len(proposed) <= 4


def test_a_brief_that_says_nothing_has_no_classes() -> None:
    assert proposed_classes(Brief(), LEXICON) == ()
