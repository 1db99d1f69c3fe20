"""Price lists: what a seller asks for an extension, for how many years, and until when."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from decimal import Decimal
from typing import Final, Literal, NamedTuple

__all__ = ["ACTIONS", "EVERY", "Action", "Per", "PriceList", "PriceRow", "Promotion", "Quoted"]

Action = Literal["register", "renew", "move", "restore", "privacy", "fee"]
ACTIONS: Final[Mapping[Action, str]] = {
    "register": "a new registration",
    "renew": "renewing",
    "move": "moving in from another seller",
    "restore": "getting back what lapsed",
    "privacy": "keeping the holder out of the public record",
    "fee": "a fee for the registry",
}
Per = Literal["year", "term"]
# In a list: the row holds for every extension without one of its own.
EVERY: Final = "*"
ALWAYS: Final = (date.min, date.max)

PromotionKind = Literal["first_year", "first_names", "new_customers"]


class Promotion(NamedTuple):
    """A lower price: of the first year only, of the first `names` names of an order, or for those
    who buy from this seller for the first time (of the first year, too).
    """

    price: Decimal
    kind: PromotionKind
    names: int = 0


@dataclass(frozen=True, slots=True)
class PriceRow:
    """One line of a list: `price` is asked for each year or for the whole term, where the term has
    `years_from` to `years_to` years, from the day `valid_from` to the day `valid_until`, both
    included.
    """

    extension: str
    action: Action
    price: Decimal
    years_from: int = 1
    years_to: int = 10
    per: Per = "year"
    promotion: Promotion | None = None
    valid_from: date = date.min
    valid_until: date = date.max

    def holds(self, years: int, on: date) -> bool:
        """Whether it is for a term of so many years bought on that day."""
        return (
            self.years_from <= years <= self.years_to and self.valid_from <= on <= self.valid_until
        )

    def of(self, years: int) -> Decimal:
        """The usual price of a term."""
        return self.price if self.per == "term" else self.price * years


class Quoted(NamedTuple):
    """What a seller asks for one name of its own: the first year and each later one."""

    first_year: Decimal
    renewal: Decimal
    premium: bool = True


@dataclass(frozen=True)
class PriceList:
    """A seller's list as it was on the day `dated`."""

    seller: str
    dated: date
    rows: Sequence[PriceRow]
    _index: dict[tuple[str, str], list[PriceRow]] = field(
        init=False, repr=False, compare=False, default_factory=dict
    )

    def __post_init__(self) -> None:
        for row in self.rows:
            self._index.setdefault((row.extension, row.action), []).append(row)

    def find(self, extension: str, action: Action, years: int, on: date) -> PriceRow | None:
        """The row for a term bought on that day, None where the seller does not offer it. What
        comes after the last row that is known is taken to cost what that says, without promotion.
        """
        rows = self._index.get((extension, action)) or self._index.get((EVERY, action)) or ()
        last: PriceRow | None = None
        for row in rows:
            if row.holds(years, on):
                return row
            if row.years_from <= years <= row.years_to and row.valid_until < on:
                last = row if last is None or row.valid_until > last.valid_until else last
        if last is None:
            return None
        return PriceRow(
            last.extension, last.action, last.price, last.years_from, last.years_to, last.per
        )

    def extensions(self) -> Iterable[str]:
        """Those that can be registered here."""
        return sorted({e for e, action in self._index if action == "register" and e != EVERY})
