"""What markets tell of names, as evidence beside what was asked: with every answer that is stored,
and brought up to date when a market's list is another.
"""

from __future__ import annotations

import logging
from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import groupby, islice
from typing import Final, cast

from django.db import connection
from django.db.models import F
from django.utils import timezone

from vinetag.apps.availability.models import Lookup
from vinetag.apps.market.models import MarketRow, OfferRow
from vinetag.apps.market.offers import market_names, offers_of
from vinetag.core.checking import (
    Aim,
    Evidence,
    Quote,
    Source,
    Status,
    Trouble,
    read_evidence,
    verdict,
)
from vinetag.core.concepts import OFFER_KINDS
from vinetag.core.market import Offer
from vinetag.core.names import FullName
from vinetag.lookup import Answer

__all__ = [
    "changed_by_lists", "evidence_of_offers", "first_offer", "markets_to_spread", "with_offers",
]  # fmt: skip

# What a market's word can add to: a name it offers is registered, whatever else.
HELD: Final[tuple[Status, ...]] = ("taken", "offered", "dropping")
MARKET: Final[Source] = "market"
AT_A_TIME: Final = 500

log = logging.getLogger(__name__)


def with_offers(answers: Sequence[Answer]) -> list[Answer]:
    """The answers with what the lists in force tell of those names somebody holds."""
    held = [a.name for a in answers if a.status in HELD]
    offers = offers_of(held) if held else {}
    names = market_names() if offers else {}
    return [_with(a, offers.get(a.name, ()), names) for a in answers]


def _with(answer: Answer, offers: Sequence[Offer], names: dict[str, str]) -> Answer:
    asked = tuple(e for e in answer.evidence if e.source != MARKET)
    if not offers and len(asked) == len(answer.evidence):
        return answer
    evidence = (*asked, evidence_of_offers(offers, names)) if offers else asked
    if answer.status not in HELD or not asked:
        return replace(answer, evidence=evidence)
    by_source = {e.source: e for e in evidence}
    found = verdict(by_source, by_source.keys())
    if found.status not in HELD:
        # What was asked says otherwise than the status that was kept: that is not ours to mend.
        return replace(answer, evidence=evidence)
    return replace(answer, status=found.status, likely=found.likely, evidence=evidence)


def evidence_of_offers(offers: Sequence[Offer], names: dict[str, str]) -> Evidence:
    """What markets tell of one full name, as one piece of evidence: one that sells it goes before
    one that tells that it is let go, and the lowest price before others.
    """
    order = _in_order(offers)
    first = order[0]
    dropping = first.kind == "dropping"
    drops = (first.drops_from, first.drops_to) if first.drops_from and first.drops_to else None
    priced = first.price is not None and first.kind == "fixed"
    return Evidence(
        MARKET,
        "dropping" if dropping else "offered",
        max(offer.told for offer in offers),
        first.address,
        detail="; ".join(_told(offer, names) for offer in order)[:300],
        drops=drops if dropping else None,
        quote=Quote(first.currency, asked=first.price) if priced else None,
    )


def first_offer(offers: Sequence[Offer]) -> Offer | None:
    """The one that goes before all others, None where there is none."""
    return next(iter(_in_order(offers)), None)


def _in_order(offers: Sequence[Offer]) -> list[Offer]:
    return sorted(
        offers,
        key=lambda o: (
            o.kind == "dropping", not OFFER_KINDS[o.kind].priced, o.price is None, o.price or 0,
        ),
    )  # fmt: skip


def _told(offer: Offer, names: dict[str, str]) -> str:
    """One offer in words, with its figures: "auction at Hillfair, 120.00 EUR, 3 bids"."""
    words = [f"{OFFER_KINDS[offer.kind].word} at {names.get(offer.market, offer.market)}"]
    if offer.price is not None:
        words.append(f"{offer.price:.2f} {offer.currency}")
    if offer.kind == "auction":
        if offer.bids is not None:
            words.append("one bid" if offer.bids == 1 else f"{offer.bids} bids")
        if offer.ends is not None:
            words.append(f"ends on {offer.ends:%Y-%m-%d at %H:%M} UTC")
    return ", ".join(words)


def markets_to_spread() -> list[MarketRow]:
    """Markets whose list is another than what is known of names was brought up to."""
    return list(MarketRow.objects.exclude(edition=F("spread")))


def changed_by_lists(market: MarketRow) -> Iterator[tuple[int, int | None, list[Answer]]]:
    """What is known of names and is otherwise by the list of a market, by project and check."""
    lookup, offer = Lookup._meta.db_table, OfferRow._meta.db_table
    held = ", ".join(["%s"] * len(HELD))
    with connection.cursor() as cursor:
        cursor.execute(
            f"SELECT l.id FROM `{lookup}` l JOIN `{offer}` o ON o.label = l.label "  # noqa: S608 - our own names
            f"AND o.extension = l.extension WHERE o.market_id = %s AND l.status IN ({held}) "
            "AND l.imported = 0 ORDER BY l.project_id, l.check_run_id, l.id",
            [market.pk, *HELD],
        )
        ids = iter([row[0] for row in cursor.fetchall()])
    while chunk := list(islice(ids, AT_A_TIME)):
        rows = Lookup.objects.filter(pk__in=chunk).order_by("project_id", "check_run_id", "pk")
        for (project, check), mine in groupby(rows, lambda row: (row.project_id, row.check_run_id)):
            before = [_answer(row) for row in mine]
            found = [
                after
                for answer, after in zip(before, with_offers(before), strict=True)
                if (answer.status, answer.evidence) != (after.status, after.evidence)
            ]
            if found:
                yield project, check, found


def _answer(row: Lookup) -> Answer:
    return Answer(
        FullName(row.label, row.extension),
        cast(Status, row.status),
        row.asked_at or timezone.now(),
        row.likely,
        cast(Trouble, row.trouble),
        cast(Aim, row.aim),
        tuple(read_evidence(e) for e in row.evidence),
        reused=True,
    )
