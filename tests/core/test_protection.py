"""Where those land who mistype a name, and what to hold so that fewer do."""

from __future__ import annotations

import itertools

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from vinetag.core.names import FullName
from vinetag.core.vet import (
    Mistype,
    Offer,
    choose,
    curve,
    held_finding,
    in_words,
    mistyped_finding,
    protection,
    typed_extensions,
)
from vinetag.core.vet.disguises import disguises


def test_disguises_look_the_same_and_are_other_labels() -> None:
    found = disguises("ape")
    assert found[0] == "xn--80ak6a"  # all of it Cyrillic
    assert all(one.startswith("xn--") for one in found)
    assert disguises("9lives") == []


def test_extensions_are_typed_by_habit_and_country() -> None:
    known = {"com", "net", "org", "ie", "studio", "co.uk", "co"}
    assert typed_extensions("studio", "IE", known)["com"] > 0.05
    assert "ie" in typed_extensions("studio", "IE", known)
    assert "co.uk" in typed_extensions("com", "GB", known)
    assert "com" not in typed_extensions("com", "", known)
    assert set(typed_extensions("ie", "IE", {"ie"})) == set()


NAME = FullName("inkpost", "com")
TYPED = [
    Mistype("incpost", "heard", 0.10), Mistype("inkposts", "form", 0.04),
    Mistype("inkpst", "slip", 0.01), Mistype("inkpost", "extension", 0.02, "net"),
]  # fmt: skip


@pytest.mark.parametrize(
    ("statuses", "code", "weight"),
    [
        (("taken", "taken", "taken", "taken"), "mistyped_held", "stop"),
        (("open", "taken", "open", "open"), "mistyped_held", "think"),
        (("open", "open", "offered", "open"), "mistyped_held", "note"),
        (("open", "open", "open", "open"), "mistyped_open", "note"),
        (("", "open", "open", "open"), "mistyped_unknown", "unknown"),
    ],
)
def test_where_those_land_who_mistype(statuses: tuple[str, ...], code: str, weight: str) -> None:
    known = {one.full_name: s for one, s in zip(TYPED, statuses, strict=True) if s}
    finding = mistyped_finding(NAME, TYPED, known, {TYPED[1].full_name: "Alma Hexley"})
    assert (finding.code, finding.weight) == (code, weight)
    assert finding.evidence[1]["holder"] == "Alma Hexley"
    assert "inkpost.com" in in_words(finding)


def test_what_can_be_had_and_is_worth_its_price_is_offered() -> None:
    statuses = {one.full_name: "open" for one in TYPED}
    statuses[TYPED[1].full_name] = "taken"
    prices = {"com": 12_000, "net": 500_000}
    yearly = {one.full_name: prices[one.extension] for one in TYPED}
    offers = protection(TYPED, statuses, yearly)
    assert [offer.full_name for offer in offers] == ["incpost.com", "inkpst.com"]
    # One with a price of its own costs that, and is not offered where it is not known.
    statuses[TYPED[0].full_name] = "premium"
    dearer = protection(TYPED, statuses, {**yearly, TYPED[0].full_name: 90_000})
    assert next((o.full_name, o.yearly) for o in dearer) == ("incpost.com", 90_000)
    del yearly[TYPED[0].full_name]
    assert [o.full_name for o in protection(TYPED, statuses, yearly)] == ["inkpst.com"]
    finding, chosen = held_finding(NAME, TYPED, statuses, offers, 12_000, "EUR")
    assert (finding.code, [o.full_name for o in chosen.offers]) == ("hold_some", ["incpost.com"])
    assert "12.00 EUR" in in_words(finding)
    dear, _ = held_finding(NAME, TYPED, statuses, offers, 5_000, "EUR")
    assert dear.code == "hold_dear"
    none, _ = held_finding(NAME, TYPED, statuses, [], 5_000, "EUR")
    assert (none.code, none.weight) == ("hold_none", "clear")
    unpriced, _ = held_finding(NAME, TYPED, statuses, [], 5_000, "EUR", priced=False)
    assert (unpriced.code, unpriced.weight) == ("hold_no_prices", "unknown")
    unknown, _ = held_finding(NAME, TYPED, {}, [], 5_000, "EUR")
    assert (unknown.code, unknown.weight) == ("hold_unknown", "unknown")


OFFERS = st.lists(
    st.builds(
        Offer,
        st.uuids().map(str),
        st.floats(0.001, 0.3).map(lambda x: round(x, 4)),
        st.integers(1, 60).map(lambda tenths: 100 * tenths),
    ),
    max_size=9,
)


@settings(max_examples=150, deadline=None)
@given(OFFERS, st.integers(0, 200).map(lambda tenths: 100 * tenths))
def test_the_bundle_is_the_best_there_is(offers: list[Offer], budget: int) -> None:
    """Beside trying all of them."""
    chosen = choose(offers, budget)
    assert chosen.yearly <= budget
    best = max(
        sum(o.share for o in some)
        for size in range(len(offers) + 1)
        for some in itertools.combinations(offers, size)
        if sum(o.yearly for o in some) <= budget
    )
    assert sum(o.share for o in chosen.offers) == pytest.approx(best)


@settings(max_examples=80, deadline=None)
@given(OFFERS, st.integers(0, 300).map(lambda tenths: 100 * tenths))
def test_the_curve_rises_and_each_point_is_the_best_for_its_cost(
    offers: list[Offer], most: int
) -> None:
    points = curve(offers, most)
    assert (points[0].yearly, points[0].share) == (0, 0.0)
    for one, two in itertools.pairwise(points):
        assert one.yearly < two.yearly <= most
        assert one.share < two.share
    for point in points:
        assert choose(offers, point.yearly).share == pytest.approx(point.share)
