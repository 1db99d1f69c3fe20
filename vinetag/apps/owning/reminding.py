"""Told before a name runs out, and while it can still be had back; each thing once."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import datetime, timedelta
from typing import Any, Final

from django.db import transaction
from django.utils import timezone

from vinetag.apps.accounts.models import User
from vinetag.apps.owning.listing import LONGEST_AFTER
from vinetag.apps.owning.models import OwnedName
from vinetag.apps.owning.pricing import having_back
from vinetag.apps.watching.models import Happening
from vinetag.core.owning import BEFORE, Due, due_reminder

__all__ = ["remind", "tell"]

CHUNK: Final = 2_000
# What is told of a name that may have to be had back, or has to.
LAPSING: Final = frozenset({"ran_out", "grace_ends", "redemption", "redemption_ends"})


def remind(now: datetime | None = None) -> int:
    """Tell what there is to tell of all names now; how many things."""
    now = now or timezone.now()
    rows = OwnedName.objects.filter(
        left_at=None,
        expires_at__lte=now + timedelta(days=max(BEFORE)),
        expires_at__gt=now - LONGEST_AFTER,
    )
    wanted = ("pk", "owner_id", "label", "extension", "expires_at", "reminded", "yearly")
    more = ("yearly_currency", "renewal", "seller")
    count, some = 0, []
    for row in rows.only(*wanted, *more).order_by("pk").iterator(CHUNK):
        assert row.expires_at is not None  # noqa: S101 - asked for above
        due = due_reminder(row.expires_at, row.extension, now)
        if due is not None and due.sign != row.reminded:
            some.append((row, due))
        if len(some) == CHUNK:
            count += _tell(some, now)
            some = []
    return count + _tell(some, now)


def _tell(some: list[tuple[OwnedName, Due]], now: datetime) -> int:
    back = _having_back(some)
    with transaction.atomic():
        happened = []
        for row, due in some:
            row.reminded = due.sign
            happened.append(_happening(row, due, now, back.get(row.pk, "")))
        Happening.objects.bulk_create(happened, ignore_conflicts=True)
        by_sign: dict[str, list[int]] = {}
        for row, due in some:
            by_sign.setdefault(due.sign, []).append(row.pk)
        for sign, pks in by_sign.items():
            OwnedName.objects.filter(pk__in=pks).update(reminded=sign)
    return len(some)


def _having_back(some: Sequence[tuple[OwnedName, Due]]) -> dict[int, str]:
    """What having those back costs that may have to be, as text, by their number."""
    lapsing: dict[int, list[OwnedName]] = {}
    for row, due in some:
        if due.of in LAPSING and row.seller:
            lapsing.setdefault(row.owner_id, []).append(row)
    found: dict[int, str] = {}
    for person in User.objects.filter(pk__in=lapsing):
        rows = lapsing[person.pk]
        known = having_back(person, {(row.seller, row.extension) for row in rows})
        for row in rows:
            if (money := known.get((row.seller, row.extension))) is not None:
                found[row.pk] = f"{money.amount:.2f} {money.currency.code}"
    return found


def _happening(row: OwnedName, due: Due, now: datetime, back: str) -> Happening:
    args: dict[str, Any] = {"of": due.of, "after": due.when.isoformat(), "renewal": row.renewal}
    if row.yearly is not None:
        args["cost"] = f"{row.yearly:.2f} {row.yearly_currency}"
    if back:
        args["back"] = back
    return _of(row, args, f"owned {row.pk} {due.sign}", now)


def tell(row: OwnedName, of: str, mark: str, args: Mapping[str, Any]) -> None:
    """Tell that something came of a name, once for a mark."""
    given = {"of": of, "after": "", **args}
    one = _of(row, given, f"owned {row.pk} {mark}", timezone.now())
    Happening.objects.bulk_create([one], ignore_conflicts=True)


def _of(row: OwnedName, args: dict[str, Any], sign: str, now: datetime) -> Happening:
    return Happening(
        owner_id=row.owner_id, watch=None, label=row.label, extension=row.extension, what="owned",
        args={"name": row.name.shown, "before": "", **args}, sign=sign, at=now,
    )  # fmt: skip
