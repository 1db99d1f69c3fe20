"""Placing an order: what is in the basket becomes one order a seller, to be paid."""

from __future__ import annotations

import uuid
from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass, field
from datetime import datetime
from decimal import Decimal
from typing import Any, Final

from django.db import transaction
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError, NotFoundError
from vinetag.apps.accounts.models import User
from vinetag.apps.naming.models import Project
from vinetag.apps.ordering.basket import basket_of
from vinetag.apps.ordering.models import BasketItem, Order, OrderName
from vinetag.apps.ordering.owners import Owners, owners_of
from vinetag.apps.ordering.pricing import SellerOrder, price_basket
from vinetag.apps.ordering.reviews import reviewed_of
from vinetag.apps.ordering.sealing import sealed
from vinetag.core.cost import Order as Priced
from vinetag.core.names import FullName
from vinetag.core.ordering import Person, share_out

__all__ = [
    "CODES", "Bought", "basket_batch", "make_order", "orders_of", "own_order", "place_basket",
    "total_of",
]  # fmt: skip

CENT: Final = Decimal("0.01")
# Beside the sets of people of an order: by which code its names are moved, and from where.
CODES: Final = "codes"


@dataclass(frozen=True)
class Bought:
    """A name of an order to be made; `fee` without tax, in the seller's currency. What is moved
    comes by its `code`; `held_at` is the seller it is at, where our account has it there.
    """

    name: FullName
    fee: Decimal
    years: int
    project: Project | None = None
    action: str = "register"
    ran_until: datetime | None = None
    renewal: str = "ask"
    privacy: bool = False
    premium: bool = False
    coupon: str = ""
    servers: Sequence[str] = ()
    people: Mapping[str, Person] = field(default_factory=dict)
    code: str = ""
    held_at: str = ""


def orders_of(person: User) -> Sequence[Order]:
    """A person's, the newest first."""
    return list(person.orders.prefetch_related("names", "entries").order_by("-pk"))


def own_order(person: User, order_id: int) -> Order:
    """One of them. Raises NotFoundError, also for someone else's."""
    found = person.orders.filter(pk=order_id).first()
    if found is None:
        raise NotFoundError
    return found


def total_of(order: Order) -> Decimal:
    """What an order comes to, tax and all."""
    return sum((name.amount for name in order.names.all()), Decimal("0.00"))


def basket_batch(order_id: int) -> str:
    """By what names of an order that is called off are brought back into the basket."""
    return f"order-{order_id}"


def place_basket(person: User) -> list[Order]:
    """Order all of the basket: an order a seller. It is empty afterwards, however many windows ask
    for it. Raises ConflictError where something of it cannot be ordered here as it stands.
    """
    with transaction.atomic():
        User.objects.select_for_update().get(pk=person.pk)
        items = list(basket_of(person))
        if not items:
            message = "There is nothing in the basket. It may have been ordered in another window."
            raise ConflictError("empty", message)
        prices, owners = price_basket(person, items), owners_of(person)
        for item in items:
            seen = reviewed_of(item, prices.items[item.pk], prices.currency, owners)
            if not seen.here:
                why = seen.not_here or "Look at it once more."
                raise ConflictError("not_ready", f"{item.name} cannot be ordered here. {why}")
        by_seller: dict[str, list[SellerOrder]] = {}
        for one in prices.orders:
            by_seller.setdefault(one.seller, []).append(one)
        return [_place(person, parts, owners) for parts in by_seller.values()]


def _place(person: User, parts: Sequence[SellerOrder], owners: Owners) -> Order:
    """One order of what is bought of a seller, in both ways of showing the holder."""
    bought, tax = [], Decimal(0)
    for part in parts:
        tax += _tax_of(part.order)
        for item in part.items:
            bought.append(_bought(item, part.order, owners))
    first = parts[0]
    buyer = owners.payer or Person()
    order = make_order(
        person, first.seller, first.name, first.country, str(first.order.total.currency.code),
        bought, tax, terms_of(first.order), buyer,
    )  # fmt: skip
    pks = [item.pk for part in parts for item in part.items]
    gone = BasketItem.objects.filter(pk__in=pks)
    gone.update(removed_at=timezone.now(), batch=basket_batch(order.pk))
    return order


def _bought(item: BasketItem, order: Priced, owners: Owners) -> Bought:
    fee = sum((ln.amount for ln in order.lines if ln.full_name == str(item.name)), Decimal(0))
    said = item.seen.get("gateway") or {}
    return Bought(
        item.name, fee, item.years, item.project, renewal=item.renewal, privacy=item.privacy,
        premium=bool(said.get("premium")), coupon=item.coupon, servers=item.servers,
        people=owners.people_of(item),
    )  # fmt: skip


def _tax_of(order: Priced) -> Decimal:
    return sum((line.amount for line in order.lines if line.kind == "tax"), Decimal(0))


def terms_of(order: Priced) -> dict[str, Any]:
    """How an order is taxed, as it is kept."""
    rate, home = order.tax.rate, {line.kind: line for line in order.lines}
    within = home["tax_within"].args.get("held") if "tax_within" in home else None
    return {
        "rule": order.tax.rule,
        "country": order.tax.country,
        "percent": None if rate is None else str((rate * 100).normalize()),
        "within": within is not None,
    }


def make_order(
    person: User, seller: str, seller_name: str, seller_country: str, currency: str,
    bought: Sequence[Bought], tax: Decimal, terms: Mapping[str, Any], buyer: Person,
) -> Order:  # fmt: skip
    """Write an order down, its tax shared out among its names to the cent."""
    shares = share_out(tax.quantize(CENT), [one.fee for one in bought])
    sets: dict[str, dict[str, Any]] = {}
    keys = []
    for one in bought:
        document = {role: asdict(who) for role, who in one.people.items()}
        keys.append(next((k for k, known in sets.items() if known == document), ""))
        if not keys[-1]:
            keys[-1] = str(len(sets) + 1)
            sets[keys[-1]] = document
    codes = {str(b.name): {"code": b.code, "at": b.held_at} for b in bought if b.action == "move"}
    if codes:
        sets[CODES] = codes
    order = Order.objects.create(
        owner=person, seller=seller, seller_name=seller_name, seller_country=seller_country,
        currency=currency, terms=dict(terms), people=sealed(person.pk, sets),
        buyer=sealed(person.pk, asdict(buyer)),
    )  # fmt: skip
    order.number = f"{order.placed_at:%Y}-{order.pk:06}"
    order.save(update_fields=["number"])
    OrderName.objects.bulk_create(
        OrderName(
            order=order, project=one.project, label=one.name.label, extension=one.name.extension,
            years=one.years, action=one.action, ran_until=one.ran_until, renewal=one.renewal,
            privacy=one.privacy, premium=one.premium, coupon=one.coupon,
            servers=list(one.servers), people_set=key,
            fee=one.fee, tax=share, trid=f"VT-{uuid.uuid4().hex}",
        )
        for one, share, key in zip(bought, shares, keys, strict=True)
    )  # fmt: skip
    return order
