"""What the lists in force tell of names."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from datetime import datetime
from typing import Final, cast

from django.db.models import Q
from django.utils import timezone

from vinetag.apps.market.models import MarketRow, OfferChange, OfferRow
from vinetag.core.concepts import OfferName
from vinetag.core.market import Offer, ended
from vinetag.core.names import FullName

__all__ = ["history_of", "market_names", "offers_of", "offers_of_label"]

AT_A_TIME: Final = 1_000
MOST_CHANGES: Final = 50


def market_names() -> dict[str, str]:
    """What markets are called, by code."""
    return dict(MarketRow.objects.values_list("code", "name"))


def offers_of(
    names: Iterable[FullName], now: datetime | None = None
) -> Mapping[FullName, Sequence[Offer]]:
    """What is told of these full names by lists in force, what is over left out."""
    by_extension: dict[str, list[str]] = {}
    for name in names:
        by_extension.setdefault(name.extension, []).append(name.label)
    found: dict[FullName, list[Offer]] = {}
    for extension, labels in by_extension.items():
        for first in range(0, len(labels), AT_A_TIME):
            chunk = Q(extension=extension, label__in=labels[first : first + AT_A_TIME])
            for offer in _offers(chunk, now or timezone.now()):
                found.setdefault(offer.name, []).append(offer)
    return found


def _offers(which: Q, now: datetime) -> Iterable[Offer]:
    rows = OfferRow.objects.filter(which, gone_at=None).select_related("market").order_by("pk")
    for row in rows:
        offer = offer_of(row)
        if not ended(offer, now):
            yield offer


def offer_of(row: OfferRow) -> Offer:
    """A row as the core knows it."""
    return Offer(
        name=FullName(row.label, row.extension),
        market=row.market.code,
        kind=cast(OfferName, row.kind),
        told=row.market.told_at or timezone.now(),
        price=row.price,
        currency=row.currency,
        bids=row.bids,
        ends=row.ends,
        drops_from=row.drops_from,
        drops_to=row.drops_to,
        state=row.state,
        address=row.address,
        first_registered=row.first_registered,
        times_registered=row.times_registered,
        links=row.links,
        linking_sites=row.linking_sites,
        archived=row.archived,
        archived_about=row.archived_about,
        used_for=row.used_for,
        rank=row.rank,
        click_price=row.click_price,
        also=tuple(row.also_registered.split()),
    )


def offers_of_label(label: str) -> list[Offer]:
    """What is told of a label under any extension, what is over left out."""
    found = list(_offers(Q(label=label), timezone.now()))
    return sorted(found, key=lambda o: (o.name.extension, o.kind, o.market))


def history_of(label: str) -> list[OfferChange]:
    """How offers of a label changed, the last first."""
    rows = OfferChange.objects.filter(label=label)
    return list(rows.select_related("market").order_by("-at", "-pk")[:MOST_CHANGES])
