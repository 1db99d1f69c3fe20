"""Editions of lists, what changed between them, the words of labels, and the hunt through them."""

from __future__ import annotations

import csv
from collections.abc import Iterator, Sequence
from datetime import UTC, datetime, timedelta
from decimal import Decimal
from itertools import product
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from vinetag.core.market import Hunt, parse_hunt
from vinetag.lake.duck import Duck, open_duck, shared_duck
from vinetag.lake.editions import (
    ROW_COLUMNS,
    Edition,
    edition_file,
    forget_others,
    tell_differences,
    write_edition,
)
from vinetag.lake.hunting import Found, Lists, counts_by, hunt, suits_of
from vinetag.lake.listing import read_list
from vinetag.lake.splitting import add_splits, load_words

NOW = datetime(2026, 11, 29, 12, tzinfo=UTC)
WORDS = {"the": 770, "red": 560, "barn": 430, "a": 800, "in": 780, "ink": 450, "post": 500,
         "quiet": 470, "sky": 480, "night": 530, "ed": 300, "bar": 520}  # fmt: skip
NUMBERS = {word: number for number, word in enumerate(WORDS)}
HEADING = ("name,kind,price,currency,bids,ends,drops,first_registered,links,linking_sites,"
           "used_for,also_registered\n")  # fmt: skip


@pytest.fixture
def duck(tmp_path: Path) -> Iterator[Duck]:
    with open_duck(tmp_path / "duck") as found:
        load_words(
            found, ((word, NUMBERS[word], common) for word, common in WORDS.items()), tmp_path
        )
        yield found


def edition(duck: Duck, folder: Path, code: str, lines: str, before: str = "") -> Edition:
    (folder / "list.csv").write_text(HEADING + lines, "utf-8")
    read_list(duck, folder / "list.csv", NOW)
    earlier = edition_file(folder, "fair", before) if before else None
    found = tell_differences(duck, earlier, folder, NOW)
    write_edition(duck, edition_file(folder, "fair", code), earlier, NOW)
    return found


def cells(file: Path) -> list[list[str]]:
    with file.open(encoding="utf-8", newline="") as lines:
        return list(csv.reader(lines, delimiter="\t", quoting=csv.QUOTE_NONE))


def test_labels_are_cut_into_the_commonest_words(duck: Duck) -> None:
    labels = ["redbarn", "thered", "inthenight", "ink", "zzz", "inkqqq", "red-barn", "nightsky",
              "theredbarn", "aredbarn"]  # fmt: skip
    add_splits(duck, " union all ".join(f"select '{label}' as label" for label in labels))
    named = {number: word for word, number in NUMBERS.items()}
    found = {
        label: [named[n] for n in numbers if n is not None]
        for label, *numbers in duck.execute("select * from splits").fetchall()
    }
    assert found == {
        "redbarn": ["red", "barn"], "thered": ["the", "red"], "ink": ["ink"],
        "inthenight": ["in", "the", "night"], "nightsky": ["night", "sky"],
        "theredbarn": ["the", "red", "barn"],
    }  # fmt: skip


def test_a_list_is_told_from_the_one_before(duck: Duck, tmp_path: Path) -> None:
    first = edition(
        duck, tmp_path, "one",
        "same.com,fixed,100,EUR,,,,,,,,\ncheaper.com,fixed,100,EUR,,,,,,,,\n"
        "gone.com,fixed,50,EUR,,,,,,,,\nlonger.com,auction,10,EUR,1,2026-12-01T10:00:00Z,,,,,,\n"
        "bid.com,auction,10,EUR,1,2026-12-01T10:00:00Z,,,,,,\nturned.com,fixed,9,EUR,,,,,,,,\n"
        "later.com,dropping,,,,,2026-12-20,,,,,\n",
    )  # fmt: skip
    assert (first.names, first.new, first.changed, first.gone) == (7, 7, 0, 0)
    assert cells(first.changes) == []
    assert len(cells(first.rows)) == 7
    second = edition(
        duck, tmp_path, "two",
        "same.com,fixed,100,EUR,,,,,,,,\ncheaper.com,fixed,80,EUR,,,,,,,,\n"
        "longer.com,auction,10,EUR,2,2026-12-01T10:05:00Z,,,,,,\nfresh.com,asking,,,,,,,,,,\n"
        "bid.com,auction,15,EUR,2,2026-12-01T10:00:00Z,,,,,,\nturned.com,asking,,,,,,,,,,\n"
        "later.com,dropping,,,,,2026-12-22,,,,,\n", "one",
    )  # fmt: skip
    assert (second.names, second.new, second.changed, second.gone) == (7, 1, 5, 1)
    assert cells(second.changes) == [
        ["turned", "com", "kind", "fixed", "asking"],
        ["cheaper", "com", "price", "100.000 EUR", "80.000 EUR"],
        ["longer", "com", "extended", "2026-12-01T10:00:00Z", "2026-12-01T10:05:00Z"],
        ["later", "com", "drops", "2026-12-20T00:00:00Z", "2026-12-22T00:00:00Z"],
        ["gone", "com", "gone", "50.000 EUR", ""],
    ]
    stored = {
        row[0]: dict(zip((*ROW_COLUMNS, "gone_at"), row, strict=True)) for row in cells(second.rows)
    }
    assert set(stored) == {"cheaper", "longer", "bid", "turned", "later", "fresh", "gone"}
    assert (stored["gone"]["gone_at"], stored["gone"]["price"]) == ("2026-11-29 12:00:00", "50.000")
    assert stored["fresh"]["gone_at"] == r"\N"
    again = edition(duck, tmp_path, "three", HEADING.join(["", ""])[:0] + (
        "same.com,fixed,100,EUR,,,,,,,,\ncheaper.com,fixed,80,EUR,,,,,,,,\n"
        "longer.com,auction,10,EUR,2,2026-12-01T10:05:00Z,,,,,,\nfresh.com,asking,,,,,,,,,,\n"
        "bid.com,auction,15,EUR,2,2026-12-01T10:00:00Z,,,,,,\nturned.com,asking,,,,,,,,,,\n"
        "later.com,dropping,,,,,2026-12-22,,,,,\n"), "two")  # fmt: skip
    assert (again.new, again.changed, again.gone, cells(again.rows)) == (0, 0, 0, [])
    forget_others(tmp_path, "fair", {"three"})
    assert [file.name for file in (tmp_path / "fair").iterdir()] == ["three.parquet"]


def test_texts_cannot_break_a_row(duck: Duck, tmp_path: Path) -> None:
    (tmp_path / "odd.csv").write_text(
        'name,kind,address,archived_about\nodd.com,asking,"https://x.example/\t\\N","a\nb\\"\n',
        "utf-8",
    )
    read_list(duck, tmp_path / "odd.csv", NOW)
    found = tell_differences(duck, None, tmp_path, NOW)
    [row] = cells(found.rows)
    stored = dict(zip((*ROW_COLUMNS, "gone_at"), row, strict=True))
    assert stored["address"] == "https://x.example/  N"
    assert "\\" not in stored["archived_about"]


LINES = (
    "redbarn.com,fixed,100,EUR,,,,1999-05-01,400,30,,net\n"
    "nightsky.net,auction,90,USD,4,2026-11-30T10:00:00Z,,2015-01-01,,,adult,com org\n"
    "inkpost.com,asking,,,,,,,,,,\n"
    "ink-post2.co.uk,fixed,20,GBP,,,,2020-01-01,0,0,site,\n"
    "quiet.org,dropping,,,,,2026-12-02,,9,2,,\n"
    "zzqx.com,fixed,5000,EUR,,,,,,,gambling,\n"
)
NEAR = np.zeros(len(WORDS), np.float32)
NEAR[[NUMBERS["ink"], NUMBERS["post"]]] = 1.0
NEAR[NUMBERS["sky"]] = 0.5
WORTH = {"EUR": Decimal(1), "USD": Decimal("0.9")}


@pytest.fixture
def lists(duck: Duck, tmp_path: Path) -> Lists:
    edition(duck, tmp_path, "one", LINES)
    return Lists({"fair": edition_file(tmp_path, "fair", "one")}, WORTH)


def hunted(lists: Lists, now: datetime = NOW, limit: int = 50, **asked: str) -> Found:
    with shared_duck() as reading:
        suits = {m: suits_of(reading, file, NEAR) for m, file in lists.files.items()}
        return hunt(reading, lists, suits, parse_hunt(asked), now, 0, limit)


@pytest.mark.parametrize(
    ("asked", "left"),
    [
        ({}, "inkpost nightsky redbarn ink-post2 quiet zzqx"),
        ({"kinds": "auction,dropping"}, "nightsky quiet"),
        ({"price_max": "100"}, "redbarn nightsky"),
        ({"price_min": "50", "price_max": "90"}, "nightsky"),
        ({"bids_min": "1"}, "nightsky"),
        ({"bids_max": "0", "kinds": "auction"}, ""),
        ({"within": "24"}, "nightsky"),
        ({"within": "72"}, "nightsky quiet"),
        ({"age_min": "10"}, "redbarn nightsky"),
        ({"links_min": "10"}, "redbarn"),
        ({"sites_min": "2"}, "redbarn quiet"),
        ({"letters_max": "5"}, "quiet zzqx"),
        ({"words_min": "2"}, "inkpost nightsky redbarn"),
        ({"text": "nk"}, "inkpost ink-post2"),
        ({"starts": "ink", "digit": "no"}, "inkpost"),
        ({"ends": "sky"}, "nightsky"),
        ({"hyphen": "yes"}, "ink-post2"),
        ({"hyphen": "no", "extensions": ".com"}, "inkpost redbarn zzqx"),
        ({"extensions": "co.uk,net"}, "nightsky ink-post2"),
        ({"also": "org,com"}, "nightsky"),
        ({"clean": "1", "extensions": "com,net"}, "inkpost redbarn"),
        ({"markets": "elsewhere"}, ""),
        ({"sort": "name"}, "ink-post2 inkpost nightsky quiet redbarn zzqx"),
        ({"sort": "price"}, "nightsky redbarn zzqx ink-post2 inkpost quiet"),
        ({"sort": "ends"}, "nightsky quiet ink-post2 inkpost redbarn zzqx"),
        ({"sort": "letters", "reverse": "1", "extensions": "com"}, "inkpost redbarn zzqx"),
        ({"sort": "age"}, "redbarn nightsky ink-post2 inkpost quiet zzqx"),
        ({"sort": "best", "reverse": "1", "extensions": "com"}, "zzqx redbarn inkpost"),
    ],
)  # fmt: skip
def test_filters_and_orders(lists: Lists, asked: dict[str, str], left: str) -> None:
    found = hunted(lists, **asked)
    labels = [hit.label for hit in found.hits]
    if asked.get("sort") or asked.get("reverse"):
        assert labels == left.split()
    else:
        assert sorted(labels) == sorted(left.split())
    assert found.total == len(labels)


def test_what_suits_comes_first_and_what_is_over_is_not_there(lists: Lists) -> None:
    found = hunted(lists)
    scores = {hit.label: hit.suits for hit in found.hits}
    assert found.hits[0].label == "inkpost"
    assert scores["inkpost"] == pytest.approx(100)
    assert scores["nightsky"] > scores["zzqx"] == 0
    assert {hit.label: hit.cost for hit in found.hits}["nightsky"] == pytest.approx(81.0)
    assert {hit.label: hit.cost for hit in found.hits}["ink-post2"] is None
    later = hunted(lists, now=NOW + timedelta(days=1))
    assert "nightsky" not in [hit.label for hit in later.hits]
    assert "quiet" not in [hit.label for hit in hunted(lists, now=NOW + timedelta(days=9)).hits]


def test_pages_make_up_the_whole(lists: Lists) -> None:
    with shared_duck() as reading:
        suits = {m: suits_of(reading, file, NEAR) for m, file in lists.files.items()}
        for sort in ("best", "price"):
            asked = parse_hunt({"sort": sort})
            whole = hunt(reading, lists, suits, asked, NOW, 0, 50).hits
            pages = [hunt(reading, lists, suits, asked, NOW, at, 2).hits for at in (0, 2, 4, 6)]
            assert [hit for page in pages for hit in page] == list(whole)


def test_counts_and_no_lists(lists: Lists) -> None:
    with shared_duck() as reading:
        counts = counts_by(reading, lists, Hunt(), NOW)
        assert counts["kind"] == {"fixed": 3, "asking": 1, "auction": 1, "dropping": 1}
        assert counts["extension"]["com"] == 3
        none = Lists({}, WORTH)
        assert counts_by(reading, none, Hunt(), NOW) == {}
        assert hunt(reading, none, {}, Hunt(), NOW, 0, 5) == Found((), 0)


NAMES = ["".join(pair) for pair in product(["ink", "red", "sky", "q"], ["post", "barn", "-x", "7"])]


@settings(max_examples=15, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(
    st.lists(
        st.tuples(st.sampled_from(NAMES), st.integers(0, 300), st.none() | st.integers(0, 90)),
        min_size=1, max_size=16, unique_by=lambda row: row[0],
    ),
    st.integers(0, 300), st.integers(1, 12), st.sampled_from(["", "in", "-", "7"]),
    st.none() | st.integers(0, 90),
)  # fmt: skip
def test_the_hunt_is_what_going_through_all_of_it_gives(
    duck: Duck, tmp_path: Path, rows: Sequence[tuple[str, int, int | None]], most: int,
    letters: int, text: str, links: int | None,
) -> None:  # fmt: skip
    lines = "".join(
        f"{label}.com,fixed,{price},EUR,,,,,{'' if n is None else n},,,\n"
        for label, price, n in rows
    )
    edition(duck, tmp_path, "any", lines)
    given_lists = Lists({"fair": edition_file(tmp_path, "fair", "any")}, WORTH)
    asked: dict[str, Any] = {"price_max": str(most), "letters_max": str(letters), "text": text}
    if links is not None:
        asked["links_min"] = str(links)
    wanted = {
        label
        for label, price, n in rows
        if price <= most and len(label.replace("-", "")) <= letters and text in label
        and (links is None or (n is not None and n >= links))
    }  # fmt: skip
    assert {hit.label for hit in hunted(given_lists, **asked).hits} == wanted


def since(folder: Path, code: str) -> dict[str, datetime | None]:
    """Since when each name of an edition is listed as it is."""
    file = edition_file(folder, "fair", code)
    with shared_duck() as duck:
        rows = duck.execute(
            f"select label, since from read_parquet('{file}') order by label"
        ).fetchall()
    return dict(rows)


def dated(duck: Duck, folder: Path, code: str, lines: str, now: datetime, before: str = "") -> None:
    (folder / "list.csv").write_text(HEADING + lines, "utf-8")
    read_list(duck, folder / "list.csv", NOW)
    earlier = edition_file(folder, "fair", before) if before else None
    tell_differences(duck, earlier, folder, now)
    write_edition(duck, edition_file(folder, "fair", code), earlier, now)


def test_since_when_a_name_is_listed_as_it_is(duck: Duck, tmp_path: Path) -> None:
    first, second, third = (NOW + timedelta(days=n) for n in range(3))
    dated(
        duck, tmp_path, "one",
        "same.com,fixed,100,EUR,,,,,,,,\ncheaper.com,fixed,100,EUR,,,,,,,,\n"
        "dearer.com,fixed,100,EUR,,,,,,,,\nother.com,fixed,100,EUR,,,,,,,,\n"
        "bids.com,auction,10,EUR,1,2099-01-01T00:00:00Z,,,,,,\nback.com,asking,,,,,,,,,,\n",
        first,
    )  # fmt: skip
    assert set(since(tmp_path, "one").values()) == {first}
    lines = (
        "same.com,fixed,100,EUR,,,,,,,,\ncheaper.com,fixed,90,EUR,,,,,,,,\n"
        "dearer.com,fixed,110,EUR,,,,,,,,\nother.com,asking,,,,,,,,,,\n"
        "bids.com,auction,5,EUR,4,2099-01-01T00:00:00Z,,,,,,\nnew.com,asking,,,,,,,,,,\n"
    )
    dated(duck, tmp_path, "two", lines, second, "one")
    assert since(tmp_path, "two") == {
        "same": first, "dearer": first, "bids": first,
        "cheaper": second, "other": second, "new": second,
    }  # fmt: skip
    # What went and comes back is new again; all else stays as it was.
    dated(duck, tmp_path, "three", lines + "back.com,asking,,,,,,,,,,\n", third, "two")
    assert since(tmp_path, "three") == {**since(tmp_path, "two"), "back": third}


def test_of_an_edition_of_an_earlier_version_it_is_not_known(duck: Duck, tmp_path: Path) -> None:
    dated(duck, tmp_path, "one", "same.com,asking,,,,,,,,,,\n", NOW)
    file = edition_file(tmp_path, "fair", "one")
    older = edition_file(tmp_path, "fair", "older")
    duck.execute(f"copy (select * exclude since from read_parquet('{file}')) to '{older}'")
    later = NOW + timedelta(days=1)
    lines = "same.com,asking,,,,,,,,,,\nnew.com,asking,,,,,,,,,,\n"
    dated(duck, tmp_path, "two", lines, later, "older")
    assert since(tmp_path, "two") == {"same": None, "new": later}
    # A search that is watched tells of what is known to be new only.
    lists = Lists({"fair": edition_file(tmp_path, "fair", "two")}, {"EUR": Decimal(1)})
    scores = {"fair": np.zeros(2, np.float32)}
    with shared_duck() as reading:
        found = hunt(reading, lists, scores, parse_hunt({}), NOW, 0, 10, {"fair": NOW})
    assert [hit.label for hit in found.hits] == ["new"]
    assert found.total == 1
