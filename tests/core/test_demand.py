"""What people look for: tables read, phrases gathered and grouped, and what one covers."""

from __future__ import annotations

from decimal import Decimal

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.demand import (
    Column,
    Defaults,
    Figure,
    Folding,
    Market,
    Space,
    columns_of,
    covered,
    covers,
    gather,
    grow,
    head_of,
    look_at,
    packed,
    parse_phrase,
    read_demand,
    unpacked,
)
from vinetag.core.demand.columns import kind_of_heading
from vinetag.core.demand.numbers import (
    Range,
    decimal_mark,
    read_amount,
    read_range,
    read_share,
)
from vinetag.core.demand.service import ServiceError, read_answer
from vinetag.core.lexicon import load_lexicon

IRISH = Market("IE", "en")


@pytest.mark.parametrize(
    ("text", "mark", "found"),
    [
        ("1200", "", Range(1200, 1200)), ("0", "", Range(0, 0)), ("", "", None), ("-", "", None),
        ("n/a", "", None), ("1,200", "", Range(1200, 1200)), ("1.200", "", Range(1200, 1200)),
        ("1.200", ".", Range(1, 1)), ("1 200 000", "", Range(1_200_000, 1_200_000)),
        ("1\u202f200", "", Range(1200, 1200)), ("1'200", "", Range(1200, 1200)),
        ("12,34,567", "", Range(1_234_567, 1_234_567)), ("1.234,5", "", Range(1234, 1234)),
        ("2.5K", "", Range(2500, 2500)), ("3 Tsd.", "", Range(3000, 3000)),
        ("1K – 10K", "", Range(1_000, 10_000)), ("1–10K", "", Range(1_000, 10_000)),
        ("100 - 1K", "", Range(100, 1_000)), ("10 bis 100", "", Range(10, 100)),
        ("100+", "", Range(100, None)), ("> 1M", "", Range(1_000_000, None)),
        ("<10", "", Range(0, 9)), ("99999999999999", "", Range(2_000_000_000, 2_000_000_000)),
    ],
)  # fmt: skip
def test_searches_are_read_as_tools_write_them(text: str, mark: str, found: Range | None) -> None:
    assert read_range(text, mark) == found


@pytest.mark.parametrize(
    "text", ["many", "1-2-3", "10-1", "-5", "1.2.3,4,5", "12abc", "+", "1,2,3"]
)
def test_what_is_no_number_is_refused(text: str) -> None:
    with pytest.raises(ValueError, match=r".*"):
        read_range(text)


@given(st.integers(0, 10**9), st.sampled_from([",", ".", " ", "\u00a0", "'", ""]))
def test_thousands_apart_in_any_way_are_the_same_number(number: int, sign: str) -> None:
    assert read_range(f"{number:,}".replace(",", sign)) == Range(number, number)


@given(st.text(max_size=40), st.sampled_from(["", ".", ","]))
def test_whatever_stands_in_a_cell_is_read_or_refused(text: str, mark: str) -> None:
    for reader in (read_range, read_amount, read_share):
        try:
            found = reader(text, mark)
        except ValueError:
            continue
        if isinstance(found, Range) and found.high is not None:
            assert 0 <= found.low <= found.high


def test_amounts_and_shares() -> None:
    assert read_amount("1,20 €") == (Decimal("1.20"), "EUR")
    assert read_amount("USD 1,234.50") == (Decimal("1234.50"), "USD")
    assert read_share("45 %") == pytest.approx(0.45)
    assert decimal_mark(["1.234", "0,52"]) == ","
    assert decimal_mark(["1,234", "3"]) == ""


@pytest.mark.parametrize(
    ("heading", "kind", "month"),
    [
        ("Keyword", "phrase", ""), ("Mot-clé", "phrase", ""), ("Suchvolumen", "searches", ""),
        ("Durchschn. Suchanfragen pro Monat", "searches", ""), ("Währung", "currency", ""),
        ("CPC (EUR)", "price", ""), ("2026-10", "month", "2026-10"),
        ("10/2026", "month", "2026-10"),
        ("Searches: Oct 2026", "month", "2026-10"), ("janv. 2026", "month", "2026-01"),
        ("März 26", "month", "2026-03"), ("liczba wyszukiwań", "searches", ""),
    ],
)  # fmt: skip
def test_headings_are_known_in_several_languages(heading: str, kind: str, month: str) -> None:
    assert kind_of_heading(heading) == Column(kind, month)  # type: ignore[arg-type]


def test_headings_that_say_nothing_are_unknown() -> None:
    assert kind_of_heading("date range") is None
    assert kind_of_heading("May") is None


def test_a_utf16_export_with_tabs_a_title_ranges_and_a_sum() -> None:
    text = (
        "Phrases of Ireland\r\n1 Nov 2025 - 31 Oct 2026\r\n"
        "Keyword\tCurrency\tAvg. monthly searches\tCompetition\tPrice per click\r\n"
        "[Piano Tuning]\tEUR\t1K – 10K\t0,45\t1,20\r\n"
        "piano tuner\tEUR\t0\t–\t\r\n"
        "Total\t\t11000\t\t\r\n"
    )
    for encoding in ("utf-16", "utf-16-le", "utf-8-sig"):
        content = text.encode(encoding)
        preview = look_at(content)
        assert (preview.separator, preview.heading_line) == ("\t", 3)
        read = read_demand(content, Defaults("IE", "en"))
        assert [read.figures.one(i) for i in range(2)] == [
            Figure("piano tuning", IRISH, 1000, 10000, (), 0.45, Decimal("1.2"), "EUR"),
            Figure("piano tuner", IRISH, 0, 0, (), None, None, ""),
        ]
        (problem,) = read.problems
        assert (problem.path, problem.code) == ("line 6", "demand_totals")


def test_a_heading_in_an_unknown_language_is_read_by_its_columns() -> None:
    text = (
        "qué se busca;cuántas;país\nafinar piano;1.200;ES\npiano;2.400;ES\nafinador;x;ES\n;5;ES\n"
    )
    read = read_demand(text.encode("cp1252"))
    assert look_at(text.encode("cp1252")).encoding == "CP1252"
    assert [read.figures.one(i).low for i in range(3)] == [1200, 2400, None]
    assert read.figures.one(0).market == Market("ES", "")
    assert [(p.path, p.code) for p in read.problems] == [
        ("line 4", "demand_searches"), ("line 5", "demand_no_phrase"),
    ]  # fmt: skip


def test_problems_are_told_at_their_lines_and_nothing_else_is_lost() -> None:
    text = (
        "phrase,searches,competition,click price,country\n"
        "piano tuning,10,0.5,1.20,IE\n"
        "piano tuning,12,0.5,1.20,IE\n"
        "piano tuning,10,0.5,1.20,IE\n"
        f"{'long ' * 40},3,,,\n"
        "!!,3,,,\n"
        "piano key,7,high,free,Atlantis\n"
    )
    read = read_demand(text.encode())
    assert [(p.path, p.code) for p in read.problems] == [
        ("line 3", "demand_twice"), ("line 5", "demand_long"), ("line 6", "demand_letters"),
        ("line 7", "demand_price"), ("line 7", "demand_country"), ("line 7", "demand_competition"),
        ("file", "demand_repeated"), ("file", "demand_no_currency"),
    ]  # fmt: skip
    assert all(p.text() for p in read.problems)
    assert list(read.figures.phrases) == ["piano tuning", "piano key"]
    priced = read_demand(text.encode(), Defaults(currency="EUR"))
    assert priced.figures.one(0).price == Decimal("1.2")


def test_months_make_a_series_and_a_mean() -> None:
    months = [f"2025-{m:02}" for m in (11, 12)] + [f"2026-{m:02}" for m in range(1, 12)]
    text = f"query,{','.join(reversed(months))}\nskates,{','.join(map(str, range(13)))}\n"
    read = read_demand(text.encode())
    figure = read.figures.one(0)
    # In the order of the calendar, the last twelve.
    assert figure.months == tuple(range(11, -1, -1))
    assert (figure.low, read.figures.last_month) == (round(sum(range(12)) / 12), "2026-11")
    assert [p.code for p in read.problems] == ["demand_older", "demand_mean"]
    one_cell = read_demand(b"query;trend\nskates;1,2,3,4,5,6,7,8,9,10,11,12\nboots;1,2\n")
    assert one_cell.figures.one(0).months == tuple(range(1, 13))
    assert [p.path for p in one_cell.problems] == ["line 3", "file"]


def test_competition_of_a_hundred_is_told_and_divided() -> None:
    read = read_demand(b"phrase,searches,competition\na tune,1,55\na tone,2,100\n")
    assert [read.figures.one(i).competition for i in range(2)] == [0.55, 1.0]
    assert [p.code for p in read.problems] == ["demand_scale"]


def test_columns_put_right_count() -> None:
    columns = [Column("phrase"), Column("low"), Column("high")]
    read = read_demand(b"phrase,searches,rank\na tune,10,30\n", columns=columns)
    assert (read.figures.one(0).low, read.figures.one(0).high) == (10, 30)


@given(st.binary(max_size=400))
def test_whatever_is_brought_is_read(content: bytes) -> None:
    read = read_demand(content)
    assert read.wrong >= len(read.problems) or read.wrong == 0
    assert all(p.text() for p in read.problems)
    look_at(content)


WORDS = st.lists(st.sampled_from("piano tune harp reed key song".split()), min_size=1, max_size=4)
FIGURES = st.builds(
    Figure,
    WORDS.map(" ".join),
    st.sampled_from([IRISH, Market("", "")]),
    st.integers(0, 10**6) | st.none(),
    st.none(),
    st.just(()) | st.lists(st.integers(0, 9) | st.none(), min_size=12, max_size=12).map(tuple),
    st.none() | st.sampled_from([0.0, 0.25, 1.0]),
    st.none() | st.sampled_from([Decimal("0.5"), Decimal("12.125")]),
    st.just("EUR"),
).map(lambda f: f._replace(high=f.low, currency="EUR" if f.price is not None else ""))


@given(st.lists(FIGURES, max_size=12))
def test_figures_come_back_as_they_were_packed(rows: list[Figure]) -> None:
    rows = [
        r._replace(months=r.months if any(m is not None for m in r.months) else ()) for r in rows
    ]
    back = unpacked(packed(columns_of(rows, "2026-10")))
    assert [back.one(i) for i in range(len(back))] == rows
    assert back.last_month == "2026-10"


@pytest.mark.parametrize(
    ("one", "other", "way"),
    [
        ("piano tuning", "tuning piano", "order"),
        ("wedding card", "wedding cards", "number"),
        ("womens shoe", "woman shoes", "number"),
        ("jewelry box", "jewellery box", "spelling"),
        ("traveling lamp", "travelling lamp", "spelling"),
        ("color card", "colour card", "spelling"),
        ("hourglass", "hour glass", "apart"),
        ("letterpress card", "letter-press card", "apart"),
        ("letterpress cards", "letterpres cards", "slip"),
        ("men's shoe", "mens shoe", "number"),
    ],
)
def test_phrases_that_say_the_same_are_gathered(one: str, other: str, way: str) -> None:
    found = gather([one, other], [2, 1], load_lexicon())
    assert found.heads.tolist() == [0, 0]
    assert found.ways[1] == way
    # The one looked for more is the head, whatever its place.
    assert gather([one, other], [1, 2], load_lexicon()).heads.tolist() == [1, 1]
    assert gather([one, other], [2, 1], load_lexicon(), {other}).heads.tolist() == [0, 1]


@pytest.mark.parametrize(
    ("one", "other"),
    [
        ("flights from cork to galway", "flights from galway to cork"),
        ("four", "for"), ("new", "news"), ("prise", "prize"), ("course", "corse"),
        ("piano tuner", "piano tuning"), ("size chart", "sise chart x"), ("no where", "now here"),
        ("tea without milk", "milk without tea"),
    ],
)  # fmt: skip
def test_phrases_that_say_something_else_are_not(one: str, other: str) -> None:
    assert gather([one, other], [2, 1], load_lexicon()).heads.tolist() == [0, 1]


@given(st.lists(WORDS.map(" ".join), min_size=1, max_size=15, unique=True))
def test_every_phrase_has_one_head(phrases: list[str]) -> None:
    found = gather(phrases, list(range(len(phrases))), load_lexicon())
    heads = found.heads.tolist()
    assert all(heads[head] == head for head in heads)
    assert sorted(at for group in found.variants().values() for at in group) == list(
        range(len(phrases))
    )
    assert all((way == "head") == (heads[at] == at) for at, way in enumerate(found.ways))


PHRASES = (
    "piano tuning", "piano tuning cork", "piano tuning cost", "piano lessons",
    "piano lessons for beginners", "fountain pen", "fountain pen ink",
)  # fmt: skip


def space_of(phrases: tuple[str, ...] = PHRASES) -> Space:
    lexicon = load_lexicon()
    return Space(phrases, lexicon, Folding(lexicon))


def test_groups_follow_the_cut() -> None:
    tree = grow(space_of())
    assert len(set(tree.groups(0).tolist())) == len(PHRASES)
    assert set(tree.groups(1).tolist()) == {0}
    usual = tree.groups(tree.cut).tolist()
    assert usual[5] == usual[6]
    assert usual[5] != usual[0] == usual[1]
    counts = [len(set(tree.groups(cut / 10).tolist())) for cut in range(11)]
    assert counts == sorted(counts, reverse=True)


def test_a_phrase_covers_what_has_its_words_and_part_of_what_is_near() -> None:
    space = space_of()
    demand = np.array([100.0, 50, 30, 200, 20, 10, np.nan])
    shares = covers(space, demand)
    own = covered(space, demand, 0, range(7))
    assert own.within == 2
    assert own.own_share == pytest.approx(100 / 410)
    assert own.within_share == pytest.approx(80 / 410)
    assert shares[0] == pytest.approx(own.share)
    tuning = [0, 1, 2]
    assert head_of(covers(space, demand, tuning), demand, tuning) == 0
    assert covers(space, demand, tuning)[0] == pytest.approx(1)
    assert covers(space, np.zeros(7)).tolist() == [0] * 7
    # What says "near me" covers no more than that, what says "the" as much as without.
    near = space_of(("piano tuning", "the piano tuning", "piano tuning near me"))
    assert near.within([0, 1, 2]).tolist() == [[True] * 3, [True] * 3, [False, False, True]]
    assert covered(space, demand, 5, [5]).share == 1


@given(st.lists(st.integers(0, 1000), min_size=7, max_size=7))
def test_coverage_is_a_share_and_at_least_its_own(demand: list[int]) -> None:
    space, wanted = space_of(), np.array(demand, np.float64)
    whole = wanted.sum() or 1
    for at, share in enumerate(covers(space, wanted).tolist()):
        assert wanted[at] / whole - 1e-6 <= share <= 1 + 1e-6


def test_no_phrase_and_one_phrase_are_trees() -> None:
    assert grow(space_of(())).groups(0.5).tolist() == []
    assert grow(space_of(("piano",))).groups(0.5).tolist() == [0]
    strange = grow(space_of(("qwzx vkly", "vkly qwzx", "zzqx")))
    strange = strange.groups(0.2).tolist()
    assert strange[0] == strange[1] != strange[2]


def test_phrases_are_kept_without_what_is_written_around_them() -> None:
    assert parse_phrase(" [Piano  TUNING] ") == "piano tuning"
    assert parse_phrase("“zoë's”") == "zoë's"
    assert parse_phrase("'=cmd()") == "=cmd()"
    assert parse_phrase("\u200b") == ""


def test_answers_of_a_service_are_hostile_until_read() -> None:
    body = (
        b'{"source":"A|B","last_month":"2026-13","currency":"XXXX","figures":['
        b'{"phrase":"Piano Tuning","searches":12,"competition":2,"click_price":"1"},'
        b'{"phrase":"range","searches":{"from":10,"to":5}},{"phrase":"open","searches":{"from":10}},'
        b'{"phrase":5},7,{"phrase":"bad","searches":"many"},{"phrase":"none","searches":null}]}'
    )
    read = read_answer(body, IRISH)
    assert (read.source, read.last_month, read.passed) == ("A/B", "", 4)
    assert read.figures == (
        Figure("piano tuning", IRISH, 12, 12, (), None, None, ""),
        Figure("open", IRISH, 10, None, (), None, None, ""),
        Figure("none", IRISH, None, None, (), None, None, ""),
    )
    for wrong in (b"", b"[]", b"{}", b'{"figures":5}', b"[" * 100_000):
        with pytest.raises(ServiceError):
            read_answer(wrong, IRISH)
