"""Lists of offers read: every cell looked at, what is wrong told at its line, the rest taken."""

from __future__ import annotations

import gzip
import io
import json
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from decimal import Decimal
from pathlib import Path
from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from vinetag.core.market import COLUMNS, feed_schema
from vinetag.lake.duck import Duck, open_duck
from vinetag.lake.listing import Read, read_list
from vinetag.lake.unpacking import FeedError, unpack

NOW = datetime(2026, 11, 29, 12, tzinfo=UTC)
MOST = 10_000_000


@pytest.fixture
def duck(tmp_path: Path) -> Iterator[Duck]:
    with open_duck(tmp_path / "duck") as found:
        yield found


def read(duck: Duck, folder: Path, text: str) -> Read:
    file = folder / "list"
    file.write_text(text, "utf-8")
    return read_list(duck, file, NOW)


def rows(duck: Duck, what: str = "label, extension, kind") -> list[Any]:
    return duck.execute(f"select {what} from listed order by label, extension").fetchall()


def told(found: Read) -> list[tuple[str, str]]:
    return [(problem.path, problem.code) for problem in found.problems]


def test_a_list_is_read_cell_by_cell(duck: Duck, tmp_path: Path) -> None:
    found = read(
        duck,
        tmp_path,
        "name,kind,price,currency,bids,ends,first_registered,links,used_for,also_registered\n"
        "Inkpost.COM,fixed,1200.5,eur,,,2001-03-04,17,adult,net org\n"
        "ink-post.co.uk.,auction,90,USD,4,2026-12-01T20:00:00+02:00,,,,\n"
        "xn--bcher-kva.de,asking,,,,,,,,\n",
    )
    assert (found.lines, found.taken, found.wrong, told(found)) == (3, 3, 0, [])
    assert rows(duck) == [
        ("ink-post", "co.uk", "auction"), ("inkpost", "com", "fixed"),
        ("xn--bcher-kva", "de", "asking"),
    ]  # fmt: skip
    [first] = duck.execute(
        "select price, currency, first_registered::text, links, used_for, also_registered, bids "
        "from listed where label = 'inkpost'"
    ).fetchall()
    assert first == (Decimal("1200.500"), "EUR", "2001-03-04", 17, "adult", "net org", None)
    [(ends,)] = duck.execute("select ends from listed where kind = 'auction'").fetchall()
    assert ends == datetime(2026, 12, 1, 18, tzinfo=UTC)


@pytest.mark.parametrize(
    ("line", "code", "kept"),
    [
        ("inkpost.com,fixed,call,EUR,,", "feed_unpriced", False),
        ("inkpost.com,asking,call,EUR,,", "feed_amount", True),
        ("inkpost.com,fixed,-4,EUR,,", "feed_unpriced", False),
        ("inkpost.com,fixed,9,XYZ,,", "feed_currency", False),
        ("inkpost.com,fixed,9,,,", "feed_currency", False),
        ("inkpost.com,sold,9,EUR,,", "feed_kind", False),
        ("a b.com,asking,,,,", "feed_name", False),
        ("www.inkpost.com.uk.x,asking,,,,", "feed_name", False),
        ("-ink.com,asking,,,,", "feed_name", False),
        ("inkpost,asking,,,,", "feed_name", False),
        ("ab--cd.com,asking,,,,", "feed_name", False),
        ("inkpost.com,auction,9,EUR,2026-12-01T20:00:00,", "feed_zone", False),
        ("inkpost.com,auction,9,EUR,soon,", "feed_no_end", False),
        ("inkpost.com,auction,9,EUR,,", "feed_no_end", False),
        ("inkpost.com,auction,9,EUR,2026-11-29T11:59:00Z,", "feed_ended", False),
        ("inkpost.com,auction,9,EUR,2026-11-29T12:30:00+01:00,", "feed_ended", False),
        ("inkpost.com,dropping,,,,2026-12-01T20:00", "feed_zone", True),
        ("inkpost.com,dropping,,,,tomorrow", "feed_moment", True),
        ("inkpost.com,dropping,,,,2026-11-20", "feed_ended", False),
    ],
)
def test_what_is_wrong_is_told_and_leaves_the_others_alone(
    duck: Duck, tmp_path: Path, line: str, code: str, kept: bool
) -> None:
    text = (
        f"name,kind,price,currency,ends,drops\nquill.com,asking,,,,\n{line}\nreed.com,asking,,,,\n"
    )
    found = read(duck, tmp_path, text)
    assert [(path.split(",")[0], c) for path, c in told(found)] == [("line 3", code)]
    assert found.problems[0].text()
    assert len(rows(duck)) == (3 if kept else 2)
    assert (found.wrong, found.taken) == (1, len(rows(duck)))


def test_a_day_is_the_whole_of_it_and_a_time_is_one(duck: Duck, tmp_path: Path) -> None:
    read(
        duck,
        tmp_path,
        "name,kind,drops,state\na-day.com,dropping,2026-12-03,pending\n"
        "a-time.com,dropping,2026-12-03T18:30:00Z,nowhere\n",
    )
    day, moment = datetime(2026, 12, 3, tzinfo=UTC), datetime(2026, 12, 3, 18, 30, tzinfo=UTC)
    assert rows(duck, "drops_from, drops_to, state") == [
        (day, day + timedelta(days=1), "pending"), (moment, moment, None),
    ]  # fmt: skip


def test_a_name_at_two_prices_has_the_last_and_it_is_told(duck: Duck, tmp_path: Path) -> None:
    text = "name,kind,price,currency\n" + "".join(
        f"inkpost.com,fixed,{price},EUR\n" for price in (10, 30, 20)
    )
    found = read(duck, tmp_path, text)
    assert told(found) == [("line 4", "feed_twice")]
    assert found.problems[0].args == {"value": "inkpost.com", "count": 3}
    assert rows(duck, "price::integer") == [(20,)]


def test_many_of_a_kind_are_counted_and_the_first_told(duck: Duck, tmp_path: Path) -> None:
    lines = "".join(f"name{n}.com,fixed,call,EUR\n" for n in range(40))
    found = read(duck, tmp_path, f"name,kind,price,currency\nquill.com,asking,,\n{lines}")
    assert found.wrong == 40
    assert told(found)[-1] == ("file", "feed_more")
    assert found.problems[-1].args == {"count": 32}
    assert [path for path, _ in told(found)][:3] == [
        "line 3, price",
        "line 4, price",
        "line 5, price",
    ]


def test_lines_that_are_none_are_told_where_they_stand(duck: Duck, tmp_path: Path) -> None:
    found = read(
        duck,
        tmp_path,
        "name;kind;foo\nquill.com;asking;1\nshort\nreed.com;wrong;1\nlong.com;asking;"
        + "x" * 25_000,
    )
    codes = dict(reversed(told(found)))
    assert codes["line 1"] == "feed_unknown"
    assert codes["line 4, kind"] == "feed_kind"
    assert {"feed_line"} >= {code for path, code in told(found) if path in ("line 3", "line 5")}
    assert [row[0] for row in rows(duck)] == ["quill"]


def test_json_lines_are_the_same_list(duck: Duck, tmp_path: Path) -> None:
    lines = [
        {"name": "inkpost.com", "kind": "fixed", "price": 12.5, "currency": "EUR"},
        {"name": "reed.com", "kind": "asking", "links": 3, "unknown": {"a": [1]}},
    ]
    text = "\n".join([*map(json.dumps, lines), "{not json", '{"name": ["x"], "kind": 3}'])
    found = read(duck, tmp_path, text)
    assert rows(duck, "label, price::float, links") == [("inkpost", 12.5, None), ("reed", None, 3)]
    assert {path.split(",")[0] for path, _ in told(found)} == {"line 3", "line 4"}


@pytest.mark.parametrize(
    ("text", "code"),
    [
        ("", "feed_empty"),
        ("\n\n", "feed_empty"),
        ("name,kind\n", "feed_empty"),
        ("<html><body>Welcome</body></html>", "feed_not_table"),
        ("[1, 2]", "feed_not_table"),
        ("{broken", "feed_not_table"),
        ("domain,price\ninkpost.com,12\n", "feed_columns"),
        ('{"domain": "inkpost.com"}', "feed_columns"),
        ("name,kind\ninkpost,asking\n", "feed_nothing_right"),
    ],
)
def test_what_is_no_list_is_refused_and_said(
    duck: Duck, tmp_path: Path, text: str, code: str
) -> None:
    with pytest.raises(FeedError) as refused:
        read(duck, tmp_path, text)
    assert refused.value.problems[0].code == code
    assert "{" not in refused.value.problems[0].text()
    assert str(tmp_path) not in refused.value.problems[0].text()


CELLS = st.text(alphabet=st.characters(codec="utf-8", exclude_characters="\r"), max_size=30)


@settings(max_examples=25, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.lists(st.lists(CELLS, min_size=1, max_size=25), max_size=12), st.binary(max_size=200))
def test_no_file_breaks_the_reading(
    duck: Duck, tmp_path: Path, lines: list[list[str]], junk: bytes
) -> None:
    heading = ",".join(column.name for column in COLUMNS)
    text = "\n".join([heading, "quill.com,asking", *(",".join(cells) for cells in lines)])
    for body in (text.encode(), junk, text.encode() + junk):
        plain = tmp_path / "plain"
        try:
            unpack(io.BytesIO(body), plain, MOST)
            found = read_list(duck, plain, NOW)
        except FeedError as error:
            found = Read(0, 0, 0, error.problems)
        else:
            assert found.taken >= len(rows(duck)) > 0
        assert all(problem.text() for problem in found.problems)


def test_files_are_unpacked_whatever_they_are_written_in(tmp_path: Path) -> None:
    text = "name,kind\nbücher.de,asking\n"
    target = tmp_path / "plain"
    packed = gzip.compress(text.encode())
    for body in (
        text.encode(), packed, packed[:0] + gzip.compress(b"name,kind\n") + gzip.compress(
            "bücher.de,asking\n".encode()
        ), text.encode("utf-16"), b"\xef\xbb\xbf" + text.encode(),
    ):  # fmt: skip
        unpack(io.BytesIO(body), target, MOST)
        assert target.read_text("utf-8") == text
    unpack(io.BytesIO(b"a\xff\x00b"), target, MOST)
    assert target.read_text("utf-8") == "a\ufffdb"


@pytest.mark.parametrize(
    ("body", "code"),
    [
        (gzip.compress(b"name,kind\n" * 500)[:-9], "feed_broken"),
        (b"\x1f\x8bnonsense", "feed_broken"),
        (gzip.compress(b"x" * 2_000_000), "feed_large"),
        (b"x" * 2_000_000, "feed_large"),
    ],
)
def test_a_file_that_is_cut_off_or_swells_is_refused(
    tmp_path: Path, body: bytes, code: str
) -> None:
    with pytest.raises(FeedError) as refused:
        unpack(io.BytesIO(body), tmp_path / "plain", 1_000_000)
    assert [problem.code for problem in refused.value.problems] == [code]


def test_the_schema_names_every_column() -> None:
    fields = {field["name"]: field for field in feed_schema()["fields"]}
    assert list(fields) == [column.name for column in COLUMNS]
    assert fields["kind"]["constraints"]["enum"] == ["fixed", "asking", "auction", "dropping"]
    assert fields["ends"]["type"] == "datetime"
