"""What a year of each owned name costs at its seller, and having it back, by the day's list."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import replace
from decimal import Decimal
from typing import Final

from django.core.cache import cache
from django.db.models import Q
from django.utils import timezone

from vinetag.apps.accounts.models import User
from vinetag.apps.costs.listing import usual_currency
from vinetag.apps.costs.markets import market_for
from vinetag.apps.ordering.owners import owners_of
from vinetag.apps.ordering.pricing import buyer_of
from vinetag.apps.owning.listing import mine
from vinetag.apps.owning.models import OwnedName
from vinetag.core.cost import (
    Eligible,
    Line,
    LineKind,
    Market,
    PricedItem,
    RateError,
    Term,
    close_order,
)
from vinetag.core.cost import (
    Order as Priced,
)
from vinetag.core.money import Money

__all__ = ["closed_order", "having_back", "is_priced", "price_new", "price_owned"]

LASTS: Final = 3_600
MOST_PEOPLE: Final = 20


def _mark(person: User) -> str:
    return f"owned-priced-{person.pk}-{timezone.localdate()}-{usual_currency(person)}"


def is_priced(person: User) -> bool:
    """Whether that was done lately, in the currency the person likes."""
    return bool(cache.get(_mark(person)))


def price_owned(person: User) -> int:
    """Price what has no price of today, tax and all; how many names."""
    today, currency = timezone.localdate(), usual_currency(person)
    old = mine(person).filter(
        Q(priced_on=None) | Q(priced_on__lt=today) | ~Q(yearly_currency=currency)
    )
    pairs = list(old.values_list("seller", "extension").distinct())
    cache.set(_mark(person), 1, LASTS)
    if not pairs:
        return 0
    buyer = replace(buyer_of(owners_of(person), ()), privacy=False)
    market = market_for(person, buyer, currency)
    count = 0
    for seller, extension in pairs:
        amount = None
        if seller in market.prices:
            try:
                priced = market.price(Term(seller, extension, "renew", 1, market.today))
                amount = None if priced is None else Decimal(priced.amount) / 1000
            except RateError:
                amount = None
        count += old.filter(seller=seller, extension=extension).update(
            yearly=amount, yearly_currency=currency, priced_on=today
        )
    return count


def closed_order(
    market: Market, seller: str, fees: Sequence[tuple[str, str, Decimal]],
    kind: LineKind = "renewal",
) -> Priced:  # fmt: skip
    """An order of what a gateway asks, by full name and extension, with its tax."""
    items = [
        PricedItem(
            (Line(kind, name, fee, "gateway", {}),),
            Eligible(extension, "renew", 1, fee, fee, True),
        )
        for name, extension, fee in fees
    ]
    return close_order(market.sellers[seller], items, market.today, market.buyer)


def having_back(person: User, pairs: Iterable[tuple[str, str]]) -> dict[tuple[str, str], Money]:
    """What having a name back costs out of its redemption period, with the year that comes with it
    and tax, in the seller's currency, by seller and extension; those whose list does not say are
    left out.
    """
    buyer = replace(buyer_of(owners_of(person), ()), privacy=False)
    market = market_for(person, buyer, usual_currency(person))
    found = {}
    for seller, extension in pairs:
        prices, today = market.prices.get(seller), market.today
        if prices is None:
            continue
        back = prices.find(extension, "restore", 1, today)
        year = prices.find(extension, "renew", 1, today)
        if back is not None and year is not None:
            fee = back.of(1) + year.of(1)
            order = closed_order(market, seller, [(f"name.{extension}", extension, fee)])
            found[seller, extension] = order.total
    return found


def price_new() -> int:
    """Price what is known to be at another seller by now; of how many people."""
    rows = OwnedName.objects.filter(priced_on=None, left_at=None)
    people = list(rows.values_list("owner", flat=True).distinct()[:MOST_PEOPLE])
    for person in User.objects.filter(pk__in=people):
        price_owned(person)
    return len(people)
