"""Every short name, by its number: shapes, letters, and what can be said."""

from __future__ import annotations

import re
from itertools import product
from string import ascii_lowercase

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.errors import QuestionError
from vinetag.core.lexicon import load_lexicon
from vinetag.core.market.short_names import (
    LONGEST,
    bit_count,
    label_of,
    matching,
    number_of,
    parse_short,
    shape_counts,
    shape_size,
)

LEXICON = load_lexicon()


def found(**asked: str) -> list[str]:
    return [label_of(int(number)) for number in matching(parse_short(asked), LEXICON)]


def test_all_names_have_a_number() -> None:
    assert bit_count() == 12_356_630
    assert [label_of(number) for number in (0, 25, 26, 27)] == ["a", "z", "aa", "ab"]
    assert label_of(bit_count() - 1) == "zzzzz"


@given(st.text(ascii_lowercase, min_size=1, max_size=LONGEST))
def test_numbers_and_names_are_the_same(label: str) -> None:
    assert label_of(number_of(label)) == label


@given(st.integers(0, 12_356_628))
def test_names_are_in_order_by_length_and_alphabet(number: int) -> None:
    one, next_one = label_of(number), label_of(number + 1)
    assert (len(one), one) < (len(next_one), next_one)


SHAPES = st.text("CV?ax", min_size=1, max_size=3)


@given(
    SHAPES, st.sampled_from(["", "abx", "aeiou", "z"]), st.sampled_from(["", "a", "x", "ab"]),
    st.sampled_from(["", "b", "xa"]), st.sampled_from(["", "x", "ax", "bab", "aa"]),
)  # fmt: skip
def test_what_matches_is_what_going_through_all_gives(
    shape: str, letters: str, text: str, starts: str, initials: str
) -> None:
    in_order = re.compile(".*".join(initials))
    vowels = set("aeiou")

    def fits(label: str) -> bool:
        for mark, letter in zip(shape, label, strict=True):
            if mark in "CV?" and letters and letter not in letters:
                return False
            if (mark == "C" and letter in vowels) or (mark == "V" and letter not in vowels):
                return False
            if mark not in "CV?" and letter != mark:
                return False
        return text in label and label.startswith(starts) and bool(in_order.match(label))

    every = ("".join(letters) for letters in product(ascii_lowercase, repeat=len(shape)))
    asked = {"shape": shape, "letters": letters, "text": text, "starts": starts}
    assert found(**asked, initials=initials) == [label for label in every if fits(label)]


def test_initials_may_be_told_by_their_words() -> None:
    tide = found(shape="CVCV", initials="Red tide")
    assert tide == found(shape="CVCV", initials="rt")
    assert {"rota", "ruti"} <= set(tide)
    assert all(label[0] == "r" and label[2] == "t" for label in tide)
    assert found(shape="CVC", initials="a b c d") == []


def test_what_can_be_said_has_vowels_and_usual_letters() -> None:
    said = set(found(shape="????", sayable="1"))
    assert {"lane", "milo", "tark", "brin"} <= said
    assert not {"xqzj", "bcdf", "qqqq", "vlkt"} & said
    assert 5_000 < len(said) < 150_000
    assert np.all(np.diff(matching(parse_short({"shape": "????", "sayable": "1"}), LEXICON)) > 0)


@pytest.mark.parametrize(
    ("asked", "path"),
    [
        ({"shape": "CVCVCV"}, "shape"), ({"shape": "cv1"}, "shape"), ({"shape": "X"}, "shape"),
        ({"letters": "ä"}, "letters"), ({"text": "x" * 70}, "text"),
        ({"sayable": "perhaps"}, "sayable"), ({"initials": "4 you"}, "initials"),
    ],
)  # fmt: skip
def test_what_makes_no_sense_is_told(asked: dict[str, str], path: str) -> None:
    with pytest.raises(QuestionError) as refused:
        parse_short(asked)
    assert [problem.path for problem in refused.value.problems] == [path]
    assert refused.value.problems[0].text()


@given(st.sets(st.text(ascii_lowercase, min_size=1, max_size=LONGEST), max_size=30))
def test_shapes_are_counted(labels: set[str]) -> None:
    bits = np.zeros(bit_count(), np.bool_)
    bits[[number_of(label) for label in labels]] = True
    counts = shape_counts(bits)
    assert sum(counts["?" * n] for n in range(1, 6)) == len(labels)
    for label in labels:
        shape = "".join("V" if letter in "aeiou" else "C" for letter in label)
        alike = [
            one
            for one in labels
            if "".join("V" if letter in "aeiou" else "C" for letter in one) == shape
        ]
        assert counts[shape] == len(alike)
    assert len(counts) == 5 + 62


def test_a_shape_has_so_many_names() -> None:
    assert shape_size("CVC") == len(found(shape="CVC")) == 21 * 5 * 21
    assert (shape_size("???"), shape_size("V?")) == (26**3, 5 * 26)
    assert shape_size("") == shape_size("CVCVCV") == shape_size("ab") == 0


def test_nothing_is_found_where_nothing_can_be() -> None:
    assert found(shape="CV", text="abc") == []
    assert found(shape="CV", starts="bab") == []
    assert found(shape="CV", text="9") == []
    assert found(shape="V", letters="xz") == []
