"""A ranking from answers to "which of the two is better?", with how sure it is.

The model is Bradley and Terry's (Biometrika 39, 1952): the chance that one name wins is a logistic
function of the difference of their strengths. Strengths have a normal prior; the answers' posterior
is taken as normal around its mode (Laplace). The next pair is the one whose answer is expected to
shrink the posterior most, after Glickman and Jensen (Journal of Statistical Planning and Inference
127, 2005).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, NamedTuple

import numpy as np
import numpy.typing as npt

__all__ = ["ENOUGH", "Duel", "Ranking", "Standing", "rank"]

PRIOR_VARIANCE: Final = 2.0
STEPS: Final = 50
CLOSE: Final = 1e-10
SAMPLES: Final = 4_000
# The first is as surely the best as this: no more need be asked.
ENOUGH: Final = 0.9
# What a pair asked already must bring more than a fresh one, each time it was asked.
STALE: Final = 0.5

_Numbers = npt.NDArray[np.float64]


class Duel(NamedTuple):
    """One answer; a tie when neither was better, counted as half a win for each."""

    winner: str
    loser: str
    tie: bool = False


@dataclass(frozen=True, slots=True)
class Standing:
    """`strength` is a logit, 0 for a name like the others, with its standard error; `best` is the
    chance, 0 to 1, that it is the strongest of all.
    """

    label: str
    strength: float
    error: float
    best: float
    wins: float
    duels: int


@dataclass(frozen=True, slots=True)
class Ranking:
    """The strongest first; `pair` is whom to set against each other next, None when there are not
    two; `certainty` the chance that the first is the best; `enough` when it is at least ENOUGH.
    """

    standings: Sequence[Standing]
    pair: tuple[str, str] | None
    certainty: float
    enough: bool


def rank(labels: Sequence[str], duels: Sequence[Duel]) -> Ranking:
    """Rank the labels, each listed once; duels about others are passed over. Equals keep the order
    in which they are given.
    """
    place = {label: i for i, label in enumerate(labels)}
    known = [d for d in duels if d.winner in place and d.loser in place and d.winner != d.loser]
    count = len(labels)
    winners = np.array([place[d.winner] for d in known], np.intp)
    losers = np.array([place[d.loser] for d in known], np.intp)
    share = np.array([0.5 if d.tie else 1.0 for d in known])
    strengths, spread = _posterior(count, winners, losers, share)
    best = _chances(strengths, spread)
    wins, met = np.zeros(count), np.zeros(count, np.intp)
    np.add.at(wins, winners, share)
    np.add.at(wins, losers, 1 - share)
    np.add.at(met, winners, 1)
    np.add.at(met, losers, 1)
    order = sorted(range(count), key=lambda i: (-round(float(strengths[i]), 9), i))
    standings = [
        Standing(
            labels[i],
            float(strengths[i]),
            float(np.sqrt(spread[i, i])),
            float(best[i]),
            float(wins[i]),
            int(met[i]),
        )
        for i in order
    ]
    certainty = standings[0].best if standings else 0.0
    pair = _most_telling(labels, strengths, spread, winners, losers)
    return Ranking(standings, pair, certainty, bool(known) and certainty >= ENOUGH)


def _posterior(
    count: int, winners: npt.NDArray[np.intp], losers: npt.NDArray[np.intp], share: _Numbers
) -> tuple[_Numbers, _Numbers]:
    """The mode and the covariance, by Newton's method: the posterior is log-concave."""
    strengths = np.zeros(count)
    information = np.eye(count) / PRIOR_VARIANCE
    for _ in range(STEPS):
        chance = 1 / (1 + np.exp(strengths[losers] - strengths[winners]))
        slope = -strengths / PRIOR_VARIANCE
        np.add.at(slope, winners, share - chance)
        np.add.at(slope, losers, chance - share)
        weight = chance * (1 - chance)
        information = np.eye(count) / PRIOR_VARIANCE
        for sign, rows, columns in (
            (1, winners, winners), (1, losers, losers),
            (-1, winners, losers), (-1, losers, winners),
        ):  # fmt: skip
            np.add.at(information, (rows, columns), sign * weight)
        step = np.linalg.solve(information, slope) if count else slope
        strengths += step
        if not count or np.max(np.abs(step)) < CLOSE:
            break
    return strengths, np.asarray(np.linalg.inv(information), np.float64)


def _chances(strengths: _Numbers, spread: _Numbers) -> _Numbers:
    """How often each is the strongest in draws from the posterior; the same draws every time."""
    count = len(strengths)
    if not count:
        return np.zeros(0)
    draws = np.random.default_rng(1).standard_normal((SAMPLES, count))
    drawn = strengths + draws @ np.linalg.cholesky(spread).T
    return np.bincount(np.argmax(drawn, axis=1), minlength=count) / SAMPLES


def _most_telling(
    labels: Sequence[str],
    strengths: _Numbers,
    spread: _Numbers,
    winners: npt.NDArray[np.intp],
    losers: npt.NDArray[np.intp],
) -> tuple[str, str] | None:
    """The pair whose answer shrinks the posterior most: log(1 + p(1 - p) Var(difference)), less
    for pairs that were asked before.
    """
    count = len(labels)
    if count < 2:
        return None
    gap = strengths[:, None] - strengths[None, :]
    variance = np.diag(spread)[:, None] + np.diag(spread)[None, :] - 2 * spread
    chance = 1 / (1 + np.exp(-gap))
    gain = np.log1p(chance * (1 - chance) * variance)
    asked = np.zeros((count, count))
    np.add.at(asked, (winners, losers), 1)
    gain *= STALE ** (asked + asked.T)
    gain[np.tril_indices(count)] = -1
    one, other = np.unravel_index(int(np.argmax(gain)), gain.shape)
    return labels[int(one)], labels[int(other)]
