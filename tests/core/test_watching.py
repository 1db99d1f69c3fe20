"""Watching: what changed, when to ask and to remind, whose turn it is, and in which words."""

from datetime import UTC, datetime, timedelta
from decimal import Decimal
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.checking import STATUSES
from vinetag.core.concepts import HAPPENING_NAMES, OFFER_NAMES
from vinetag.core.watching import (
    NOTHING,
    Seen,
    allowed,
    changes,
    fair_turns,
    next_reminder,
    next_turn,
    read_seen,
    retry_turn,
    sentence,
    write_seen,
)

NOW = datetime(2026, 11, 28, 12, tzinfo=UTC)
HOUR, DAY = timedelta(hours=1), timedelta(days=1)
UTC_ZONE = ZoneInfo("UTC")

moments = st.datetimes(datetime(2024, 1, 1), datetime(2030, 1, 1), timezones=st.just(UTC))  # noqa: DTZ001 - hypothesis adds the zone
prices = st.decimals(Decimal(1), Decimal(10_000), places=2)
seens = st.builds(
    Seen,
    status=st.sampled_from(("", *(s for s in STATUSES if s != "unsure"))),
    expires=st.none() | moments,
    drops_from=st.none() | moments,
    drops_to=st.none() | moments,
    kind=st.sampled_from(("", *OFFER_NAMES)),
    market=st.sampled_from(("", "Hillfair")),
    price=st.none() | prices,
    currency=st.sampled_from(("EUR", "USD")),
    ends=st.none() | moments,
    first_year=st.none() | prices,
    renewal=st.none() | prices,
    terms_currency=st.sampled_from(("", "EUR")),
)


@given(seens)
def test_what_is_known_comes_back_as_it_was_and_tells_nothing_of_itself(seen: Seen) -> None:
    assert read_seen(write_seen(seen)) == seen
    assert changes(seen, seen) == []
    assert changes(NOTHING, seen) == changes(seen, NOTHING) == []


@given(seens, seens)
def test_what_a_change_tells_can_be_said(before: Seen, after: Seen) -> None:
    told = changes(before, after)
    assert len({one.what for one in told}) == len(told)
    assert all(one.what in HAPPENING_NAMES and one.before != one.after for one in told)
    only = changes(before, after, expiry_only=True)
    assert {one.what for one in only} <= {"status", "expires", "drops"}
    assert {one.what for one in only} <= {one.what for one in told}
    for one in told:
        args = {"name": "inkpost.ie", "before": one.before, "after": one.after}
        words = sentence(one.what, args, UTC_ZONE)
        assert "inkpost.ie" in words
        assert words.endswith(".")
        assert "  " not in words


def test_another_version_s_notes_are_nothing_known() -> None:
    assert read_seen({"status": 3}) == NOTHING
    assert read_seen({"price": "call"}) == NOTHING
    assert read_seen({"from": "later", "status": "open"}) == Seen(status="open")


@pytest.mark.parametrize(
    ("before", "after", "told"),
    [
        (Seen("taken"), Seen("open"), [("status", "taken", "open")]),
        (
            Seen("offered", kind="fixed", price=Decimal(1200), currency="EUR"),
            Seen("offered", kind="fixed", price=Decimal(900), currency="EUR"),
            [("price", "1200.00 EUR", "900.00 EUR")],
        ),
        # Bids rise by themselves.
        (
            Seen("offered", kind="auction", price=Decimal(50), currency="EUR", ends=NOW),
            Seen("offered", kind="auction", price=Decimal(70), currency="EUR", ends=NOW),
            [],
        ),
        (
            Seen("offered", kind="auction", ends=NOW),
            Seen("offered", kind="auction", ends=NOW + HOUR),
            [("extended", NOW.isoformat(), (NOW + HOUR).isoformat())],
        ),
        (
            Seen("offered", kind="fixed", price=Decimal(5), currency="EUR"),
            Seen("offered", kind="auction", ends=NOW),
            [("kind", "fixed", "auction")],
        ),
        # A list that tells no price any more has not lowered it.
        (
            Seen("offered", kind="fixed", price=Decimal(5), currency="EUR"),
            Seen("offered", kind="asking"),
            [("kind", "fixed", "asking")],
        ),
        (
            Seen("taken", expires=NOW),
            Seen("taken", expires=NOW + 365 * DAY),
            [("expires", NOW.isoformat(), (NOW + 365 * DAY).isoformat())],
        ),
        (Seen("taken", expires=NOW), Seen("taken", expires=NOW + HOUR), []),
        (
            Seen("premium", first_year=Decimal(80), terms_currency="EUR"),
            Seen("premium", first_year=Decimal(60), terms_currency="EUR"),
            [("terms", "80.00 EUR", "60.00 EUR")],
        ),
    ],
)
def test_what_is_told(before: Seen, after: Seen, told: list[tuple[str, str, str]]) -> None:
    assert [(one.what, one.before, one.after) for one in changes(before, after)] == told


def test_a_range_that_drifts_with_the_day_is_not_told_every_day() -> None:
    """Where nothing dates a state, its range begins today, whichever day that is."""
    first = Seen("dropping", drops_from=NOW, drops_to=NOW + 35 * DAY)
    for days in range(1, 17):
        later = Seen("dropping", drops_from=NOW + days * DAY, drops_to=NOW + (days + 35) * DAY)
        assert changes(first, later) == []
    dated = Seen("dropping", drops_from=NOW + 30 * DAY, drops_to=NOW + 31 * DAY)
    assert changes(first, dated) == []
    assert [c.what for c in changes(dated, first)] == ["drops"]


def test_expiry_alone_tells_nothing_of_offers() -> None:
    taken, offered = Seen("taken", expires=NOW), Seen("offered", expires=NOW, kind="fixed")
    assert changes(taken, offered, expiry_only=True) == []
    dropping = Seen("dropping", expires=NOW)
    assert [c.what for c in changes(offered, dropping, expiry_only=True)] == ["status"]
    assert [c.what for c in changes(dropping, taken, expiry_only=True)] == ["status"]


@given(seens, moments)
def test_nobody_is_asked_more_than_four_times_an_hour(seen: Seen, asked: datetime) -> None:
    turn = next_turn(seen, asked)
    assert timedelta(minutes=10) <= turn.at - asked <= 31 * DAY
    if turn.at - asked < HOUR and seen.status and not turn.urgent:
        # Sooner than in an hour only what is urgent.
        raise AssertionError(turn)


@pytest.mark.parametrize(
    ("seen", "hours", "urgent"),
    [
        (NOTHING, 1 / 6, False),
        (Seen("open"), 24, False),
        (Seen("taken"), 7 * 24, False),
        (Seen("taken", expires=NOW + 32 * DAY), 2 * 24, False),
        (Seen("taken", expires=NOW + 10 * DAY), 24, False),
        (Seen("taken", expires=NOW + 3 * HOUR), 4, False),
        (Seen("taken", expires=NOW - DAY), 12, False),
        (Seen("offered"), 3 * 24, False),
        (Seen("offered", ends=NOW + 3 * HOUR), 3 + 1 / 6, True),
        (Seen("offered", ends=NOW - 3 * HOUR), 6, False),
        (Seen("dropping"), 12, False),
        (Seen("dropping", drops_from=NOW + 20 * DAY, drops_to=NOW + 21 * DAY), 24, False),
        (Seen("dropping", drops_from=NOW + 10 * HOUR, drops_to=NOW + 34 * HOUR), 5, False),
        (Seen("dropping", drops_from=NOW - HOUR, drops_to=NOW + 20 * HOUR), 1 / 4, True),
        (Seen("dropping", drops_from=NOW - DAY, drops_to=NOW + 40 * DAY), 2, True),
    ],
)
def test_sooner_near_a_date_and_seldom_otherwise(seen: Seen, hours: float, urgent: bool) -> None:
    turn = next_turn(seen, NOW)
    assert turn.at - NOW == timedelta(hours=hours)
    assert turn.urgent is urgent


def test_what_fails_is_tried_less_and_less_often() -> None:
    waits = [retry_turn(NOW, n).at - NOW for n in range(12)]
    assert waits[0] == timedelta(minutes=10)
    assert waits == sorted(waits)
    assert waits[-1] == 6 * HOUR


@given(
    st.dictionaries(st.integers(0, 8), st.lists(st.integers(), max_size=30), max_size=6),
    st.dictionaries(st.integers(0, 8), st.integers(-3, 20)),
    st.integers(0, 60),
)
def test_turns_are_fair(due: dict[int, list[int]], left: dict[int, int], places: int) -> None:
    turns = fair_turns(due, left, places)
    had = {who: [item for one, item in turns if one == who] for who in due}
    assert len(turns) <= places
    for who, items in due.items():
        most = max(0, left.get(who, 0))
        assert had[who] == items[: len(had[who])]
        assert len(had[who]) <= most
        # Who had fewer than another wanted no more, or may have no more.
        fewer = any(len(had[who]) < len(others) - 1 for others in had.values())
        assert not fewer or len(had[who]) == min(len(items), most)
    wanted = sum(min(len(items), max(0, left.get(who, 0))) for who, items in due.items())
    assert len(turns) == min(places, wanted)


@given(st.integers(0, 10_000), st.floats(0, 1))
def test_a_budget_keeps_something_for_what_is_urgent(budget: int, passed: float) -> None:
    ordinary = allowed(budget, passed, urgent=False)
    assert 0 <= ordinary <= 0.75 * budget <= allowed(budget, passed, urgent=True) == budget
    assert ordinary >= int(allowed(budget, 0.0, urgent=False))


def test_reminders_come_before_and_once() -> None:
    auction = Seen("offered", kind="auction", ends=NOW + 2 * DAY)
    first = next_reminder(auction, NOW, expiry=False)
    assert first is not None
    assert (first.at, first.of) == (NOW + DAY, "ends")
    second = next_reminder(auction, first.at, expiry=False)
    assert second is not None
    assert second.at == NOW + 2 * DAY - HOUR
    assert next_reminder(auction, second.at, expiry=False) is None
    taken = Seen("taken", expires=NOW + 20 * DAY)
    assert next_reminder(taken, NOW, expiry=False) is None
    soon = next_reminder(taken, NOW, expiry=True)
    assert soon is not None
    assert soon.before == 7 * DAY


def test_sentences_are_in_the_person_s_zone() -> None:
    args = {"name": "inkpost.ie", "of": "ends", "before": "", "after": NOW.isoformat()}
    dublin = sentence("near", args, ZoneInfo("Europe/Stockholm"))
    assert dublin == "The auction of inkpost.ie ends on 28 November 2026, 13:00 CET."
    found = {"title": "quiet", "count": 12, "names": [f"n{i}.com" for i in range(10)]}
    assert sentence("found", found, UTC_ZONE) == (
        "12 names new in “quiet”: n0.com, n1.com, n2.com, n3.com, n4.com and 7 more."
    )
    price = {"name": "inkpost.ie", "before": "12000.00 EUR", "after": "900.00 EUR"}
    assert sentence("price", price, UTC_ZONE) == (
        "inkpost.ie is offered for 900.00 EUR now; it was 12,000.00 EUR."
    )
    listed = {"name": ".ie", "seller": "Larkspur", "action": "renew", "before": "", "after": ""}
    for before, after, words in (
        ("9.00 EUR", "8.00 EUR", ".ie costs 8.00 EUR to renew at Larkspur now; it was 9.00 EUR."),
        ("", "8.00 EUR", ".ie costs 8.00 EUR to renew at Larkspur."),
        ("9.00 EUR", "", ".ie is not listed by Larkspur any more; it was 9.00 EUR to renew."),
    ):
        assert sentence("listed", {**listed, "before": before, "after": after}, UTC_ZONE) == words
    assert sentence("of later", {"title": "x"}, UTC_ZONE) == "Something changed of x."


@given(
    st.sampled_from(HAPPENING_NAMES),
    st.fixed_dictionaries(
        {name: st.text(max_size=30) for name in ("name", "before", "after", "seller", "title")},
        optional={
            "names": st.lists(st.text(max_size=20), max_size=8),
            "count": st.integers(0, 10**6),
            "of": st.text(max_size=8),
            "more": st.text(max_size=20),
            "range": st.text(max_size=40),
            "action": st.text(max_size=8),
        },
    ),
)
def test_whatever_was_kept_can_be_told(what: str, args: dict[str, object]) -> None:
    """Other versions kept other words: a letter or a feed is never held up by one of them."""
    told = sentence(what, args, UTC_ZONE)
    assert told.rstrip().endswith((".", "…")) or told.strip()
