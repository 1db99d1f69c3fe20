"""How tables of demand are understood, whoever wrote them."""

from __future__ import annotations

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.demand import Column, Defaults, Market, look_at, read_demand
from vinetag.core.demand.columns import guess_columns
from vinetag.core.demand.reading import language_of


def kinds(text: str) -> list[str]:
    return [column.kind for column in look_at(text.encode()).guess.columns]


@pytest.mark.parametrize("separator", [",", ";", "\t", "|"])
@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16", "utf-16-be", "cp1252"])
def test_any_usual_separator_and_encoding(separator: str, encoding: str) -> None:
    rows = [["phrase", "searches", "competition"], ["café piano", "120", "0.5"], ["key", "7", "1"]]
    text = "\r\n".join(separator.join(row) for row in rows)
    read = read_demand(text.encode(encoding))
    assert list(read.figures.phrases) == ["café piano", "key"]
    assert [read.figures.one(i).low for i in range(2)] == [120, 7]
    assert read.problems == []
    assert look_at(text.encode(encoding)).separator == separator


def test_what_stands_in_columns_tells_them_where_headings_do_not() -> None:
    rows = "\n".join(
        f"{phrase},{searches},0.{searches % 90 + 10},{searches / 700:.2f} €,EUR,IE,en-ie"
        for phrase, searches in (
            ("piano tuning", 1200), ("tune a piano", 800), ("piano tuner near me", 2400),
            ("upright piano", 5400), ("grand piano", 3100), ("piano stool", 700),
        )
    )  # fmt: skip
    assert kinds(f"a,b,c,d,e,f,g\n{rows}\n") == [
        "phrase", "searches", "competition", "price", "currency", "country", "language",
    ]  # fmt: skip
    # Without any heading, too.
    assert kinds(rows + "\n")[:2] == ["phrase", "searches"]


def test_a_column_that_does_not_hold_what_it_says_is_not_believed() -> None:
    text = "keyword,volume,suchvolumen\npiano tuning,high,90\ntune a piano,low,40\nkey,low,7\n"
    assert kinds(text) == ["phrase", "", "searches"]
    both = "keyword,searches,volume\npiano tuning,90,5\ntune a piano,40,6\n"
    assert kinds(both) == ["phrase", "searches", ""]
    range_of = "phrase,min searches,max searches\npiano tuning,10,100\ntune a piano,100,1000\n"
    assert kinds(range_of) == ["phrase", "low", "high"]
    one = read_demand(range_of.encode()).figures.one(0)
    assert (one.low, one.high) == (10, 100)


def test_quotes_blanks_and_short_lines_are_taken_as_they_come() -> None:
    text = 'phrase,searches\n"a ""quoted"" piano",5\n\n   \nshort\n"two, words", 9 \n'
    read = read_demand(text.encode())
    assert [(read.figures.one(i).phrase, read.figures.one(i).low) for i in range(3)] == [
        ('a "quoted" piano', 5), ("short", None), ("two, words", 9),
    ]  # fmt: skip
    open_quote = read_demand(b'phrase,searches\n"never closed,5\npiano,7\n')
    assert open_quote.wrong >= len(open_quote.problems)


def test_one_column_of_phrases_needs_no_heading() -> None:
    assert list(read_demand(b"piano tuning\ntune a piano\n").figures.phrases) == [
        "piano tuning", "tune a piano",
    ]  # fmt: skip
    assert list(read_demand(b"keyword\npiano tuning\n").figures.phrases) == ["piano tuning"]


@pytest.mark.parametrize("word", ["Total", "gesamt", "Somme", "razem", "Average"])
def test_what_sums_up_is_left_out_where_it_does(word: str) -> None:
    sums = read_demand(f"phrase,searches\n{word},100\npiano,60\nkey,40\n".encode())
    assert list(sums.figures.phrases) == ["piano", "key"]
    inside = read_demand(f"phrase,searches\npiano,60\n{word},5\nkey,40\n".encode())
    # People look for that, too.
    assert word.lower() in inside.figures.phrases
    large = read_demand(f"phrase,searches\npiano,60\n{word},95\nkey,40\n".encode())
    assert word.lower() not in large.figures.phrases


def test_more_lines_than_are_taken_are_told(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("vinetag.core.demand.reading.MOST_LINES", 3)
    heard: list[int] = []
    text = "phrase,searches\n" + "".join(f"phrase {n},{n}\n" for n in range(9))
    read = read_demand(text.encode(), on_progress=heard.append)
    assert (len(read.figures), heard) == (3, [0])
    assert read.problems[0].text().startswith("At most 3 lines are taken; those after line 4")


def test_numbers_beyond_all_bounds_are_bounded() -> None:
    huge = "9" * 400
    text = f"phrase,searches,cpc,currency\npiano,{huge},99999999999999999B,EUR\n"
    read = read_demand(text.encode())
    assert read.figures.one(0).low == 2_000_000_000
    assert read.figures.one(0).price == Decimal(2_000_000)
    series = f"phrase;trend\npiano;{','.join([huge] * 12)}\n"
    assert read_demand(series.encode()).figures.one(0).months == (2_000_000_000,) * 12


def test_countries_and_languages_are_known_or_those_of_the_file() -> None:
    text = "phrase,searches,country,language\na b,1,ireland,EN\nc d,2,XX,no language\ne f,3,,\n"
    read = read_demand(text.encode(), Defaults("DE", "de"))
    assert [read.figures.one(i).market for i in range(3)] == [
        Market("IE", "en"), Market("DE", "de"), Market("DE", "de"),
    ]  # fmt: skip
    assert [p.code for p in read.problems] == ["demand_country"]
    assert [language_of(text) for text in ("en", "pt-BR", "e", "en|x", "")] == [
        "en", "pt-br", "", "", "",
    ]  # fmt: skip


def test_so_many_countries_are_told_apart(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("vinetag.core.demand.reading.MOST_MARKETS", 2)
    text = "phrase,searches,country\na b,1,IE\na b,2,GB\na b,3,FR\n"
    read = read_demand(text.encode())
    assert [m.country for m in read.figures.markets] == ["IE", "GB", ""]
    assert read.problems[0].path == "line 4"
    assert read.figures.of_market(Market("GB", "")).tolist() == [1]
    assert read.figures.of_market(Market("SE", "")).tolist() == []


WIDTH = st.integers(1, 6)
CELLS = st.sampled_from(
    [
        "piano tuning",
        "1,200",
        "0.5",
        "-",
        "",
        "1K – 10K",
        "2026-10",
        "EUR",
        "IE",
        "x",
        "Total",
        "12€",
    ]
)


@given(WIDTH.flatmap(lambda n: st.lists(st.lists(CELLS, min_size=n, max_size=n), max_size=8)))
def test_every_column_is_one_kind_and_each_kind_is_one_column(rows: list[list[str]]) -> None:
    guess = guess_columns(rows[0] if rows else (), rows[1:])
    told = [column.kind for column in guess.columns if column.kind and column.kind != "month"]
    assert len(told) == len(set(told))
    assert all(bool(c.month) == (c.kind == "month") for c in guess.columns)
    # Whatever was guessed can be read by.
    content = "\n".join(";".join(row) for row in rows).encode()
    read_demand(content, columns=[*guess.columns, Column("phrase")])
