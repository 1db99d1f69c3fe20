"""How fast names go: shares with their ranges from what was seen, and when half will be gone."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Final
from warnings import catch_warnings, simplefilter

from scipy import stats

__all__ = ["AFTER", "Going", "HalfGone", "Seen", "going", "half_gone"]

# Days after which it is told what share was taken.
AFTER: Final = (7, 30, 90)
# Fewer names say nothing.
LEAST: Final = 20
CONFIDENCE: Final = 0.95
# Fewer days have no trend.
LEAST_DAYS: Final = 3
FURTHEST: Final = timedelta(days=365 * 50)


@dataclass(frozen=True, slots=True)
class Seen:
    """A name that was open: for how many `days` it was followed, and whether it was found `taken`
    at the end of them.
    """

    days: float
    taken: bool


@dataclass(frozen=True, slots=True)
class Going:
    """Of names that were open the share taken within `days`, from 0 to 1, with its range (95 %),
    and how many names were followed at all.
    """

    days: int
    share: float
    low: float
    high: float
    names: int


def going(seen: Sequence[Seen]) -> list[Going]:
    """The shares after 7, 30 and 90 days, by the estimator of Kaplan and Meier (1958) with the
    log-log range of its variance (Greenwood): those followed for a shorter time count as long as
    they were. Nothing where fewer than LEAST were followed, and only as far as some were.
    """
    followed = [one for one in seen if one.days > 0]
    if len(followed) < LEAST:
        return []
    longest = max(one.days for one in followed)
    taken = [one.days for one in followed if one.taken]
    left = [one.days for one in followed if not one.taken]
    if not taken:
        # Nobody was taken: of so many, at most this share would be (the rule of three).
        most = 1 - (1 - CONFIDENCE) ** (1 / len(followed))
        return [Going(d, 0.0, 0.0, most, len(followed)) for d in AFTER if d <= longest]
    sample = stats.CensoredData(taken, right=left)
    survival = stats.ecdf(sample).sf
    found = []
    with catch_warnings():
        # Where there is no range, it says so by values that are none.
        simplefilter("ignore", RuntimeWarning)
        with_range = survival.confidence_interval(CONFIDENCE, method="log-log")
    for days in AFTER:
        if days > longest:
            break
        share = 1 - float(survival.evaluate(days))
        low = 1 - float(with_range.high.evaluate(days))
        high = 1 - float(with_range.low.evaluate(days))
        # Without a range before the first and after the last was taken.
        low, high = (share if value != value else value for value in (low, high))
        found.append(Going(days, share, max(0.0, low), min(1.0, high), len(followed)))
    return found


@dataclass(frozen=True, slots=True)
class HalfGone:
    """The day at which half of all names are taken, if it goes on as it did, and its range (95 %);
    None for never within fifty years.
    """

    day: date | None
    earliest: date | None
    latest: date | None


def half_gone(days: Sequence[date], taken: Sequence[int], whole: int) -> HalfGone | None:
    """From how many of `whole` names were taken on each of the `days`: a straight line through them
    (least squares), gone on with from the last day. None where there are too few days, or half are
    gone already.
    """
    if len(days) < LEAST_DAYS or taken[-1] * 2 >= whole:
        return None
    since = [(day - days[0]).days for day in days]
    line = stats.linregress(since, taken)
    spread = float(line.stderr) * float(stats.t.ppf((1 + CONFIDENCE) / 2, len(days) - 2))
    left = whole / 2 - taken[-1]

    def after(slope: float) -> date | None:
        if slope <= 0 or left / slope > FURTHEST.days:
            return None
        return days[-1] + timedelta(days=round(left / slope))

    slope = float(line.slope)
    spread = 0.0 if spread != spread else spread
    return HalfGone(after(slope), after(slope + spread), after(slope - spread))
