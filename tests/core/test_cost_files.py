"""Coupons, sellers and rates as they come from outside; VAT numbers as people type them."""

import json
from contextlib import suppress
from datetime import date
from decimal import Decimal
from typing import ClassVar

import pytest
from hypothesis import given
from hypothesis import strategies as st

from standins.sellers import SELLERS, coupons_of, prices_of
from vinetag.core.cost import Quoted, RateError, Rates, moves_add_year
from vinetag.core.cost.bank_rates import BankRatesError, read_bank_rates, shipped_rates
from vinetag.core.cost.coupon_files import COLUMNS, coupons_schema, read_coupons
from vinetag.core.cost.price_files import read_price_list
from vinetag.core.cost.seller_documents import (
    MOST_SELLERS,
    read_seller,
    read_sellers,
    seller_document,
)
from vinetag.core.cost.vat import VatError, vat_country
from vinetag.core.extensions import shipped_catalogue
from vinetag.core.money import Money

KNOWN = {e.extension for e in shipped_catalogue()}
HEAD = ",".join(COLUMNS)
TODAY = date(2026, 11, 29)


class TestCoupons:
    def read(self, *lines: str) -> tuple[list[str], list[tuple[str, str]]]:
        found = read_coupons("\n".join([HEAD, *lines]), "x", KNOWN)
        assert all(problem.text() for problem in found.problems)
        return [c.code for c in found.coupons], [(p.path, p.code) for p in found.problems]

    def test_a_line_says_all_a_coupon_can(self) -> None:
        line = "ALL,percent,12.5,com .net,register move,1,2,3,40,yes,yes,no,2026-11-01,2026-12-31"
        [coupon] = read_coupons(f"{HEAD}\n{line}", "x", KNOWN).coupons
        assert (coupon.value, coupon.extensions) == (Decimal("12.5"), {"com", "net"})
        assert (coupon.actions, coupon.least_names) == ({"register", "move"}, 3)
        assert (coupon.new_customers, coupon.combines, coupon.on_promotions) == (True, True, False)
        assert coupon.holds(date(2026, 12, 31))
        assert not coupon.holds(date(2027, 1, 1))

    @pytest.mark.parametrize(
        ("line", "place", "code"),
        [
            (",percent,10,,,,,,,,,,,", "code", "blank"),
            ("A,gift,10,,,,,,,,,,,", "takes", "unknown_choice"),
            ("A,percent,101,,,,,,,,,,,", "value", "coupon_percent"),
            ("A,percent,,,,,,,,,,,,", "value", "blank"),
            ("A,percent,10,nosuch,,,,,,,,,,", "extensions", "extension_unknown"),
            ("A,percent,10,,buy,,,,,,,,,", "actions", "unknown_choice"),
            ("A,percent,10,,,3,2,,,,,,,", "years_to", "list_years"),
            ("A,percent,10,,,,,0,,,,,,", "least_names", "out_of_range"),
            ("A,percent,10,,,,,,,maybe,,,,", "new_customers", "unknown_choice"),
            ("A,percent,10,,,,,,,,,,2026-12-01,2026-11-01", "ends", "list_dates"),
        ],
    )
    def test_what_is_wrong_is_told_and_the_others_are_taken(
        self, line: str, place: str, code: str
    ) -> None:
        codes, problems = self.read("B,amount,5,,,,,,,,,,,", line)
        assert (codes, problems) == (["B"], [(f"line 3, {place}", code)])

    def test_a_code_stands_once(self) -> None:
        line = "A,percent,10,,,,,,,,,,,"
        assert self.read(line, line) == (["A"], [("line 3, code", "coupon_again")])

    @given(st.text(max_size=300))
    def test_nothing_breaks_the_reader(self, text: str) -> None:
        read_coupons(text, "x", KNOWN)
        self.read(*text.split("\n")[:20])

    def test_the_schema_names_every_column(self) -> None:
        assert [field["name"] for field in coupons_schema()["fields"]] == list(COLUMNS)


class TestSellers:
    GOOD: ClassVar = {"code": "a", "name": "A", "country": "IE", "currency": "EUR"}

    def test_those_of_the_simulation_can_be_read_with_all_their_files(self) -> None:
        read = read_sellers(json.loads(json.dumps({"sellers": [s.terms() for s in SELLERS]})))
        entries = read.entries
        assert (len(entries) >= 6, read.problems) == (True, ())
        assert {e.seller().privacy for e in entries} == {"included", "charged"}
        assert {e.seller().tax for e in entries} == {"added", "included"}
        for entry, seller in zip(entries, SELLERS, strict=True):
            assert read_seller(json.loads(json.dumps(seller_document(entry)))) == entry
            for day in (TODAY, date(2028, 2, 29)):
                listed = read_price_list(prices_of(seller, day), entry.currency, KNOWN)
                coupons = read_coupons(coupons_of(seller, day), entry.code, KNOWN)
                assert (listed.problems, coupons.problems) == ((), ())
                assert {row.action for row in listed.rows} >= {"register", "renew", "move"}

    def test_each_problem_is_told_at_its_place_and_the_others_are_taken(self) -> None:
        wrong = {"code": "A b", "name": "x", "country": "ie", "currency": "EURO", "rounding": "0"}
        extra = {**self.GOOD, "code": "b", "extras": [{"name": "Seal", "yearly": "-1"}]}
        found = read_sellers(
            {"sellers": [wrong, 3, {**self.GOOD, "colour": "red"}, self.GOOD, extra]}
        )
        assert [entry.code for entry in found.entries] == ["a"]
        assert found.entries[0].seller().years_max == 10
        assert {(p.path, p.code) for p in found.problems} == {
            ("sellers.0.code", "entry_unreadable"),
            ("sellers.0.country", "entry_unreadable"),
            ("sellers.0.currency", "entry_unreadable"),
            ("sellers.0.rounding", "out_of_range"),
            ("sellers.1", "not_object"),
            ("sellers.3.code", "repeated"),
            ("sellers.4.extras.0.yearly", "not_price"),
        }

    def test_of_too_many_the_first_are_taken(self) -> None:
        many = [{**self.GOOD, "code": f"s{n}"} for n in range(MOST_SELLERS + 1)]
        found = read_sellers({"sellers": many})
        assert len(found.entries) == MOST_SELLERS
        assert [p.code for p in found.problems] == ["too_many"]

    @given(
        st.recursive(st.none() | st.booleans() | st.floats() | st.text(), st.lists, max_leaves=9)
    )
    def test_nothing_is_raised(self, document: object) -> None:
        for given_ in (document, {"sellers": document}, {"sellers": [{"code": document}]}):
            assert read_sellers(given_).entries == ()


class TestRates:
    def test_history_comes_with_the_project(self) -> None:
        rates = shipped_rates()
        assert rates.newest is not None
        dollars = rates.convert(Money(100, "EUR"), "USD", rates.newest)
        assert dollars.day == rates.newest
        assert 50 < dollars.money.amount < 200
        with pytest.raises(RateError):
            rates.convert(Money(1, "EUR"), "USD", date(1998, 1, 1))

    def test_the_file_of_one_day_and_that_of_all_are_read(self) -> None:
        one = read_bank_rates("Date, USD, SEK, \n27 November 2026, 1.25, 11.0, \n")
        all_ = read_bank_rates("Date,USD,SEK,\n2026-11-27,1.25,N/A,\n2026-11-26,1.2,11,\n")
        assert one.of("SEK", TODAY) == (Decimal("11.0"), date(2026, 11, 27))
        assert all_.of("SEK", TODAY) == (Decimal(11), date(2026, 11, 26))
        assert Rates({}).newest is None

    @pytest.mark.parametrize(
        ("text", "where", "code"),
        [
            ("<html>", "line 1", "rates_unreadable"),
            ("Date,USD\n", "line 1", "rates_none"),
            ("Date,USD\n2026-11-27,1.1\n2026-13-01,1\n", "line 3", "not_date"),
            ("Date,USD\n2026-11-27,-1\n", "line 2", "rate_unreadable"),
            ("Date,USD\n2026-11-27,nan\n", "line 2", "rate_unreadable"),
        ],
    )
    def test_what_is_wrong_is_told_at_its_line(self, text: str, where: str, code: str) -> None:
        with pytest.raises(BankRatesError) as refused:
            read_bank_rates(text)
        assert [(p.path, p.code) for p in refused.value.problems] == [(where, code)]

    @given(st.text("Date,USD\n0123456789-. ", max_size=200))
    def test_nothing_else_is_raised(self, text: str) -> None:
        with suppress(BankRatesError):
            read_bank_rates("Date,USD\n" + text)


@pytest.mark.parametrize(
    ("number", "country"), [("IE6388047V", "IE"), (" de 136 695 976", "DE"), ("EL094259216", "GR")]
)
def test_a_vat_number_says_its_country(number: str, country: str) -> None:
    assert vat_country(number) == country


@pytest.mark.parametrize(
    ("number", "code"),
    [("IE6388047W", "vat_number"), ("DE136695977", "vat_number"), ("US123", "vat_country"),
     ("", "vat_country"), ("x" * 500, "vat_country")],
)  # fmt: skip
def test_a_mistyped_vat_number_is_told(number: str, code: str) -> None:
    with pytest.raises(VatError) as refused:
        vat_country(number, "vat")
    assert [(p.path, p.code) for p in refused.value.problems] == [("vat", code)]


def test_some_extensions_add_no_year_with_a_move() -> None:
    assert [moves_add_year(e) for e in ("com", "de", "co.uk")] == [True, False, False]
    assert Quoted(Decimal(1), Decimal(2)).premium
