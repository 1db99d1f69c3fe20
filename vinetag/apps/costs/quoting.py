"""What sellers say of single names, kept for a day."""

from __future__ import annotations

import asyncio
import math
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from typing import Final

from django.core.cache import cache
from django.utils import timezone

from vinetag.apps.accounts.models import User
from vinetag.apps.availability.lookups import lookup_settings
from vinetag.apps.costs.markets import sellers_for
from vinetag.apps.costs.models import QuoteRow, SellerRow
from vinetag.core.checking import Evidence
from vinetag.core.cost import Market, Quoted, Said, beside_list, said_of
from vinetag.core.cost.seller_documents import read_seller
from vinetag.core.names import FullName
from vinetag.core.sheet import NameQuote
from vinetag.lookup.quotes import QuoteWanted, fetch_quotes, may_be_asked

__all__ = ["NameQuotes", "Quotes", "ask_quotes", "quotes_for", "told_of"]

LASTS: Final = timedelta(days=1)
# What was not found out is asked again sooner.
AGAIN: Final = timedelta(minutes=20)
# That a seller has nothing of an extension is an answer, too.
ANSWERS: Final = frozenset({"", "no_service"})
# So many at once, so that a worker is not held up for long.
SLICE: Final = 300
# In the cache, by name: that somebody asks about it just now.
UNDER_WAY: Final = "quote-under-way"
LONGEST: Final = 120


@dataclass(frozen=True)
class NameQuotes:
    """What is known of one name: by seller, what its price is where a list does not say it; the
    sellers that do not sell it.
    """

    quoted: Mapping[str, Quoted] = field(default_factory=dict)
    without: frozenset[str] = frozenset()


@dataclass(frozen=True)
class Quotes:
    """By name; `waiting` are names some seller has not been asked of yet, `unknown` how many times
    a seller said nothing of use, `oldest` when the oldest of the answers was given.
    """

    names: Mapping[FullName, NameQuotes]
    waiting: tuple[FullName, ...] = ()
    unknown: int = 0
    oldest: datetime | None = None


def quotes_for(person: User, market: Market, names: Sequence[FullName]) -> Quotes:
    """What the sellers of a market said of these names, as far as it is fresh."""
    now = timezone.now()
    asked = _asked(sellers_for(person))
    wanted = {str(name): name for name in names}
    rows = QuoteRow.objects.filter(
        full_name__in=wanted, seller__in=[row.pk for row in asked], asked_at__gt=now - LASTS
    ).select_related("seller")
    quoted: dict[str, dict[str, Quoted]] = {}
    without: dict[str, set[str]] = {}
    answered: dict[str, set[str]] = {}
    times: list[datetime] = []
    unknown = 0
    for row in rows:
        if row.trouble not in ANSWERS and row.asked_at < now - AGAIN:
            continue
        code = row.seller.code
        answered.setdefault(row.full_name, set()).add(code)
        times.append(row.asked_at)
        seller = market.sellers.get(code)
        said = Said()
        if seller is not None:
            said = said_of(row.says, row.currency, row.first_year, row.renewal, seller.currency)
        if said.sold is False:
            without.setdefault(row.full_name, set()).add(code)
        elif seller is not None and said.quoted is not None:
            listed, extension = market.prices[code], wanted[row.full_name].extension
            price = beside_list(seller, listed, extension, said.quoted, market.today)
            if price is not None:
                quoted.setdefault(row.full_name, {})[code] = price
        elif row.trouble not in ANSWERS:
            unknown += 1
    codes = {row.code for row in asked if row.code in market.prices}
    found = {
        name: NameQuotes(quoted.get(text, {}), frozenset(without.get(text, ())))
        for text, name in wanted.items()
    }
    waiting = tuple(name for text, name in wanted.items() if codes - answered.get(text, set()))
    return Quotes(found, waiting, unknown, min(times, default=None))


def _asked(rows: Collection[SellerRow]) -> list[SellerRow]:
    """Those that may be asked for prices of single names."""
    settings = lookup_settings()
    return [row for row in rows if may_be_asked(settings, read_seller(row.terms).quotes)]


def told_of(label: str, person: User, worth: Mapping[str, float]) -> dict[str, NameQuote]:
    """By extension, the cheapest first year that sellers asked lately for a label as a full name,
    or that none of those who answered sells it. `worth` is what one of each currency is in another.
    """
    rows = QuoteRow.objects.filter(
        full_name__startswith=f"{label}.",
        seller__in=sellers_for(person),
        asked_at__gt=timezone.now() - LASTS,
        trouble="",
    )
    found: dict[str, list[QuoteRow]] = {}
    for row in rows:
        found.setdefault(row.full_name.removeprefix(f"{label}."), []).append(row)
    told = {}
    for extension, answers in found.items():
        priced = [row for row in answers if row.first_year is not None]
        if not priced:
            told[extension] = NameQuote("taken")
            continue
        first = min(priced, key=lambda row: _first_year(row, worth))
        status = "premium" if first.says == "premium" else "open"
        told[extension] = NameQuote(status, first.first_year, first.renewal, first.currency)
    return told


def _first_year(row: QuoteRow, worth: Mapping[str, float]) -> tuple[float, int]:
    return float(row.first_year or 0) * worth.get(row.currency, math.inf), row.pk


def ask_quotes(names: Sequence[FullName]) -> int:
    """Ask every seller of the settings about names it has not been asked of lately, at most SLICE
    questions; how many were asked. What somebody else asks just now is passed over.
    """
    mine = [n for n in names if cache.add(f"{UNDER_WAY}:{n}", 1, LONGEST)]
    try:
        wanted = _wanted(mine)[:SLICE]
        evidence = asyncio.run(fetch_quotes(lookup_settings(), [one for _, one in wanted]))
        for (row, one), found in zip(wanted, evidence, strict=True):
            _keep(row, str(one.name), found)
        return len(wanted)
    finally:
        for name in mine:
            cache.delete(f"{UNDER_WAY}:{name}")


def _wanted(names: Sequence[FullName]) -> list[tuple[SellerRow, QuoteWanted]]:
    now = timezone.now()
    rows = _asked(SellerRow.objects.filter(owner=None, listed=True).order_by("place"))
    known = {
        (seller, name)
        for seller, name, trouble, at in QuoteRow.objects.filter(
            full_name__in=[str(name) for name in names], asked_at__gt=now - LASTS
        ).values_list("seller", "full_name", "trouble", "asked_at")
        if trouble in ANSWERS or at > now - AGAIN
    }
    return [
        (row, QuoteWanted(row.code, read_seller(row.terms).quotes, name))
        for name in names
        for row in rows
        if (row.pk, str(name)) not in known
    ]


def _keep(row: SellerRow, full_name: str, found: Evidence) -> None:
    price = found.quote
    QuoteRow.objects.update_or_create(
        seller=row,
        full_name=full_name,
        defaults={
            "says": found.says,
            "currency": price.currency if price else "",
            "first_year": price.first_year if price else None,
            "renewal": price.renewal if price else None,
            "trouble": found.trouble,
            "asked_at": found.at,
        },
    )
