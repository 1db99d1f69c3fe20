"""Rules and transactions of the basket: one a person, whatever project a name is of."""

from __future__ import annotations

import re
import uuid
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any, Final

from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError, NotFoundError, RefusedError
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.catalogue import catalogue
from vinetag.apps.costs.markets import sellers_for
from vinetag.apps.naming.models import Project
from vinetag.apps.ordering.contacts import own_set
from vinetag.apps.ordering.models import BasketItem
from vinetag.apps.ordering.pricing import price_basket
from vinetag.apps.ordering.reviews import plan
from vinetag.core.checking.pasted import read_name
from vinetag.core.errors import CoreError, Problem
from vinetag.core.names import FullName, is_ldh_label

__all__ = [
    "MOST_ITEMS", "Added", "add_names", "basket_of", "bring_back", "change_items", "own_item",
    "read_servers", "take_out",
]  # fmt: skip

MOST_ITEMS: Final = 100
MOST_SERVERS: Final = 13
MOST_YEARS: Final = 10
MOST_TOLD: Final = 20
COUPON: Final = re.compile(r"[\w.+-]{0,40}")


# What of an item its price goes by.
PRICED_BY: Final = frozenset({"years", "privacy", "seller", "coupon"})


@dataclass(frozen=True, slots=True)
class Added:
    """How many names were put in, and which were there already."""

    count: int
    there: Sequence[str]


def basket_of(person: User) -> QuerySet[BasketItem]:
    """What is in a person's basket, in the order it was put in."""
    mine = BasketItem.objects.filter(project__owner=person, project__removed_at=None)
    ready = mine.filter(removed_at=None).order_by("pk")
    return ready.select_related("project", "contacts")


def own_item(person: User, item_id: int) -> BasketItem:
    """One of it. Raises NotFoundError, also for someone else's."""
    found = basket_of(person).filter(pk=item_id).first()
    if found is None:
        raise NotFoundError
    return found


def add_names(project: Project, names: Sequence[str], seller: str = "", years: int = 1) -> Added:
    """Put full names in, as they were typed; what they cost by now is what is planned. Raises
    RefusedError, every problem with its place, and ConflictError where it is too much; nothing is
    put in then.
    """
    found = _read(names)
    _check({"seller": seller, "years": years}, project.owner)
    with transaction.atomic():
        User.objects.select_for_update().get(pk=project.owner_id)
        there = {item.name for item in basket_of(project.owner)}
        new = [name for name in found if name not in there]
        if len(there) + len(new) > MOST_ITEMS:
            message = (
                f"At most {MOST_ITEMS} names in the basket: there are {len(there)}, and these are "
                f"{len(new)} more. Nothing was put in."
            )
            raise ConflictError("too_many", message)
        for name in new:
            # One that was taken out before is put in as if for the first time.
            BasketItem.objects.filter(
                project=project, label=name.label, extension=name.extension
            ).delete()
            BasketItem.objects.create(
                project=project, label=name.label, extension=name.extension, seller=seller,
                years=years,
            )  # fmt: skip
    _plan(project.owner, lambda item: not item.planned)
    return Added(len(new), [name.shown for name in found if name in there])


def _read(names: Sequence[str]) -> list[FullName]:
    known = {entry.extension for entry in catalogue()}
    problems: list[Problem] = []
    found: dict[FullName, None] = {}
    if not names:
        problems.append(Problem("names", "blank"))
    for place, typed in enumerate(names[: 10 * MOST_ITEMS]):
        try:
            label, extension = read_name(typed)
        except CoreError as error:
            problems += [Problem(f"names.{place}", p.code, p.args) for p in error.problems]
            continue
        if extension not in known:
            args = {"value": extension or "?"}
            problems.append(Problem(f"names.{place}", "extension_unknown", args))
            continue
        found[FullName(label, extension)] = None
    if problems:
        raise RefusedError(problems[:MOST_TOLD])
    return list(found)


def change_items(person: User, items: Sequence[BasketItem], part: dict[str, Any]) -> None:
    """Buy these otherwise: any of years, renewal, privacy, servers, coupon, seller and contacts
    (the number of a set). Raises RefusedError.
    """
    if part.get("contacts") is not None:
        try:
            part["contacts"] = own_set(person, part["contacts"])
        except NotFoundError:
            args = {"value": part["contacts"], "choices": "your sets of contacts"}
            raise RefusedError([Problem("contacts", "unknown_choice", args)]) from None
    if "servers" in part:
        part["servers"] = read_servers(part["servers"])
    _check(part, person)
    with transaction.atomic():
        rows = BasketItem.objects.select_for_update().filter(pk__in=[item.pk for item in items])
        for row in rows:
            if row.removed_at is not None:
                continue
            for name, value in part.items():
                setattr(row, name, value)
            row.save()
        if "contacts" in part:
            # Whether its owner may have it, and the seller knows them, is to be looked at again.
            rows.update(seen={})
    if PRICED_BY & part.keys():
        pks = {item.pk for item in items}
        _plan(person, lambda item: item.pk in pks)


def _plan(person: User, which: Callable[[BasketItem], bool]) -> None:
    items = list(basket_of(person))
    plan([item for item in items if which(item)], price_basket(person, items))


def _check(part: dict[str, Any], person: User) -> None:
    problems: list[Problem] = []
    years = part.get("years", 1)
    if not 1 <= years <= MOST_YEARS:
        args = {"low": 1, "high": MOST_YEARS, "value": years}
        problems.append(Problem("years", "out_of_range", args))
    seller = part.get("seller", "")
    if seller and not sellers_for(person).filter(code=seller).exists():
        args = {"value": seller[:40], "choices": "the sellers there are"}
        problems.append(Problem("seller", "unknown_choice", args))
    if not COUPON.fullmatch(part.get("coupon", "")):
        problems.append(Problem("coupon", "coupon_code", {"value": part["coupon"][:40]}))
    if problems:
        raise RefusedError(problems)


def read_servers(given: Sequence[str]) -> list[str]:
    """Host names of name servers (RFC 952, 1123). Raises RefusedError."""
    found = [text.strip().lower().rstrip(".") for text in given if text.strip()]
    problems = [
        Problem(f"servers.{place}", "host_name", {"value": text[:60]})
        for place, text in enumerate(found)
        if len(text) > 253 or "." not in text or not all(map(is_ldh_label, text.split(".")))
    ]
    if len(found) > MOST_SERVERS:
        args = {"limit": MOST_SERVERS, "count": len(found)}
        problems.append(Problem("servers", "too_many", args))
    if len(found) == 1:
        problems.append(Problem("servers", "too_few", {"limit": 2}))
    if problems:
        raise RefusedError(problems)
    return list(dict.fromkeys(found))


def take_out(items: Sequence[BasketItem]) -> str:
    """Take these out; by what comes back they can be brought back."""
    batch = uuid.uuid4().hex
    rows = BasketItem.objects.filter(pk__in=[item.pk for item in items], removed_at=None)
    rows.update(removed_at=timezone.now(), batch=batch)
    return batch


def bring_back(person: User, batch: str) -> int:
    """What was taken out together is in it again, unless it was put in anew; how many."""
    mine = BasketItem.objects.filter(project__owner=person, project__removed_at=None)
    with transaction.atomic():
        User.objects.select_for_update().get(pk=person.pk)
        there = {item.name for item in basket_of(person)}
        rows = [
            row for row in mine.filter(batch=batch, removed_at__isnull=False)
            if batch and row.name not in there
        ]  # fmt: skip
        room = max(0, MOST_ITEMS - len(there))
        back = mine.filter(pk__in=[row.pk for row in rows[:room]])
        return back.update(removed_at=None, batch="")
