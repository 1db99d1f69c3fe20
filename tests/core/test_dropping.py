"""When a name on its way out may become open, by the rules of its extension."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.checking import drop_rules, likely_drop

NOW = datetime(2026, 11, 29, 12, tzinfo=UTC)
DAY = timedelta(days=1)


def test_a_drop_by_hand() -> None:
    # Deleted ten days ago: 20 days of redemption and 5 until it is released are left.
    drop = likely_drop("com", ["redemption period"], NOW, changed=NOW - 10 * DAY)
    assert drop is not None
    assert (drop.state, drop.known) == ("redemption", True)
    assert drop.earliest == datetime(2026, 12, 24, 18, tzinfo=UTC)
    assert drop.latest == datetime(2026, 12, 24, 20, tzinfo=UTC)
    assert drop.middle == datetime(2026, 12, 24, 19, tzinfo=UTC)
    # Run out yesterday: renewed within 45 days, or not.
    drop = likely_drop("com", [], NOW, expires=NOW - DAY)
    assert drop is not None
    assert drop.state == "expired"
    assert drop.earliest.date().isoformat() == "2027-01-02"
    assert drop.latest.date().isoformat() == "2027-02-16"
    assert likely_drop("com", ["active"], NOW, expires=NOW + DAY) is None
    assert likely_drop("com", [], NOW) is None
    # Released soon, since yesterday; and one of which only is told when it ran out.
    drop = likely_drop("com", ["pending delete"], NOW, changed=NOW - DAY)
    assert drop is not None
    assert drop.earliest == datetime(2026, 12, 3, 18, tzinfo=UTC)
    vague = likely_drop("com", ["redemption period"], NOW, expires=NOW - 60 * DAY)
    assert vague is not None
    assert vague.earliest.date() == NOW.date()
    assert vague.latest.date().isoformat() == "2026-12-19"
    # Dates at the end of the calendar break nothing.
    far = datetime(9999, 12, 30, tzinfo=UTC)
    assert likely_drop("com", ["pending delete"], far, changed=far) is None


@given(
    st.sampled_from([*drop_rules(), "studio"]),
    st.sampled_from(["redemption period", "pending delete", "auto renew period"]),
    st.none() | st.integers(0, 60),
    st.none() | st.integers(0, 60),
)
def test_a_drop_is_a_range_that_is_not_over(
    extension: str, status: str, ran_out: int | None, changed: int | None
) -> None:
    drop = likely_drop(
        extension, [status], NOW,
        expires=None if ran_out is None else NOW - ran_out * DAY,
        changed=None if changed is None else NOW - changed * DAY,
    )  # fmt: skip
    assert drop is not None
    assert drop.earliest <= drop.latest
    assert drop.latest >= NOW.replace(hour=0)
    assert drop.known == (extension in drop_rules())
    # What is not known makes it wider, never narrower.
    begun = ran_out if status == "auto renew period" else changed
    if begun is not None:
        vague = likely_drop(extension, [status], NOW)
        assert vague is not None
        assert vague.latest - vague.earliest >= drop.latest - drop.earliest - DAY


def test_rules_are_of_whole_days_and_hours() -> None:
    for rule in drop_rules().values():
        for low, high in (rule.grace, rule.redemption, rule.pending):
            assert 0 <= low <= high <= 120
        assert 0 <= rule.hours[0] < rule.hours[1] <= 24
