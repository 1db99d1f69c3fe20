"""A person who buys: somebody to buy for, names in the basket, sellers that answer."""

from __future__ import annotations

import uuid
from collections.abc import Mapping, Sequence
from datetime import UTC, datetime
from decimal import Decimal
from typing import Any

from standins.world import World
from tests.conftest import Registry
from vinetag.apps.accounts.models import User
from vinetag.apps.ordering.models import Order, OrderName
from vinetag.apps.ordering.placing import Bought, make_order
from vinetag.core.names import FullName
from vinetag.core.ordering import Person, check_person

WORLD = World()
HOLDER = {
    "kind": "person", "name": "Edda Birchwell", "street": "4 Quay Lane", "city": "Port Ferris",
    "region": "Cork", "country": "IE", "phone": "+353 87 123 4567", "email": "edda@inkpost.example",
}  # fmt: skip


def holder(**other: Any) -> Person:
    return check_person({**HOLDER, **other})[0]


def fresh(count: int = 1, extension: str = "com") -> list[str]:
    """Names nobody in the simulated world has."""
    found: list[str] = []
    while len(found) < count:
        label = f"qx{uuid.uuid4().hex[:14]}"
        if WORLD.offer(label, extension, datetime.now(UTC)).kind == "usual":
            found.append(f"{label}.{extension}")
    return found


def an_order(
    person: User, names: Sequence[str], fee: str = "40.00", tax: str = "0.00",
    people: Mapping[str, Person] | None = None, **more: Any,
) -> Order:  # fmt: skip
    """One with Lantern Names that is to be paid."""
    who = people or dict.fromkeys(("registrant", "admin", "tech", "billing"), holder())
    bought = [
        Bought(FullName(*name.split(".", 1)), Decimal(fee), 1, people=who, **more) for name in names
    ]
    terms = {"rule": "charged", "country": "IE", "percent": "23"}
    return make_order(
        person, "lantern", "Lantern Names", "IE", "EUR", bought, Decimal(tax), terms, holder()
    )


def states(order: Order) -> list[str]:
    return list(
        OrderName.objects.filter(order=order).order_by("pk").values_list("state", flat=True)
    )


def held(registry: Registry, names: Sequence[str]) -> list[dict[str, Any]]:
    """What the sellers' own books say of names."""
    return [one for one in registry.books["held"] if one["name"] in set(names)]


def charged(registry: Registry, names: Sequence[str]) -> Decimal:
    charges = [c for c in registry.books["charge"] if c["name"] in set(names)]
    return sum((Decimal(c["amount"]) for c in charges), Decimal(0))
