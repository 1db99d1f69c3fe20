"""Names somebody owns, and how they come onto the list."""

from __future__ import annotations

from typing import Any

from rest_framework.test import APIClient

from tests.apps.bought import an_order, fresh
from vinetag.apps.accounts.models import User
from vinetag.apps.ordering import paying
from vinetag.apps.ordering.models import Errand, Order
from vinetag.apps.ordering.settling import work_on
from vinetag.apps.owning.keeping import adopt_ordered
from vinetag.apps.owning.models import OwnedName


def registered(person: User, count: int = 1, **more: Any) -> list[OwnedName]:
    """Names ordered here, and on the list."""
    order = an_order(person, fresh(count), **more)
    done(order)
    adopt_ordered(person)
    names = [str(n.name) for n in order.names.all()]
    return [row for row in OwnedName.objects.filter(owner=person) if str(row.name) in names]


def done(order: Order) -> None:
    paying.pay_by_credit(order)
    assert work_on(Errand.objects.get(order=order).pk)


def owned(person: User, count: int, **fields: Any) -> None:
    OwnedName.objects.bulk_create(
        OwnedName(owner=person, label=f"name{n}", extension="com", source="imported", **fields)
        for n in range(count)
    )


def put(api: APIClient, text: str, *, table: bool = False) -> Any:
    return api.post("/api/owned/table" if table else "/api/owned", {"text": text}).json()
