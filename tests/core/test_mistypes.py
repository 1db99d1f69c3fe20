"""What people type who mean a name."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from vinetag.core.brief import parse_brief
from vinetag.core.candidates import Candidate
from vinetag.core.grade import MEASURES, Grader, Reading
from vinetag.core.lexicon import load_lexicon
from vinetag.core.names import FullName, is_ldh_label
from vinetag.core.vet import MISTYPE_KINDS, Mistype, elsewhere, mistypes
from vinetag.core.vet.mistypes import NEIGHBOURS, SLIP

GRADER = Grader(parse_brief({"keywords": ["ink", "post"]}), load_lexicon(), MEASURES)


def reading(label: str) -> Reading:
    return GRADER.read_any(Candidate(label, (), (), 0.0))


def found(label: str, most: int = 500) -> dict[str, Mistype]:
    return {one.label: one for one in mistypes(reading(label), most=most)}


@pytest.mark.parametrize(
    ("meant", "typed", "kind"),
    [
        ("inkpost", "incpost", "heard"),
        ("inkpost", "inkpst", "slip"),
        ("inkpost", "inkposst", "slip"),
        ("inkpost", "inkpsot", "slip"),
        ("inkpost", "inkpoat", "slip"),
        ("inkpost", "inkposts", "form"),
        ("inkposts", "inkpost", "form"),
        ("inkpost", "ink-post", "hyphen"),
        ("ink-post", "inkpost", "heard"),
        ("inkpost", "postink", "order"),
        ("inkpost", "inkpostcom", "aloud"),
        ("modern", "modem", "look"),
        ("clover", "dover", "look"),
    ],
)
def test_each_way_to_mistype_is_among_them(meant: str, typed: str, kind: str) -> None:
    assert found(meant)[typed].kind == kind


def test_what_more_people_would_type_stands_first_and_ways_to_one_add_up() -> None:
    ways = mistypes(reading("modern"), most=500)
    shares = [one.share for one in ways]
    assert shares == sorted(shares, reverse=True)
    # "inkpos" is a letter left out; "inkpost" without its last letter is nothing else.
    one = found("inkpost")
    assert one["inkpos"].share < one["incpost"].share
    # A slip of the finger that is a form, too, is likelier than either.
    assert found("inkposts")["inkpost"].share > found("inkpost")["inkpos"].share


def test_slips_come_to_what_was_measured() -> None:
    # Letters that are alone in a word nobody knows: nothing else leads to these.
    slips = [one for one in mistypes(reading("qzxjv"), most=5_000) if one.kind == "slip"]
    # Turned letters at the end, and what is no label, are not among them.
    assert 0.8 * 5 * SLIP < sum(one.share for one in slips) <= 5 * SLIP


def test_keys_are_neighbours_of_each_other() -> None:
    assert set(NEIGHBOURS["g"]) == set("fhtyvb")
    assert set(NEIGHBOURS["q"]) == set("w12a")
    for key, beside in NEIGHBOURS.items():
        assert all(key in NEIGHBOURS[other] for other in beside), key


@given(st.from_regex(r"[a-z][a-z0-9]{0,10}(-[a-z]{1,6})?", fullmatch=True), st.integers(1, 80))
@settings(max_examples=60, deadline=None)
def test_they_are_other_labels_once_each(label: str, most: int) -> None:
    ways = mistypes(reading(label), most=most)
    labels = [one.full_name for one in ways]
    typed = [one for one in ways if one.kind != "disguise"]
    assert len(labels) == len(set(labels))
    assert len(typed) <= most
    assert FullName(label, "com") not in labels
    for one in ways:
        assert is_ldh_label(one.label) or one.kind == "disguise"
        assert one.kind in MISTYPE_KINDS
        assert 0 < one.share <= 1


def test_names_in_other_letters_have_none() -> None:
    assert mistypes(reading("xn--bcher-kva")._replace(foreign=True)) == []


@given(
    st.lists(
        st.builds(Mistype, st.text("abc", min_size=1), st.just("slip"), st.floats(0.0001, 1)),
        unique_by=lambda one: one.label,
    ),
    st.data(),
)
def test_who_lands_where_adds_up(ways: list[Mistype], data: st.DataObject) -> None:
    lands = st.sampled_from(["taken", "parked", "free", None])
    held = {one.full_name: data.draw(lands) for one in ways}
    shares = elsewhere(ways, {k: v for k, v in held.items() if v is not None})
    assert abs(sum(shares[1:]) - shares.whole) < 1e-9
    assert 0 <= shares.whole <= 1 + 1e-9
    if "taken" not in held.values():
        assert shares.taken == 0
