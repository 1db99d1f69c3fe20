"""One offer of a full name, as a market's list has it, and what it comes to in words."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime
from decimal import Decimal

from vinetag.core.concepts import PAST_USES, OfferName
from vinetag.core.names import FullName

__all__ = ["Offer", "ended", "risk_of"]


@dataclass(frozen=True, slots=True)
class Offer:
    """What one market tells of one full name; None and "" where it does not. `told`: the moment of
    its list. Times are aware, in UTC; `price` is in `currency`.
    """

    name: FullName
    market: str
    kind: OfferName
    told: datetime
    price: Decimal | None = None
    currency: str = ""
    bids: int | None = None
    ends: datetime | None = None
    drops_from: datetime | None = None
    drops_to: datetime | None = None
    state: str = ""
    address: str = ""
    first_registered: date | None = None
    times_registered: int | None = None
    links: int | None = None
    linking_sites: int | None = None
    archived: int | None = None
    archived_about: str = ""
    used_for: str = ""
    rank: int | None = None
    click_price: Decimal | None = None
    also: tuple[str, ...] = ()


def ended(offer: Offer, now: datetime) -> bool:
    """Whether it is over: an auction that has ended, a name that was released."""
    if offer.kind == "auction":
        return offer.ends is not None and offer.ends <= now
    return offer.kind == "dropping" and offer.drops_to is not None and offer.drops_to <= now


def risk_of(used_for: str) -> str:
    """What its earlier use is warned of, "" where there is nothing."""
    use = PAST_USES.get(used_for)  # type: ignore[call-overload]
    return use.risk if use else ""
