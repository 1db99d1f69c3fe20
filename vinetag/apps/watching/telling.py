"""What became of watched names, told once: each answer is compared with what was known, and what
is otherwise is written down together with the new knowledge, or neither is.
"""

from __future__ import annotations

import hashlib
from collections.abc import Mapping, Sequence
from datetime import datetime, timedelta
from typing import Any, Final

from django.db import connection, transaction
from django.db.models import F, prefetch_related_objects
from django.utils import timezone

from vinetag.apps.availability.models import Lookup
from vinetag.apps.availability.offered import first_offer
from vinetag.apps.market.offers import market_names, offers_of
from vinetag.apps.watching.models import Happening, Watch, Watched
from vinetag.core.checking import read_evidence
from vinetag.core.concepts import OFFER_KINDS, WATCH_KINDS
from vinetag.core.market import Offer
from vinetag.core.names import FullName
from vinetag.core.watching import (
    Change,
    Seen,
    changes,
    next_reminder,
    next_turn,
    read_seen,
    retry_turn,
    write_seen,
)

__all__ = ["remind", "tell_changes"]

CHUNK: Final = 500
OF_NAMES: Final = tuple(kind.name for kind in WATCH_KINDS.values() if kind.of_names)
NO_ANSWER: Final = ("unsure", Lookup.WAITING)
LEARNT: Final = (
    "known", "number", "asked_at", "next_at", "urgent", "remind_at", "failures", "trouble",
)  # fmt: skip
A_MOMENT: Final = timedelta(microseconds=1)


def tell_changes() -> int:
    """Compare new answers with what was known of watched names; how many things happened."""
    count = 0
    going = Watch.objects.filter(kind__in=OF_NAMES, ended_at=None, project__removed_at=None)
    behind = going.filter(project__answers__gt=F("answers")).select_related("project")
    for watch in behind:
        upto = watch.project.answers
        while (told := _tell_some(watch)) is not None:
            count += told
        Watch.objects.filter(pk=watch.pk).update(answers=upto)
    return count


def _tell_some(watch: Watch) -> int | None:
    """One transaction's worth of names with a new answer; None when there are none."""
    watched, lookup = Watched._meta.db_table, Lookup._meta.db_table
    with connection.cursor() as cursor:
        cursor.execute(
            f"SELECT w.id, l.id FROM `{watched}` w JOIN `{lookup}` l ON l.project_id = %s "  # noqa: S608 - our own names
            "AND l.label = w.label AND l.extension = w.extension "
            "WHERE w.watch_id = %s AND l.number > w.number AND l.imported = 0 "
            "ORDER BY w.id LIMIT %s",
            [watch.project_id, watch.pk, CHUNK],
        )
        pairs = dict(cursor.fetchall())
    if not pairs:
        return None
    with transaction.atomic():
        rows = list(Watched.objects.select_for_update().filter(pk__in=pairs).order_by("pk"))
        answers = Lookup.objects.in_bulk(pairs.values())
        names = {FullName(row.label, row.extension) for row in rows}
        offers, markets = offers_of(names), market_names()
        happened: list[Happening] = []
        for row in rows:
            answer = answers.get(pairs[row.pk])
            if answer is None or answer.number <= row.number:
                continue
            told = offers.get(FullName(row.label, row.extension), ())
            happened += _look(watch, row, answer, first_offer(told), markets)
        # Nothing is told twice, whatever became of the worker that told it.
        Happening.objects.bulk_create(happened, ignore_conflicts=True)
        Watched.objects.bulk_update(rows, LEARNT, CHUNK)
    return len(happened)


def _look(
    watch: Watch, row: Watched, answer: Lookup, offer: Offer | None, markets: Mapping[str, str]
) -> list[Happening]:
    """Take in one answer: the row knows it afterwards. What happened."""
    row.number = answer.number
    if answer.status in NO_ANSWER or answer.asked_at is None:
        row.failures += 1
        row.trouble = answer.trouble
        if row.next_at is not None:
            row.next_at = retry_turn(timezone.now(), row.failures).at
        return []
    before = read_seen(row.known)
    after = _seen(answer, offer, markets)
    row.known, row.asked_at = write_seen(after), answer.asked_at
    row.failures, row.trouble = 0, ""
    expiry = watch.kind == "expiry"
    if row.next_at is not None:
        turn = next_turn(after, answer.asked_at)
        row.next_at, row.urgent = turn.at, turn.urgent
        reminder = next_reminder(after, timezone.now(), expiry=expiry)
        row.remind_at = reminder.at if reminder else None
    found = changes(before, after, expiry_only=expiry)
    return [_happening(watch, row, one, after, _said_at(answer)) for one in found]


def _said_at(answer: Lookup) -> datetime:
    """When the youngest of what an answer rests on was said: a list may be younger than it."""
    moments = [read_evidence(one).at for one in answer.evidence]
    return max([*moments, answer.asked_at or timezone.now()])


def _seen(answer: Lookup, offer: Offer | None, markets: Mapping[str, str]) -> Seen:
    held = answer.status in ("taken", "offered", "dropping")
    sold = offer if offer is not None and held and offer.kind != "dropping" else None
    drops = answer.drops_from, answer.drops_to
    priced = not held and answer.first_year is not None
    return Seen(
        status=answer.status,
        expires=answer.expires if held else None,
        drops_from=drops[0] if answer.status == "dropping" else None,
        drops_to=drops[1] if answer.status == "dropping" else None,
        kind=sold.kind if sold else "",
        market=markets.get(sold.market, sold.market) if sold else "",
        price=sold.price if sold else None,
        currency=sold.currency if sold else "",
        ends=sold.ends if sold else None,
        first_year=answer.first_year if priced else None,
        renewal=answer.renewal if priced else None,
        terms_currency=answer.currency if priced else "",
    )


def _happening(
    watch: Watch, row: Watched, change: Change, seen: Seen, said_at: datetime
) -> Happening:
    name = FullName(row.label, row.extension)
    args: dict[str, Any] = {"name": name.shown, "before": change.before, "after": change.after}
    if change.what == "status":
        if seen.kind:
            args["more"] = _offer_words(seen)
        if seen.drops_from and seen.drops_to:
            args["range"] = f"{seen.drops_from.isoformat()}/{seen.drops_to.isoformat()}"
    return Happening(
        owner_id=watch.project.owner_id,
        watch=watch,
        label=row.label,
        extension=row.extension,
        what=change.what,
        args=args,
        # The same answer in another project, or under another watch, is the same thing.
        sign=_sign(name, change.what, said_at.isoformat(), change.before, change.after),
        at=said_at,
    )


def _sign(*parts: object) -> str:
    return hashlib.sha256(" ".join(map(str, parts)).encode()).hexdigest()


def _offer_words(seen: Seen) -> str:
    words = f"{OFFER_KINDS[seen.kind].word} at {seen.market}"  # type: ignore[index]
    return words if seen.price is None else f"{words}, {seen.price:,.2f} {seen.currency}"


def remind() -> int:
    """Tell what is near: an auction's end, a drop, the day a name runs out; how many."""
    now, count = timezone.now(), 0
    while pks := _near(now):
        with transaction.atomic():
            rows = list(Watched.objects.select_for_update().filter(pk__in=pks))
            prefetch_related_objects(rows, "watch__project")
            happened = [one for row in rows if (one := _remind(row, now))]
            Happening.objects.bulk_create(happened, ignore_conflicts=True)
            Watched.objects.bulk_update(rows, ["remind_at"], CHUNK)
        count += len(happened)
    return count


def _near(now: datetime) -> Sequence[int]:
    due = Watched.objects.filter(remind_at__lte=now, watch__project__removed_at=None)
    return list(due.order_by("remind_at").values_list("pk", flat=True)[:CHUNK])


def _remind(row: Watched, now: datetime) -> Happening | None:
    """What is to be told of it now, if it still is; when the next is, is put down."""
    if row.remind_at is None:
        return None
    seen, expiry = read_seen(row.known), row.watch.kind == "expiry"
    due = next_reminder(seen, row.remind_at - A_MOMENT, expiry=expiry)
    later = next_reminder(seen, now, expiry=expiry)
    row.remind_at = later.at if later else None
    if due is None or not due.at <= now < due.when:
        return None
    name = FullName(row.label, row.extension)
    return Happening(
        owner_id=row.watch.project.owner_id,
        watch=row.watch,
        label=row.label,
        extension=row.extension,
        what="near",
        args={"name": name.shown, "of": due.of, "before": "", "after": due.when.isoformat()},
        sign=_sign(name, "near", due.of, due.before, f"{due.when:%Y-%m-%d}"),
        at=now,
    )
