"""Which word goes in front of which, and how pleasant words are."""

import numpy as np
import pytest

from vinetag.core.lexicon import load_lexicon

LEXICON = load_lexicon()


def odds(first: str, second: str) -> float:
    return float(LEXICON.pairing.logits(LEXICON.side([first]), LEXICON.side([second]))[0, 0])


@pytest.mark.parametrize(
    ("first", "second"),
    [("coffee", "shop"), ("paper", "mill"), ("paper", "bag")],
)
def test_a_modifier_stands_before_its_head(first: str, second: str) -> None:
    assert odds(first, second) > odds(second, first) + 0.3
    assert odds(first, second) > odds(first, "nephew") + 0.5


def test_words_of_one_kind_do_not_stand_side_by_side() -> None:
    assert odds("bread", "knife") > odds("bread", "loaves")
    assert odds("garden", "shed") > odds("garden", "backyard")


def test_many_at_once_are_as_one_by_one() -> None:
    firsts, seconds = ["coffee", "zzyxq", "night"], ["sky", "shop"]
    table = LEXICON.pairing.logits(LEXICON.side(firsts), LEXICON.side(seconds))
    single = [[odds(a, b) for b in seconds] for a in firsts]
    assert np.allclose(table, single, atol=1e-3)
    assert np.isfinite(table).all()


def test_pleasant_words_are_told_from_grim_ones_rated_or_not() -> None:
    assert "picnic" not in LEXICON.valence
    joy, murder, picnic, corpse = LEXICON.pleasantness(["joy", "murder", "picnic", "corpse"])
    assert joy > 2
    assert murder < -2
    assert picnic > 0 > corpse


def test_words_close_to_everything_do_not_crowd_the_company() -> None:
    near = [w for w, _ in LEXICON.nearest(LEXICON.vectors(["coffee"])[0], 40)]
    assert {"tea", "cocoa"} <= set(near)
    assert not {"addition", "instance", "couple"} & set(near)
