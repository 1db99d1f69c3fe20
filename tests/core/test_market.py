"""Offers and drops: when a name becomes open, questions of the hunt, how near words are."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.brief import parse_brief
from vinetag.core.checking import SOURCES, Evidence, in_words, verdict
from vinetag.core.concepts import OFFER_KINDS, PAST_USES
from vinetag.core.errors import QuestionError
from vinetag.core.lexicon import load_lexicon
from vinetag.core.market import (
    HUNT_SORTS,
    Offer,
    ended,
    parse_hunt,
    risk_of,
)
from vinetag.core.market.markets import MarketsError, read_markets
from vinetag.core.market.nearness import word_nearness
from vinetag.core.names import FullName
from vinetag.core.world.world import world_of

NOW = datetime(2026, 11, 29, 12, tzinfo=UTC)
DAY = timedelta(days=1)


@pytest.mark.parametrize(
    ("asked", "path"),
    [
        ({"kinds": "fixed,barter"}, "kinds"),
        ({"price_max": "cheap"}, "price_max"),
        ({"within": "0"}, "within"),
        ({"sort": "luck"}, "sort"),
        ({"extensions": "c'om"}, "extensions"),
        ({"markets": "a;drop table"}, "markets"),
        ({"also": ",".join(f"e{n}x" for n in range(30))}, "also"),
        ({"text": "x" * 64}, "text"),
        ({"letters_min": "64"}, "letters_min"),
    ],
)  # fmt: skip
def test_what_makes_no_sense_is_told_at_its_field(asked: dict[str, str], path: str) -> None:
    with pytest.raises(QuestionError) as refused:
        parse_hunt(asked)
    assert [problem.path for problem in refused.value.problems] == [path]


@given(
    st.dictionaries(st.sampled_from(["sort", "kinds", "extensions", "text", "within"]), st.text())
)
def test_any_address_is_a_question_or_refused(asked: dict[str, str]) -> None:
    try:
        assert parse_hunt(asked).sort in HUNT_SORTS
    except QuestionError as error:
        assert set(asked) >= {problem.path for problem in error.problems}  # noqa: PT017 - either


def offer(kind: str, **more: object) -> Offer:
    return Offer(FullName("inkpost", "com"), "oldgate", kind, NOW, **more)  # type: ignore[arg-type]


def test_what_is_over_is_over() -> None:
    assert ended(offer("auction", ends=NOW), NOW)
    assert not ended(offer("auction", ends=NOW + DAY), NOW)
    assert ended(offer("dropping", drops_from=NOW - DAY, drops_to=NOW), NOW)
    assert not ended(offer("dropping"), NOW)
    assert not ended(offer("fixed", ends=NOW - DAY), NOW)
    assert risk_of("adult") == PAST_USES["adult"].risk != ""
    assert risk_of("site") == risk_of("") == risk_of("whatever") == ""
    assert {kind for kind, told in OFFER_KINDS.items() if told.priced} == {"fixed"}


@pytest.mark.parametrize(
    ("evidence", "status", "likely"),
    [
        ({"rdap": "registered", "market": "offered"}, "offered", False),
        ({"rdap": "registered", "market": "dropping"}, "taken", False),
        ({"rdap": "dropping", "market": "offered"}, "dropping", False),
        ({"rdap": "unregistered", "market": "offered"}, "open", False),
        ({"dns": "delegated", "market": "offered"}, "offered", False),
        ({"dns": "delegated", "market": "dropping"}, "dropping", True),
        ({"dns": "delegated", "quote": "offered", "market": "dropping"}, "offered", False),
    ],
)  # fmt: skip
def test_a_market_adds_to_what_is_registered_and_never_opens_a_name(
    evidence: dict[str, str], status: str, likely: bool
) -> None:
    said = {s: Evidence(s, says, NOW) for s, says in evidence.items()}  # type: ignore[arg-type]
    found = verdict(said, said.keys())  # type: ignore[arg-type]
    assert (found.status, found.likely) == (status, likely)
    assert SOURCES["market"].authority == "market"


def test_a_market_is_told_in_its_own_words() -> None:
    said = Evidence("market", "offered", NOW, detail="auction at Hillfair, 3 bids")
    assert in_words(said) == "Auction at Hillfair, 3 bids."
    assert in_words(Evidence("market", "dropping", NOW)).startswith("A market")


def test_words_near_a_brief_are_nearer_than_others() -> None:
    lexicon = load_lexicon()
    brief = parse_brief(
        {"about": "a monthly letterpress stationery club",
         "keywords": [{"text": "paper"}, {"text": "ink"}]}
    )  # fmt: skip
    words = ["paper", "envelope", "tractor", "the", "ink", "murder", "qqq"]
    near = dict(
        zip(
            words,
            word_nearness(world_of(brief, lexicon), {"paper": 1.0, "ink": 0.5}, words, {"murder"}),
            strict=True,
        )
    )
    assert near["paper"] == 1.0
    assert near["ink"] == 0.5
    assert 1 > near["envelope"] > near["tractor"] >= 0
    assert near["the"] <= 0.15
    assert near["murder"] < 0
    assert near["qqq"] == 0


def test_a_document_of_markets_is_read_or_refused() -> None:
    entry = {"code": "oldgate", "name": "Oldgate", "list": "/list.csv", "more": 1}
    assert [m.code for m in read_markets({"markets": [entry]})] == ["oldgate"]
    for bad in ({}, [], {"markets": [{**entry, "code": "../x"}]}, {"markets": [{"code": "a"}]}):
        with pytest.raises(MarketsError):
            read_markets(bad)
