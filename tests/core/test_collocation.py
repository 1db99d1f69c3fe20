"""How well words go side by side: weighed in any company, and by what they are."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from vinetag.core.brief import parse_brief
from vinetag.core.lexicon import load_lexicon
from vinetag.core.make import Job
from vinetag.core.make.collocation import Collocation, same_word
from vinetag.core.make.stems import Stem, keyword_stem

LEXICON = load_lexicon()
WORDS = "star stars map paper mill walking dog dogs horse small children zzyxq quick tuning".split()


def stem(word: str, kind: str = "kin", **fields: object) -> Stem:
    known = LEXICON.words.get(word)
    given = {"words": (word,), "kind": kind, "keyword": "", "worth": 0.5}
    return Stem(**{**given, "pos": known.pos if known else "n", **fields})  # type: ignore[arg-type]


def side_by_side(first: Stem, second: Stem) -> float:
    return float(Collocation(LEXICON, {}).together([first], [second])[0, 0])


stems = st.builds(
    stem,
    st.sampled_from(WORDS),
    st.sampled_from(["keyword", "kin", "lead", "tail"]),
    goes_with=st.sampled_from(["", "n", "nav"]),
    broad=st.booleans(),
)


@given(st.lists(stems, min_size=1, max_size=5), st.lists(stems, min_size=1, max_size=5))
@settings(max_examples=60)
def test_company_and_what_was_weighed_before_change_nothing(
    firsts: list[Stem], seconds: list[Stem]
) -> None:
    one = Collocation(LEXICON, {})
    whole = one.together(firsts, seconds)
    assert whole.shape == (len(firsts), len(seconds))
    assert (whole >= 0).all()
    assert (whole <= 1.0001).all()
    apart = [[side_by_side(a, b) for b in seconds] for a in firsts]
    assert np.allclose(whole, apart, atol=1e-5)
    one.together(seconds, firsts)
    assert np.array_equal(one.together(firsts, seconds), whole)


@pytest.mark.parametrize(
    ("better", "worse"),
    [
        (("star", "map"), ("stars", "map")),  # one of a thing stands before another
        (("paper", "mill"), ("mill", "paper")),
        (("dog", "house"), ("dog", "horse")),  # two animals are a list
        (("paper", "map"), ("paper", "children")),  # people are described, not named
    ],
)
def test_what_english_joins(better: tuple[str, str], worse: tuple[str, str]) -> None:
    good, bad = (side_by_side(*map(stem, pair)) for pair in (better, worse))
    assert good > bad


def test_what_is_done_to_a_keyword_goes_behind_it() -> None:
    brief = parse_brief({"keywords": ["dog", "walking"]})
    dog, walking = (keyword_stem(k, LEXICON) for k in brief.keywords)
    job = Job(brief, LEXICON)
    both = job.collocation.together([dog, walking], [dog, walking])
    plain = side_by_side(stem("dog"), stem("walking"))
    assert both[0, 1] > max(plain, float(both[1, 0]))


def test_a_name_nobody_lists_goes_with_every_word_well_enough() -> None:
    assert side_by_side(stem("zzyxq"), stem("map")) == pytest.approx(0.45, abs=0.01)


@pytest.mark.parametrize(
    ("first", "second", "same"),
    [
        ("beeswax", "wax", True), ("heating", "heater", True), ("paper", "paperless", True),
        ("star", "map", False), ("paper", "page", False),
    ],
)  # fmt: skip
def test_one_word_said_twice(first: str, second: str, same: bool) -> None:
    assert same_word(first, second) is same
