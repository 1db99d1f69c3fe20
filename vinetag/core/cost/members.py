"""Several full names that are planned together, and what comes of it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from vinetag.core.cost.orders import Order
from vinetag.core.cost.ways import Way, Wish

__all__ = ["Bundle", "Member"]


@dataclass(frozen=True)
class Member:
    """A full name of the plan: the one that is `used`, or one held for protection."""

    label: str
    wish: Wish
    used: bool = False

    @property
    def full_name(self) -> str:
        return f"{self.label}.{self.wish.extension}"


@dataclass(frozen=True)
class Bundle:
    """`orders` are those of the first day, by seller; `ways` those of each full name, in which the
    first step's price is that of the name alone. `total` is what is paid for all of it; `weight`
    is that with what moves and paying ahead weigh beside it, `bound` what no plan can weigh less
    than: all in thousandths of the market's currency. `nowhere` are full names that no seller
    offers.
    """

    orders: Mapping[str, Order]
    ways: Mapping[str, Way]
    total: int
    weight: int
    bound: int
    nowhere: tuple[str, ...] = ()
