"""Searches of the hunt and prices of sellers that are watched: looked at when a list is another."""

from __future__ import annotations

import logging
from collections.abc import Callable
from datetime import datetime
from typing import Any, Final

from django.db import transaction
from django.db.models import Max
from django.utils import timezone

from vinetag.apps.costs.markets import newest_price_list
from vinetag.apps.costs.models import PriceVersion
from vinetag.apps.hunting.hunts import Hunted, hunt_page
from vinetag.apps.market.models import MarketRow
from vinetag.apps.watching.models import Happening, Watch
from vinetag.core.market import parse_hunt

__all__ = ["look_at_prices", "look_at_searches"]

# Names told of one search at a time, the best; and how many are remembered as told.
MOST_TOLD: Final = 20
MOST_REMEMBERED: Final = 1_000

log = logging.getLogger(__name__)


def _each(kind: str, look: Callable[[Watch], int]) -> int:
    """What of one kind goes on, one after the other: one that fails leaves the others be."""
    going = Watch.objects.filter(kind=kind, ended_at=None, project__removed_at=None)
    count = 0
    for watch in going.select_related("project__owner"):
        try:
            count += look(watch)
        except Exception:
            log.exception("watch %d could not be looked at", watch.pk)
    return count


def look_at_searches() -> int:
    """Tell what lists of markets have anew for searches; how many things happened."""
    told = MarketRow.objects.exclude(told_at=None).values_list("code", "told_at")
    newest = {code: at.isoformat() for code, at in told if at is not None}
    return _each("hunt", lambda watch: _search(watch, newest))


def _search(watch: Watch, newest: dict[str, str]) -> int:
    looked: dict[str, str] | None = watch.known.get("looked")
    if looked is None:
        # What was there when it began is not new.
        return _put_down(watch, {"looked": newest}, None)
    if looked == newest:
        return 0
    # By market: a list that was read for long is older than one that was read meanwhile.
    since = {code: datetime.fromisoformat(at) for code, at in looked.items()}
    page = hunt_page(watch.project, parse_hunt(watch.asked["question"]), 0, MOST_TOLD, since=since)
    before: list[str] = watch.known.get("told", [])
    rows = [row for row in page.rows if _sign(row) not in before]
    told = [*before, *map(_sign, rows)][-MOST_REMEMBERED:]
    happening = None
    if rows:
        again = len(page.rows) - len(rows)
        happening = Happening(
            what="found",
            args={
                "title": watch.title,
                "count": max(len(rows), page.total - again),
                "names": [_shown(row) for row in rows],
            },
            sign=f"found {watch.pk} {max(newest.values())}",
        )
    return _put_down(watch, {"looked": newest, "told": told}, happening)


def _sign(row: Hunted) -> str:
    """What makes it the same offer: for another price it is told again."""
    offer = row.offer
    price = "" if offer.kind == "auction" else offer.price
    return f"{offer.name}@{offer.market}:{offer.kind}:{price}"


def _shown(row: Hunted) -> str:
    offer = row.offer
    price = f" ({offer.price:,.2f} {offer.currency})" if offer.price is not None else ""
    return f"{offer.name.shown}{price}"


def look_at_prices() -> int:
    """Tell what sellers' lists ask otherwise; how many things happened."""
    newest = PriceVersion.objects.order_by().values_list("seller__code").annotate(Max("pk"))
    versions = dict(newest)
    return _each("price", lambda watch: _price(watch, versions.get(watch.asked["seller"])))


def _price(watch: Watch, newest: int | None) -> int:
    asked = watch.asked
    today = timezone.localdate()
    seen = f"{newest} {today}"
    if watch.known.get("seen") == seen:
        return 0
    listed = newest_price_list(watch.project.owner, asked["seller"])
    now = ""
    if listed is not None:
        row = listed.prices.find(asked["extension"], asked["action"], 1, today)
        now = "" if row is None else f"{row.of(1):.2f} {listed.currency}"
    before = watch.known.get("price")
    happening = None
    if before is not None and before != now:
        happening = Happening(
            what="listed",
            args={
                "name": f".{asked['extension']}",
                "seller": listed.name if listed else asked["seller"],
                "action": asked["action"],
                "before": before,
                "after": now,
            },
            sign=f"listed {watch.pk} {newest} {today}",
        )
    return _put_down(watch, {"seen": seen, "price": now}, happening)


def _put_down(watch: Watch, known: dict[str, Any], happening: Happening | None) -> int:
    """Keep what is known now together with what happened, unless somebody else did meanwhile."""
    with transaction.atomic():
        row = Watch.objects.select_for_update().get(pk=watch.pk)
        if row.known != watch.known or row.ended_at is not None:
            return 0
        row.known = known
        row.save(update_fields=["known"])
        if happening is None:
            return 0
        happening.owner_id, happening.watch, happening.at = (
            watch.project.owner_id, row, timezone.now(),
        )  # fmt: skip
        Happening.objects.bulk_create([happening], ignore_conflicts=True)
    return 1
