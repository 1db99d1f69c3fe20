"""What extensions cost a person by the lists, for sheets and proposals: worked out once for each
edition of all that is known of prices, and shared by the processes.
"""

from __future__ import annotations

import uuid
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from django.core.cache import cache
from django.utils import timezone

from vinetag.apps.accounts.models import User
from vinetag.apps.accounts.preferences import preferences_of
from vinetag.apps.costs.markets import market_for
from vinetag.core.cost import Buyer, Listed, Market, RateError, listed

__all__ = ["ListCosts", "list_costs", "prices_changed", "usual_currency"]

EDITION: Final = "costs-edition"
LASTS: Final = 86_400
BASE: Final = "EUR"


@dataclass(frozen=True)
class ListCosts:
    """By extension, in `currency` over `years`; extensions nobody lists are missing. Two of one
    `edition` are the same.
    """

    currency: str
    years: int
    edition: str
    costs: Mapping[str, Listed]


def prices_changed() -> None:
    """Something of what is known of prices is another: lists, terms, coupons, reports, rates."""
    cache.set(EDITION, uuid.uuid4().hex, None)


def usual_currency(person: User) -> str:
    """The one the person likes prices in, or the euro."""
    return str(preferences_of(person)["currency"]) or BASE


def list_costs(
    person: User, country: str, years: int, extensions: Sequence[str], currency: str = ""
) -> ListCosts:
    """For a buyer of a country ("" where it is not said: without tax then), in the person's usual
    currency where none is given.
    """
    currency = currency or usual_currency(person)
    today = timezone.localdate()
    edition = cache.get_or_set(EDITION, lambda: uuid.uuid4().hex, None)
    about = f"listed:{edition}:{person.pk}:{country}:{years}:{currency}:{today}"
    known = cache.get(about) or {}
    if missing := {*extensions} - known.keys():
        market = market_for(person, Buyer(country), currency, today)
        known |= {extension: _listed(market, extension, years) for extension in missing}
        cache.set(about, known, LASTS)
    costs = {e: Listed(*known[e]) for e in extensions if known[e] is not None}
    return ListCosts(currency, years, about, costs)


def _listed(market: Market, extension: str, years: int) -> Listed | None:
    try:
        return listed(market, extension, years)
    except RateError:
        return None
