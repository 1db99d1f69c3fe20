"""How much of what people look for one phrase would cover as the subject of a site."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
import numpy.typing as npt

from vinetag.core.demand.grouping import Space

__all__ = ["Cover", "covered", "covers", "head_of"]

# A phrase is covered in part by one near in meaning: from NEAR on, up to MOST_NEAR at NEAREST.
NEAR: Final = 0.3
NEAREST: Final = 0.75
MOST_NEAR: Final = 0.8
AT_A_TIME: Final = 500
Shares = npt.NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Cover:
    """Why a phrase covers so much: how many phrases have all its words, how many more are near in
    meaning, and the shares (0 to 1) of the demand that is its own, theirs, and theirs in part.
    """

    within: int
    near: int
    own_share: float
    within_share: float
    near_share: float

    @property
    def share(self) -> float:
        """Of the demand, 0 to 1."""
        return min(1.0, self.own_share + self.within_share + self.near_share)


def _degrees(space: Space, rows: Sequence[int], columns: Sequence[int] | slice) -> Shares:
    """How far each phrase of the columns is covered by that of the row, 0 to 1."""
    alike = space.alike(rows, columns)
    near = np.clip((alike - NEAR) / (NEAREST - NEAR), 0, 1) * MOST_NEAR
    found: Shares = np.where(space.within(rows, columns), 1.0, near)
    return found


def covers(space: Space, demand: Shares, among: Sequence[int] | None = None) -> Shares:
    """By phrase of `among` (all of them when left out), the share of their whole demand that it
    would cover; 0 where nobody looks for anything. Unknown demand counts as none.
    """
    places = list(range(len(space))) if among is None else list(among)
    wanted = np.nan_to_num(demand[places])
    whole = float(wanted.sum())
    if not whole:
        return np.zeros(len(places))
    columns = slice(None) if among is None else places
    parts = []
    for start in range(0, len(places), AT_A_TIME):
        rows = places[start : start + AT_A_TIME]
        degrees = _degrees(space, rows, columns)
        degrees[np.arange(len(rows)), np.arange(start, start + len(rows))] = 1.0
        parts.append(degrees @ wanted / whole)
    return np.concatenate(parts) if parts else np.zeros(0)


def covered(space: Space, demand: Shares, phrase: int, among: Sequence[int]) -> Cover:
    """What the phrase covers of those `among`, which it is one of, and why."""
    others = [at for at in among if at != phrase]
    whole = float(np.nansum(demand[[*others, phrase]]))
    own = float(np.nan_to_num(demand[phrase]))
    if not others:
        return Cover(0, 0, 1.0 if own else 0.0, 0.0, 0.0)
    degrees = _degrees(space, [phrase], others)[0]
    wanted = np.nan_to_num(demand[others])
    within = space.within([phrase], others)[0]
    near = ~within & (degrees > 0)
    per = whole or 1.0
    return Cover(
        int(within.sum()),
        int(near.sum()),
        own / per,
        float(wanted[within].sum()) / per,
        float((degrees * wanted)[near].sum()) / per,
    )


def head_of(shares: Shares, demand: Shares, among: Sequence[int]) -> int:
    """The phrase that covers most of those `among`; between equals what more people look for."""
    wanted = np.nan_to_num(demand[list(among)])
    best = max(range(len(among)), key=lambda i: (round(float(shares[i]), 3), wanted[i], -i))
    return among[best]
