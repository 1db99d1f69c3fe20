"""What extensions cost a person by the lists, for sheets and proposals: worked out once for each
edition of all that is known of prices, and shared by the processes.
"""

from __future__ import annotations

import uuid
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from functools import lru_cache
from typing import Final

from django.core.cache import cache
from django.utils import timezone

from vinetag.apps.accounts.models import User
from vinetag.apps.accounts.preferences import preferences_of
from vinetag.apps.availability.models import Lookup
from vinetag.apps.costs.markets import market_for
from vinetag.apps.costs.rates import rates_in_force
from vinetag.apps.naming.models import Project
from vinetag.core.cost import Buyer, Listed, Market, RateError, Seller, listed, tax_of
from vinetag.core.money import Money
from vinetag.core.sheet import (
    OPEN_TO_LISTS,
    ListPrice,
    NameCost,
    NameQuote,
    SheetPrices,
    name_costs,
)

__all__ = [
    "ListCosts", "costs_document", "list_costs", "prices_changed", "prices_of", "usual_currency",
]  # fmt: skip

EDITION: Final = "costs-edition"
LASTS: Final = 86_400
BASE: Final = "EUR"
NOTHING_TOLD: Final[Mapping[str, NameQuote]] = {}


@dataclass(frozen=True)
class ListCosts:
    """By extension, in `currency` over `years`; extensions nobody lists are missing. `names` are
    those of the sellers by code. Two of one `edition` are the same.
    """

    currency: str
    years: int
    edition: str
    costs: Mapping[str, Listed]
    names: Mapping[str, str]


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
    known = cache.get(about) or {"names": {}, "costs": {}}
    costs = known["costs"]
    if missing := {*extensions} - costs.keys():
        market = market_for(person, Buyer(country), currency, today)
        known["names"] = {code: seller.name for code, seller in market.sellers.items()}
        costs |= {extension: _listed(market, extension, years) for extension in missing}
        cache.set(about, known, LASTS)
    found = {e: Listed(*costs[e]) for e in extensions if costs[e] is not None}
    return ListCosts(currency, years, about, found, known["names"])


def _listed(market: Market, extension: str, years: int) -> Listed | None:
    try:
        return listed(market, extension, years)
    except RateError:
        return None


def prices_of(project: Project, also: Sequence[str] = ()) -> SheetPrices:
    """What names of a project cost its owner: by the lists under the brief's extensions and
    others, and what is to be made of quotes in other currencies.
    """
    extensions = [*project.brief["extensions"], *also]
    owner = project.brief["owner"]
    country, years = owner["country"], owner["years"]
    found = list_costs(project.owner, country, years, extensions)
    prices = {
        extension: ListPrice(
            cost.first, cost.later, cost.whole, found.names.get(cost.seller, cost.seller)
        )
        for extension, cost in found.costs.items()
    }
    edition = f"{found.edition}:{','.join(extensions)}"
    worth = _worth(found.edition, country, found.currency, timezone.localdate())
    return SheetPrices(found.currency, years, prices, worth, edition)


def costs_document(
    prices: SheetPrices,
    cells: Iterable[Lookup],
    extensions: Sequence[str],
    told: Mapping[str, NameQuote] = NOTHING_TOLD,
) -> dict[str, object]:
    """What a name costs, the least under any of the extensions, as SpansSerializer describes it.
    What was `told` of it by extension stands where the answers say nothing, and a premium price
    that was told where they only say that the name is open.
    """
    known = {**told}
    for cell in cells:
        quote = NameQuote(cell.status, cell.first_year, cell.renewal, cell.currency)
        before = told.get(cell.extension)
        asked = before is not None and before.status == "premium"
        if not (asked and cell.status in OPEN_TO_LISTS and cell.first_year is None):
            known[cell.extension] = quote
    costs = name_costs(prices, known, extensions)
    document: dict[str, object] = {span: cost and _told(cost) for span, cost in costs.items()}
    return {"currency": prices.currency, "years": prices.years, **document}


def _told(cost: NameCost) -> dict[str, object]:
    """With its amount in digits, of two decimal places."""
    cents = (cost.amount + 5) // 10
    return {
        "amount": f"{cents // 100}.{cents % 100:02}",
        "extension": cost.extension,
        "seller": cost.seller,
        "premium": cost.premium,
    }


@lru_cache(maxsize=64)
def _worth(_edition: str, country: str, currency: str, today: date) -> Mapping[str, float]:
    """What one of each currency is in that one, with what a seller of the buyer's country adds."""
    rates = rates_in_force()
    at_home = Seller("", "", country, currency)
    share = 1 + (tax_of(at_home, Buyer(country), today).rate or Decimal(0))
    found = {}
    for code in {BASE, *(rates.by_day[rates.newest] if rates.newest else ())}:
        try:
            money = rates.convert(Money(share, code), currency, today).money
        except RateError:
            continue
        found[code] = float(money.amount)
    return found
