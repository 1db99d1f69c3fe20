"""What a year of each owned name costs at its seller, by the list of the day."""

from __future__ import annotations

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
from vinetag.core.cost import RateError, Term

__all__ = ["is_priced", "price_new", "price_owned"]

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


def price_new() -> int:
    """Price what is known to be at another seller by now; of how many people."""
    rows = OwnedName.objects.filter(priced_on=None, left_at=None)
    people = list(rows.values_list("owner", flat=True).distinct()[:MOST_PEOPLE])
    for person in User.objects.filter(pk__in=people):
        price_owned(person)
    return len(people)
