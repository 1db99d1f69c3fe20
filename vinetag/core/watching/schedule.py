"""When a watched name is asked about again, and whose names have their turn."""

from __future__ import annotations

from collections import deque
from collections.abc import Mapping, Sequence
from datetime import datetime, timedelta
from typing import Final, NamedTuple, TypeVar

from vinetag.core.watching.seen import Seen

__all__ = ["Turn", "allowed", "fair_turns", "next_turn", "retry_turn"]

T = TypeVar("T")
MINUTE: Final = timedelta(minutes=1)
HOUR: Final = timedelta(hours=1)
DAY: Final = timedelta(days=1)
WEEK: Final = timedelta(days=7)
# A range of so many days says at which hours to look; a wider one does not.
NARROW: Final = 2 * DAY
# From how long before it runs out it is looked at daily.
SOON: Final = 30 * DAY
SELDOM: Final[Mapping[str, timedelta]] = {
    "open": DAY, "premium": DAY, "taken": WEEK, "offered": 3 * DAY, "dropping": 12 * HOUR,
    "reserved": 30 * DAY, "barred": 30 * DAY,
}  # fmt: skip
LONGEST_RETRY: Final = 6 * HOUR
# Of a day's budget: kept for what is urgent, and to be had at once when the day begins.
KEPT, AT_ONCE = 0.25, 0.25


class Turn(NamedTuple):
    """When to ask again; `urgent`: it goes before all that is not."""

    at: datetime
    urgent: bool = False


def next_turn(seen: Seen, asked: datetime) -> Turn:
    """When to ask again after it was asked: sooner near a drop date, an auction's end, or the day
    it runs out, seldom otherwise.
    """
    if not seen.status:
        return retry_turn(asked, 0)
    usual = asked + SELDOM.get(seen.status, DAY)
    if seen.status == "dropping" and seen.drops_from and seen.drops_to:
        return _near_drop(seen.drops_from, seen.drops_to, asked)
    if seen.status == "offered" and seen.ends:
        return _near_end(seen.ends, asked, usual)
    if seen.status == "taken" and seen.expires:
        return _near_expiry(seen.expires, asked, usual)
    return Turn(usual)


def _near_drop(first: datetime, last: datetime, asked: datetime) -> Turn:
    if asked < first - HOUR:
        # Half of the way there, so that what comes sooner than told is not missed for long.
        at = asked + min(DAY, max(HOUR, (first - asked) / 2))
        return Turn(min(at, max(first - HOUR, asked + HOUR)))
    if asked <= last + DAY:
        return Turn(asked + (15 * MINUTE if last - first <= NARROW else 2 * HOUR), urgent=True)
    return Turn(asked + 12 * HOUR)


def _near_end(ends: datetime, asked: datetime, usual: datetime) -> Turn:
    if asked < ends:
        return Turn(min(usual, ends + 10 * MINUTE), urgent=ends - asked <= DAY)
    return Turn(asked + 6 * HOUR if asked <= ends + 3 * DAY else usual)


def _near_expiry(expires: datetime, asked: datetime, usual: datetime) -> Turn:
    if asked < expires - SOON:
        return Turn(min(usual, max(expires - SOON, asked + DAY)))
    if asked < expires:
        return Turn(min(asked + DAY, expires + HOUR))
    return Turn(asked + 12 * HOUR)


def retry_turn(asked: datetime, failures: int) -> Turn:
    """When to ask again where nothing was found out: ten minutes later, then twice as long each
    time, six hours at the most.
    """
    return Turn(asked + min(LONGEST_RETRY, 10 * MINUTE * 2 ** min(failures, 10)))


def allowed(budget: int, passed: float, *, urgent: bool) -> int:
    """How many look-ups a person may have had by now, `passed` of the day being over (0 to 1). A
    quarter of the budget is kept for what is urgent; a quarter of the rest may be had at once, all
    else is spread over the day.
    """
    if urgent:
        return budget
    return int(budget * (1 - KEPT) * min(1.0, AT_ONCE + (1 - AT_ONCE) * passed))


def fair_turns(
    due: Mapping[int, Sequence[T]], left: Mapping[int, int], places: int
) -> list[tuple[int, T]]:
    """Whose names are asked about: one of each person in turn, in the order of `due`, until all
    `places` are given or nobody has any `left`.
    """
    queues = {who: deque(items[: max(0, left.get(who, 0))]) for who, items in due.items()}
    taken: list[tuple[int, T]] = []
    while len(taken) < places and any(queues.values()):
        for who, queue in queues.items():
            if queue and len(taken) < places:
                taken.append((who, queue.popleft()))
    return taken
