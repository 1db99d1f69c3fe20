"""Steps, shares, people, addresses and numbers of buying."""

from __future__ import annotations

from decimal import Decimal
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.ordering import (
    COUNTRIES,
    FINAL,
    IDENTIFIERS,
    NEXT,
    SAID,
    StateError,
    advance,
    check_person,
    needed_for,
    said_in_words,
    share_out,
    words_of,
)

GIVEN = {
    "kind": "person", "name": "Edda Birchwell", "street": "4 Quay Lane", "city": "Port Ferris",
    "country": "IE", "phone": "+353 87 123 4567", "email": "edda@inkpost.example",
}  # fmt: skip
cents = st.decimals("-500", "5000", places=2)


def wrong(**other: Any) -> dict[str, str]:
    return {p.path: p.text() for p in check_person({**GIVEN, **other})[1]}


@given(st.lists(st.sampled_from(sorted(NEXT)), max_size=8))
def test_a_name_goes_no_way_that_is_not_there(ways: list[str]) -> None:
    state = "planned"
    for to in ways:
        if to == state or to in NEXT[state]:  # type: ignore[index]
            state = advance(state, to)  # type: ignore[arg-type]
        else:
            with pytest.raises(StateError):
                advance(state, to)  # type: ignore[arg-type]


def test_every_step_leads_to_an_end_and_no_end_leads_on() -> None:
    for state, following in NEXT.items():
        assert (not following) == (state in FINAL), state
        reached, open_ones = {state}, [state]
        while open_ones:
            for one in NEXT[open_ones.pop()] - reached:
                reached.add(one)
                open_ones.append(one)
        assert reached & FINAL
    assert all(words_of(state) for state in NEXT)
    # Money is given back for what failed alone.
    assert [s for s, following in NEXT.items() if "refunded" in following] == ["failed"]


@given(cents, st.lists(st.decimals("0", "900", places=2), min_size=1, max_size=30))
def test_shares_are_whole_cents_and_add_up(amount: Decimal, by: list[Decimal]) -> None:
    if not sum(by):
        by = [*by, Decimal(1)]
    parts = share_out(amount, by)
    assert sum(parts) == amount
    for part, weight in zip(parts, by, strict=True):
        assert part == part.quantize(Decimal("0.01"))
        assert abs(part - amount * weight / sum(by)) <= Decimal("0.01") * len(by)


def test_shares_by_hand() -> None:
    thirds = [Decimal(1)] * 3
    assert share_out(Decimal("1.00"), thirds) == [Decimal(x) for x in ("0.34", "0.33", "0.33")]
    assert share_out(Decimal("-0.01"), thirds) == [Decimal(x) for x in ("-0.01", "0.00", "0.00")]
    assert share_out(Decimal(0), [Decimal(0)]) == [Decimal(0)]
    for amount, by in ((Decimal("0.001"), thirds), (Decimal(1), [Decimal(0)])):
        with pytest.raises(ValueError, match=r"cents|share"):
            share_out(amount, by)


def test_a_person_is_written_as_registries_take_it() -> None:
    person, problems = check_person({**GIVEN, "name": "Żaneta Øster ", "phone": "087 123 4567"})
    assert problems == []
    assert (person.name, person.phone) == ("Żaneta Øster", "+353871234567")
    assert person.epp_phone == "+353.871234567"
    assert person.plain().name == "Zaneta Oster"


@pytest.mark.parametrize(
    ("part", "at", "says"),
    [
        ({"name": ""}, "name", "Write something"),
        ({"name": "李"}, "name", "李"),
        ({"name": "x" * 256}, "name", "At most 255"),
        ({"kind": "organisation"}, "organisation", "Write something"),
        ({"country": "XX"}, "country", "XX"),
        ({"country": "US", "postcode": "12207"}, "region", "have a state"),
        ({"country": "US", "postcode": "K1A 0B1", "region": "NY"}, "postcode", "ZIP code"),
        ({"country": "DE"}, "postcode", "Write something"),
        ({"postcode": "12345"}, "postcode", "Eircode"),
        ({"phone": "+1 2"}, "phone", "+353 87"),
        ({"phone": "call me"}, "phone", "no telephone number"),
        ({"email": "edda"}, "email", "no address for mail"),
        ({"street": "a\u0000b"}, "street", "cannot be printed"),
        ({"identifiers": {"vat": "IE6433435X"}}, "identifiers.vat", "no VAT number"),
    ],
)
def test_what_is_wrong_is_told_at_its_field(part: dict[str, Any], at: str, says: str) -> None:
    found = wrong(**part)
    assert list(found) == [at]
    assert says in found[at]


@given(st.dictionaries(st.sampled_from([*GIVEN, "region", "postcode"]), st.text(max_size=40)))
def test_whatever_is_typed_is_read(given_text: dict[str, str]) -> None:
    person, problems = check_person(given_text)
    assert person.kind in ("person", "organisation")
    if not problems:
        assert person.plain().name.isascii()
        assert person.epp_phone.startswith("+")


def test_every_number_has_an_example_that_holds_and_one_digit_off_does_not() -> None:
    for one in IDENTIFIERS.values():
        assert one.problem(one.example) == "", one.code
        assert one.problem("") != ""
    assert "check digit" in IDENTIFIERS["br_cpf"].problem("390.533.447-06")
    assert {one.code for one in needed_for("br", "organisation")} == {"br_cnpj"}
    assert not needed_for("open", "person")


def test_every_country_of_iso_3166_is_there_and_its_example_is_one_of_its_own() -> None:
    assert len(COUNTRIES) > 240
    for country in COUNTRIES.values():
        assert not country.example or country.writes(country.example), country.code


def test_what_a_seller_answers_is_said_in_words() -> None:
    assert all(said_in_words(code) != said_in_words(0) for code in SAID)
    assert said_in_words(2306, "", "No hyphens") == (
        "The rules of the registry do not allow it. The seller says: “No hyphens”."
    )
    assert said_in_words(0, "certificate").startswith("The seller's certificate")
