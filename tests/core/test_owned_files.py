"""Tables of owned names: whatever is brought is read line by line."""

from __future__ import annotations

from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.owning import COLUMNS, read_names, schema_of_names
from vinetag.core.owning.files import tags_of
from vinetag.core.spreadsheet import as_csv

KNOWN = frozenset({"com", "net", "ie"})
HEAD = "full name,seller,registered,expires,renewal,locked,privacy,name servers,tags\n"


def read(text: str) -> tuple[list[str], list[str]]:
    found = read_names(text, KNOWN)
    return [str(one.name) for one in found.names], [problem.path for problem in found.problems]


@given(st.text(max_size=300))
def test_any_text_is_read(text: str) -> None:
    names, _ = read(text)
    assert isinstance(names, list)


@given(st.lists(st.text(max_size=8) | st.sampled_from(["ink.com", "2027-01-01"]), max_size=24))
def test_any_cells_are_read_and_each_name_stands_once(cells: list[str]) -> None:
    rows = [cells[start : start + 4] for start in range(0, len(cells), 4)]
    table = as_csv(HEAD.strip().split(","), rows).decode("utf-8-sig")
    names, _ = read(table)
    assert len(names) == len(set(names)), table


def test_a_line_by_hand() -> None:
    [one] = read_names(
        HEAD + "Inkpost.COM,Lantern Names,2020-01-02,2027-01-02,itself,yes,no,"
        "NS1.example.net ns2.example.net,press; old\n",
        KNOWN,
    ).names
    assert (str(one.name), one.seller, one.renewal) == ("inkpost.com", "Lantern Names", "itself")
    assert (one.registered, one.expires) == (date(2020, 1, 2), date(2027, 1, 2))
    assert (one.locked, one.privacy) == (True, False)
    assert one.servers == ("ns1.example.net", "ns2.example.net")
    assert one.tags == ("press", "old")


@pytest.mark.parametrize(
    ("line", "path"),
    [
        ("ink,,,,,,,,", "line 2, full name"),
        ("ink.xyz,,,,,,,,", "line 2, full name"),
        ("ink.com,,2020-13-01,,,,,,", "line 2, registered"),
        ("ink.com,,2027-01-01,2026-01-01,,,,,", "line 2, expires"),
        ("ink.com,,,,never,,,,", "line 2, renewal"),
        ("ink.com,,,,,perhaps,,,", "line 2, locked"),
    ],
)
def test_what_is_wrong_is_told_at_its_cell_and_the_next_line_is_taken(line: str, path: str) -> None:
    names, paths = read(f"{HEAD}{line}\npost.net,,,,,,,,\n")
    assert (names, paths) == (["post.net"], [path])


def test_a_heading_that_is_none_is_told() -> None:
    assert read("name\nink.com\n")[1] == ["line 1", "line 1"]
    assert read("<html>")[1] == ["line 1"]


def test_the_columns_are_those_of_its_schema() -> None:
    schema = schema_of_names()
    assert [one["name"] for one in schema["fields"]] == list(COLUMNS)
    assert schema["primaryKey"] == ["full name"]


@given(st.text(max_size=400))
def test_tags_are_few_short_and_never_hold_what_parts_them(text: str) -> None:
    tags = tags_of(text)
    assert len(tags) <= 10
    assert all(0 < len(tag) <= 30 and not set(tag) & set("|;,") for tag in tags)
    assert len(tags) == len(set(tags))
    assert tags_of("; ".join(tags)) == [tag.strip() for tag in tags]
