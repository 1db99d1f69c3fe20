"""How fast names go: the estimator by hand, its range, and when half will be gone."""

from __future__ import annotations

from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.market.going import AFTER, LEAST, Seen, going, half_gone

DAY = date(2026, 11, 1)


def test_the_estimator_by_hand() -> None:
    # 40 names: four taken on the 5th day, ten followed for 10 days only, three of the 26 left
    # taken on the 20th day, the others followed for 100 days.
    seen = [Seen(5, True)] * 4 + [Seen(10, False)] * 10 + [Seen(20, True)] * 3
    seen += [Seen(100, False)] * 23
    week, month, quarter = going(seen)
    assert week.share == pytest.approx(4 / 40)
    # 36 were left, of whom 26 were still followed: 36/40 by 23/26.
    assert month.share == quarter.share == pytest.approx(1 - 36 / 40 * 23 / 26)
    assert (week.days, month.days, quarter.days) == AFTER
    assert week.names == 40
    for one in (week, month, quarter):
        assert 0 < one.low < one.share < one.high < 1
    assert month.high - month.low > 0.1


def test_few_names_say_nothing_and_nobody_is_followed_further_than_they_were() -> None:
    assert going([Seen(50, True)] * (LEAST - 1)) == []
    assert going([Seen(0, True)] * 100) == []
    assert [g.days for g in going([Seen(10, n % 2 == 0) for n in range(60)])] == [7]


def test_where_none_was_taken_the_range_says_how_many_may_be() -> None:
    [week, month] = going([Seen(40, False)] * 100)
    assert (week.share, week.low) == (0, 0)
    # The rule of three: about 3 in 100 with 95 % confidence.
    assert week.high == month.high == pytest.approx(0.03, abs=0.003)


@given(st.lists(st.builds(Seen, st.floats(0.1, 200), st.booleans()), min_size=LEAST, max_size=80))
def test_shares_rise_and_lie_in_their_range(seen: list[Seen]) -> None:
    found = going(seen)
    assert [one.share for one in found] == sorted(one.share for one in found)
    for one in found:
        assert 0 <= one.low <= one.share + 1e-9
        assert one.share - 1e-9 <= one.high <= 1
    if all(one.taken for one in seen):
        for one in found:
            assert one.share == pytest.approx(sum(s.days <= one.days for s in seen) / len(seen))


def weeks(*taken: int) -> tuple[list[date], list[int]]:
    return [DAY + timedelta(weeks=n) for n in range(len(taken))], list(taken)


def test_a_straight_line_goes_on() -> None:
    days, taken = weeks(100, 110, 120, 130)
    half = half_gone(days, taken, 1_000)
    assert half is not None
    # 370 more, ten a week: 37 weeks after the last day; on a line there is no range.
    assert half.day == half.earliest == half.latest == days[-1] + timedelta(weeks=37)


def test_what_wavers_has_a_range_and_what_does_not_grow_no_day() -> None:
    days, taken = weeks(100, 130, 135, 170, 180)
    half = half_gone(days, taken, 1_000)
    assert half is not None
    assert half.day is not None
    assert half.earliest is not None
    assert half.earliest < half.day
    assert half.latest is None or half.latest > half.day
    still = half_gone(*weeks(100, 100, 100), 1_000)
    assert still is not None
    assert (still.day, still.earliest, still.latest) == (None, None, None)
    assert half_gone(*weeks(100, 110), 1_000) is None
    assert half_gone(*weeks(400, 450, 500), 1_000) is None
