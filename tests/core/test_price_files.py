"""Price lists as people and sellers send them."""

from datetime import date
from decimal import Decimal
from typing import get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.cost.price_files import (
    COLUMNS,
    MOST_LINES,
    price_list_schema,
    read_price_list,
    write_price_list,
)
from vinetag.core.cost.prices import ACTIONS, PriceRow, Promotion, PromotionKind

KNOWN = {"com", "net", "co.uk"}
HEAD = ",".join(COLUMNS)


def read(text: str) -> tuple[list[PriceRow], list[tuple[str, str]]]:
    found = read_price_list(text, "EUR", KNOWN)
    assert all(problem.text() for problem in found.problems)
    return list(found.rows), [(p.path, p.code) for p in found.problems]


amounts = st.decimals(0, 5_000, places=2)
rows_ = st.builds(
    PriceRow,
    st.sampled_from([*sorted(KNOWN), "*"]),
    st.sampled_from(sorted(ACTIONS)),
    amounts,
    st.integers(1, 3),
    st.integers(3, 10),
    st.sampled_from(["year", "term"]),
    st.none() | st.builds(Promotion, amounts, st.sampled_from(get_args(PromotionKind)), st.just(2)),
    st.dates(date(2025, 1, 1), date(2026, 1, 1)) | st.just(date.min),
    st.dates(date(2026, 1, 1), date(2027, 1, 1)) | st.just(date.max),
)


@given(st.lists(rows_, min_size=1, unique_by=lambda row: (row.extension, row.action)))
def test_a_list_is_read_as_it_was_written(rows: list[PriceRow]) -> None:
    text = write_price_list(rows, "EUR")
    assert read(text) == (rows, [])
    assert read("\ufeff" + text.replace("\n", "\r\n")) == (rows, [])


def test_semicolons_and_decimal_commas_are_what_spreadsheets_write() -> None:
    text = "Extension;Action;Price;Years_to\n.com;register;1.049,90;1\ncom;renew;12,5;\n\n"
    rows, problems = read(text)
    assert problems == []
    assert [(r.extension, r.price, r.years_to) for r in rows] == [
        ("com", Decimal("1049.9"), 1), ("com", Decimal("12.5"), 10),
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("line", "place", "code"),
    [
        ("nosuch,register,,,9,,,,,,,", "extension", "extension_unknown"),
        ("com,buy,,,9,,,,,,,", "action", "unknown_choice"),
        ("com,register,0,,9,,,,,,,", "years_from", "out_of_range"),
        ("com,register,1,11,9,,,,,,,", "years_to", "out_of_range"),
        ("com,register,x,,9,,,,,,,", "years_from", "not_number"),
        ("com,register,3,2,9,,,,,,,", "years_to", "list_years"),
        ("com,register,,,-9,,,,,,,", "price", "not_price"),
        ("com,register,,,,,,,,,,", "price", "blank"),
        ("com,register,,,9,month,,,,,,", "per", "unknown_choice"),
        ("com,register,,,9,,SEK,,,,,", "currency", "list_currency"),
        ("com,register,,,9,,,1,,,,", "promotion", "promotion_without_kind"),
        ("com,register,,,9,,,,first_year,,,", "promotional_price", "promotion_without_price"),
        ("com,register,,,9,,,1,first_names,,,", "promotion_names", "promotion_without_names"),
        ("com,register,,,9,,,,,,2026-02-30,", "valid_from", "not_date"),
        ("com,register,,,9,,,,,,2026-03-01,2026-02-01", "valid_until", "list_dates"),
    ],
)
def test_a_wrong_line_is_told_at_its_place_and_the_others_are_taken(
    line: str, place: str, code: str
) -> None:
    rows, problems = read(f"{HEAD}\nnet,register,,,9,,,,,,,\n{line}\nnet,renew,,,9,,,,,,,\n")
    assert problems == [(f"line 3, {place}", code)]
    assert [(r.extension, r.action) for r in rows] == [("net", "register"), ("net", "renew")]


def test_two_prices_for_the_same_time_and_term_are_one_too_many() -> None:
    lines = [
        "com,register,1,3,9,,,,,,,2026-06-30",
        "com,register,1,3,8,,,,,,2026-07-01,",
        "com,register,3,5,7,,,,,,2026-06-01,2026-06-02",
        "com,register,4,5,7,,,,,,,",
    ]
    rows, problems = read("\n".join([HEAD, *lines]))
    assert problems == [("line 4", "list_overlap")]
    assert [row.price for row in rows] == [9, 8, 7]


@pytest.mark.parametrize(
    ("text", "code"),
    [
        ("<!doctype html><p>Yesterday's prices", "list_not_csv"),
        ('{"prices": []}', "list_not_csv"),
        ("", "column_missing"),
        ("extension,action,price,colour\ncom,register,9,red", "column_unknown"),
        (HEAD + "\n", "list_empty"),
        ("x" * 8_000_001, "list_large"),
    ],
)
def test_what_is_no_list_is_said_to_be_none(text: str, code: str) -> None:
    rows, problems = read(text)
    assert rows == []
    assert code in {found for _, found in problems}


def test_a_list_beyond_all_bounds_is_read_as_far_as_it_may_go() -> None:
    body = "\n".join(f"com,register,{n % 9 + 1},{n % 9 + 1},9" for n in range(200_000))
    rows, problems = read(f"extension,action,years_from,years_to,price\n{body}")
    assert len(rows) == 9
    assert problems[-1][1] in ("list_lines", "list_overlap")
    assert ("line 50002", "list_lines") in problems
    assert len(problems) <= MOST_LINES + 1


@given(st.text(max_size=400) | st.text(",;\t\n\"'0123456789.-comregister*", max_size=400))
def test_nothing_breaks_the_reader(text: str) -> None:
    read(text)
    read(f"{HEAD}\n{text}")


def test_the_schema_names_every_column() -> None:
    assert [field["name"] for field in price_list_schema()["fields"]] == list(COLUMNS)
