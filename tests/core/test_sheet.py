"""Narrowing, counting and ordering a list of names."""

import math
from dataclasses import replace
from decimal import Decimal
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from vinetag.core.brief import MEASURE_NAMES, RECIPE_NAMES
from vinetag.core.candidates import Candidate, Part
from vinetag.core.errors import QuestionError
from vinetag.core.facts import Facts, facts_of
from vinetag.core.lexicon import load_lexicon
from vinetag.core.sheet import (
    LATER,
    SEEN,
    SPANS,
    Columns,
    Line,
    ListPrice,
    NameQuote,
    Narrowing,
    Question,
    SheetPrices,
    name_costs,
    parse_question,
)
from vinetag.core.sheet.columns import ADDED_NAMES, DISMISSED, KEPT, STATUS_NAMES

BRIEF = ("com", "ie")


def line(label: str, **told: Any) -> Line:
    usual: dict[str, Any] = {
        "grade": 70.0, "letters": len(label), "syllables": 2, "words": 2, "scores": {},
        "recipes": ["pair"], "added": [],
    }  # fmt: skip
    return Line(label, **{**usual, **told})


@pytest.fixture
def columns() -> Columns:
    """Five names, best first, by hand."""
    return Columns(
        [
            line("inkpost", grade=90, scores={"fit": 80, "sound": 50}),
            line("inknest", grade=85, recipes=["tail"], added=["noun"], scores={"fit": 60}),
            line("goink", grade=80, recipes=["lead", "pair"], added=["verb"], syllables=2),
            line("ink-post", grade=60, recipes=["hyphen"], letters=7),
            line("inq4", grade=40, recipes=["respell"], words=1, syllables=0),
        ]
    )


def left(columns: Columns, **asked: Any) -> list[str]:
    found = Narrowing(columns, replace(Question(), **asked), BRIEF)
    return [columns.labels[i] for i in found.order]


@pytest.mark.parametrize(
    ("asked", "names"),
    [
        ({"text": "nkp"}, ["inkpost"]),
        ({"starts": "in", "ends": "t"}, ["inkpost", "inknest", "ink-post"]),
        ({"letters_max": 5}, ["goink", "inq4"]),
        ({"words_min": 2, "syllables_min": 1, "letters_min": 8}, []),
        ({"grade_min": 80.0}, ["inkpost", "inknest", "goink"]),
        ({"least": (("fit", 70.0),)}, ["inkpost"]),
        ({"recipes": ("lead", "respell")}, ["goink", "inq4"]),
        ({"added": ("noun", "verb")}, ["inknest", "goink"]),
        ({"hyphen": "yes"}, ["ink-post"]),
        ({"digit": "no", "hyphen": "no", "letters_max": 6}, ["goink"]),
    ],
)
def test_each_filter_leaves_what_it_says(
    columns: Columns, asked: dict[str, Any], names: list[str]
) -> None:
    assert left(columns, **asked) == names


# As if nobody listed anything: quotes alone, in euros.
QUOTED = SheetPrices("EUR", 5, {}, {"EUR": 1.0, "SEK": 0.1}, "quoted")


def test_statuses_and_prices_narrow(columns: Columns) -> None:
    assert columns.has_prices(QUOTED)
    assert not columns.has_prices(QUOTED)
    columns.answer("inkpost", "com", "open", Decimal("19.999"), "EUR")
    columns.answer("inkpost", "ie", "taken", Decimal(9), "EUR")
    columns.answer("inknest", "com", "open")
    columns.answer("inknest", "ie", "premium", Decimal(300), "EUR")
    columns.answer("goink", "ie", "unsure")
    columns.answer("elsewhere", "com", "open", Decimal(1), "EUR")
    assert left(columns, open_in=("any",)) == ["inkpost", "inknest"]
    assert left(columns, open_in=("all",)) == []
    assert left(columns, open_in=("com",), status=("premium",)) == ["inknest"]
    assert left(columns, status=("not asked",)) == ["goink", "ink-post", "inq4"]
    assert left(columns, price_max=Decimal(20)) == ["inkpost"]
    assert left(columns, price_max=Decimal("19.99")) == []
    assert left(columns, sort=".ie")[:3] == ["inknest", "goink", "ink-post"]
    assert left(columns, sort="price")[:2] == ["inkpost", "inknest"]
    columns.answer("inknest", "ie", "open", Decimal(30), "EUR")
    assert left(columns, open_in=("com", "ie"), open_all=True) == ["inknest"]


def test_marks_narrow_and_dismissed_names_stay_away(columns: Columns) -> None:
    columns.mark(KEPT, ["inkpost", "nowhere"])
    columns.mark(DISMISSED, ["inknest"])
    columns.looked("goink", LATER)
    columns.looked("ink-post", SEEN)
    assert left(columns) == ["inkpost", "goink", "ink-post", "inq4"]
    assert left(columns, mark="kept") == ["inkpost"]
    assert left(columns, mark="later") == ["goink"]
    assert left(columns, mark="fresh") == ["inq4"]
    assert left(columns, mark="dismissed") == ["inknest"]
    columns.mark(DISMISSED, [])
    columns.looked("goink", 0)
    assert left(columns, mark="fresh") == ["inknest", "goink", "inq4"]


def test_orders(columns: Columns) -> None:
    assert left(columns, sort="name") == sorted(columns.labels)
    assert left(columns, sort="letters")[:2] == ["inq4", "goink"]
    assert left(columns, sort="fit") == ["inkpost", "inknest", "goink", "ink-post", "inq4"]
    # Unknown figures stand last, whichever way it is turned.
    assert left(columns, sort="fit", reverse=True)[:2] == ["inknest", "inkpost"]
    assert left(columns, sort="syllables")[-1] == "inq4"
    assert left(columns, sort="syllables", reverse=True)[-1] == "inq4"


def test_facts_by_hand() -> None:
    parts = (Part("go", "lead", "", 0), Part("piano", "keyword", "piano", 2))
    assert facts_of(Candidate("gopiano", ("lead",), parts, 1.0), load_lexicon()) == Facts(
        4, 2, ("verb",)
    )
    hyphened = (
        Part("ink", "keyword", "ink", 0),
        Part("-", "hyphen", "", 3),
        Part("nest", "tail", "", 4),
    )
    assert facts_of(Candidate("ink-nest", (), hyphened, 1.0), load_lexicon()) == Facts(
        2, 2, ("noun",)
    )


WORDS = st.text("abi4-", min_size=1, max_size=5)
SCORES = st.dictionaries(st.sampled_from(MEASURE_NAMES), st.integers(0, 100).map(float))
LINES = st.lists(
    st.builds(
        Line,
        label=WORDS,
        grade=st.integers(0, 100).map(float),
        letters=st.integers(1, 9),
        syllables=st.integers(0, 3),
        words=st.integers(0, 3),
        scores=SCORES,
        recipes=st.lists(st.sampled_from(RECIPE_NAMES), unique=True),
        added=st.lists(st.sampled_from(ADDED_NAMES), unique=True),
    ),
    max_size=12,
    unique_by=lambda row: row.label,
)
AMOUNTS = st.integers(0, 90_000)
PRICES = st.builds(
    SheetPrices,
    currency=st.just("EUR"),
    years=st.integers(1, 10),
    listed=st.dictionaries(
        st.sampled_from(BRIEF), st.builds(ListPrice, AMOUNTS, st.none() | AMOUNTS, AMOUNTS)
    ),
    worth=st.dictionaries(st.sampled_from(["EUR", "SEK"]), st.floats(0.01, 30)),
    edition=st.just("drawn"),
)
QUESTIONS = st.builds(
    Question,
    sort=st.sampled_from(["best", "name", "letters", "sound", ".com", "price", "whole"]),
    reverse=st.booleans(),
    text=st.sampled_from(["", "a", "b4"]),
    letters_max=st.none() | st.integers(1, 9),
    syllables_min=st.none() | st.integers(0, 2),
    grade_min=st.none() | st.integers(0, 100).map(float),
    least=st.lists(st.tuples(st.sampled_from(MEASURE_NAMES), st.just(50.0)), max_size=2).map(tuple),
    recipes=st.lists(st.sampled_from(RECIPE_NAMES), max_size=2).map(tuple),
    open_in=st.sampled_from([(), ("any",), ("all",), ("com",), ("com", "ie")]),
    open_all=st.booleans(),
    status=st.lists(st.sampled_from(STATUS_NAMES), max_size=2).map(tuple),
    hyphen=st.sampled_from(["", "yes", "no"]),
    premium=st.sampled_from(["", "yes", "no"]),
    mark=st.sampled_from(["", "kept", "dismissed"]),
)


@given(LINES, QUESTIONS, st.data())
@settings(max_examples=60, deadline=None)
def test_counts_are_what_the_filters_then_leave(
    lines: list[Line], question: Question, data: st.DataObject
) -> None:
    columns = Columns(lines)
    prices = data.draw(PRICES)
    columns.has_prices(prices)
    known: dict[str, dict[str, NameQuote]] = {row.label: {} for row in lines}
    for row in lines:
        status = data.draw(st.sampled_from([*STATUS_NAMES[1:], ""]))
        currency = data.draw(st.sampled_from(["EUR", "SEK", ""]))
        later = data.draw(st.none() | st.decimals(0, 90, places=2))
        extension = data.draw(st.sampled_from(BRIEF))
        columns.answer(row.label, extension, status, Decimal(10), currency, later)
        if status:
            known[row.label][extension] = NameQuote(status, Decimal(10), later, currency)
    columns.mark(
        KEPT, data.draw(st.sets(st.sampled_from(columns.labels)) if lines else st.just(()))
    )
    narrowing = Narrowing(columns, question, BRIEF)
    counts = narrowing.counts()

    def total(**instead: Any) -> int:
        return Narrowing(columns, replace(question, **instead), BRIEF).total

    assert counts.total == narrowing.total == len(set(narrowing.order.tolist()))
    for name, count in counts.choices["recipes"].items():
        assert total(recipes=(name,)) == count
    for name, count in counts.choices["open_in"].items():
        assert total(open_in=(name,), open_all=False) == count
    for name, count in counts.choices["status"].items():
        assert total(status=(name,)) == count
    for name, count in counts.choices["mark"].items():
        assert total(mark=name) == count
    for name in ("yes", "no"):
        assert total(digit=name) == counts.choices["digit"][name]
    for score in (0, 35, 95):
        assert total(grade_min=float(score)) == counts.least["grade"][score]
    short = sum(n for value, n in counts.values["letters"].items() if value <= 4)
    assert total(letters_min=None, letters_max=4) == short
    for name in ("price", "later", "whole"):
        assert total(**{f"{name}_max": Decimal(50)}) == counts.prices[name][50]
    for name in ("yes", "no"):
        assert total(premium=name) == counts.choices["premium"][name]
    # One name alone costs what it does among all of them.
    for span in SPANS:
        for premium in (True, False):
            amounts = columns.costs(span, BRIEF, premium=premium).tolist()
            for row, amount in zip(lines, amounts, strict=True):
                alone = name_costs(prices, known[row.label], BRIEF, premium=premium)[span]
                assert amount == (alone.amount if alone else math.inf)


def test_prices_of_other_currencies_are_converted_or_not_known(columns: Columns) -> None:
    assert left(columns, price_max=Decimal(1)) == []
    columns.has_prices(QUOTED)
    columns.answer("inkpost", "com", "open", Decimal(90), "SEK")
    columns.answer("inknest", "com", "open", Decimal(30), "EUR")
    columns.answer("goink", "ie", "open", Decimal("10.10"), "EUR", Decimal(50))
    columns.answer("inq4", "com", "open", Decimal(1), "XAU")
    assert left(columns, sort="price")[:3] == ["inkpost", "goink", "inknest"]
    assert left(columns, price_max=Decimal(10)) == ["inkpost"]
    assert left(columns, price_min=Decimal(9), price_max=Decimal(20)) == ["inkpost", "goink"]
    # Each later year costs what the first does, where nothing else is said.
    assert left(columns, later_max=Decimal(9)) == ["inkpost"]
    assert left(columns, whole_min=Decimal(150), whole_max=Decimal(151)) == ["inknest"]
    assert left(columns, sort="whole")[:3] == ["inkpost", "inknest", "goink"]
    dollars = replace(QUOTED, currency="USD", worth={"EUR": 2.0}, edition="dollars")
    columns.has_prices(dollars)
    assert left(columns, price_max=Decimal(60)) == ["inknest", "goink"]


LISTED = SheetPrices(
    "EUR", 3,
    {"com": ListPrice(2_000, 15_000, 32_000, "Lantern"), "ie": ListPrice(9_000, None, 20_000)},
    {"EUR": 1.0}, "listed",
)  # fmt: skip


def test_lists_tell_what_usual_names_cost_and_quotes_what_premium_ones_do(
    columns: Columns,
) -> None:
    columns.has_prices(LISTED)
    columns.answer("inkpost", "com", "premium", Decimal(300), "EUR")
    columns.answer("inkpost", "ie", "taken")
    columns.answer("inknest", "com", "premium", Decimal(300), "EUR")
    columns.answer("goink", "com", "open", Decimal(1), "EUR", Decimal(2))
    columns.answer("goink", "ie", "reserved")
    for label in ("ink-post", "inq4"):
        columns.answer(label, "com", "taken")
        columns.answer(label, "ie", "taken")
    assert left(columns, price_max=Decimal(1)) == ["goink"]
    assert left(columns, whole_max=Decimal(20)) == ["inknest", "goink"]
    assert left(columns, later_min=Decimal(0)) == ["inkpost", "inknest", "goink"]
    # What is premium everywhere it can be had is left out; its price elsewhere counts.
    assert left(columns, premium="no", whole_max=Decimal(900)) == ["inknest", "goink"]
    assert left(columns, premium="yes") == ["inkpost", "inknest"]
    assert left(columns, premium="yes", price_max=Decimal(9)) == ["inknest"]


def test_an_address_is_read_and_nonsense_is_told_field_by_field() -> None:
    given_fields = {
        "sort": ".ie", "reverse": "1", "text": "INK", "least": "fit:60,sound:40",
        "open_in": ".com,ie", "status": "open,not asked", "letters_max": "9", "offset": "100",
    }  # fmt: skip
    question = parse_question(given_fields, BRIEF)
    assert question == Question(
        sort=".ie", reverse=True, text="ink", least=(("fit", 60.0), ("sound", 40.0)),
        open_in=("com", "ie"), status=("open", "not asked"), letters_max=9,
    )  # fmt: skip
    wrong = {
        "sort": "luck", "letters_min": "few", "least": "fit:120", "open_in": "zz", "mark": "blue",
        "text": "a" * 64,
    }  # fmt: skip
    with pytest.raises(QuestionError) as refused:
        parse_question(wrong, BRIEF)
    assert {p.path for p in refused.value.problems} == wrong.keys()
