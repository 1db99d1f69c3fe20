"""Renewing names: what it costs is asked of the seller and agreed to, then ordered as anything
else. By itself only where somebody said so, up to the ceiling they agreed to.
"""

from __future__ import annotations

import hashlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from decimal import Decimal
from typing import Final

from django.core.cache import cache
from django.db import transaction
from django.db.models import Q
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError
from vinetag.apps.accounts.models import User
from vinetag.apps.costs.listing import usual_currency
from vinetag.apps.costs.markets import market_for
from vinetag.apps.ordering.gateways import has_gateway, session
from vinetag.apps.ordering.models import Order, OrderName
from vinetag.apps.ordering.owners import owners_of
from vinetag.apps.ordering.paying import can_use_credit, pay_by_credit
from vinetag.apps.ordering.placing import Bought, make_order, terms_of
from vinetag.apps.ordering.pricing import buyer_of
from vinetag.apps.owning.holding import is_theirs
from vinetag.apps.owning.models import OwnedName
from vinetag.apps.owning.pricing import closed_order
from vinetag.apps.owning.reminding import tell
from vinetag.core.cost import (
    Buyer,
    Item,
    Market,
    RateError,
    Term,
    privacy_lines,
)
from vinetag.core.money import Money
from vinetag.core.ordering import Person, said_in_words
from vinetag.lookup.epp import Checked, Done, FeeAction, Gateway, Seen

__all__ = [
    "MOST_AT_ONCE", "OneRenewal", "Renewal", "adopt_renewed", "order_renewal",
    "renew_by_itself", "renewal_of",
]  # fmt: skip

MOST_AT_ONCE: Final = 200
CHUNK: Final = 50
SECONDS: Final = 8.0
OVER: Final = 5
# Renewed by itself from so long before it runs out on, and tried again so often.
BY_ITSELF: Final = timedelta(days=30)
EVERY: Final = 3_600
OPEN: Final = ("agreed", "paid", "sent", "pending")


@dataclass(frozen=True)
class OneRenewal:
    """What is done with a name that runs out at `until` by the seller, and for how much with tax in
    `currency`; or `why_not`. `elsewhere` is a seller with whom it costs less over five years,
    beginning with a move: `there` against `here`.
    """

    row: OwnedName
    action: FeeAction = "renew"
    until: datetime | None = None
    fee: Decimal | None = None
    amount: Decimal | None = None
    currency: str = ""
    why_not: str = ""
    elsewhere: str = ""
    here: Decimal | None = None
    there: Decimal | None = None


@dataclass(frozen=True)
class Renewal:
    """All of them, what each seller gets, and what is agreed to by its `sign`."""

    names: Sequence[OneRenewal]
    totals: Mapping[str, tuple[str, Decimal, str]]
    years: int
    sign: str


def renewal_of(person: User, rows: Sequence[OwnedName], years: int) -> Renewal:
    """What renewing these costs now, by their sellers' gateways. Raises ConflictError for too many
    at once.
    """
    if len(rows) > MOST_AT_ONCE:
        message = f"At most {MOST_AT_ONCE} names are renewed at once: these are {len(rows):,}."
        raise ConflictError("too_many", message)
    buyer = replace(buyer_of(owners_of(person), ()), privacy=False)
    market = market_for(person, buyer, usual_currency(person))
    under_way = _under_way(person)
    found: list[OneRenewal] = []
    by_seller: dict[str, list[OneRenewal]] = {}
    for row in rows:
        one = _possible(row, under_way)
        if one.why_not:
            found.append(one)
        else:
            by_seller.setdefault(row.seller, []).append(one)
    for seller, some in by_seller.items():
        asked = _asked(seller, some, years)
        found += [_priced(market, one, years) for one in asked]
    found.sort(key=lambda one: (one.row.label, one.row.extension))
    totals: dict[str, tuple[str, Decimal, str]] = {}
    for one in found:
        if one.amount is not None:
            _, before, _ = totals.get(one.row.seller, ("", Decimal(0), ""))
            name = one.row.seller_name or one.row.seller
            totals[one.row.seller] = name, before + one.amount, one.currency
    return Renewal(found, totals, years, _sign(found, years))


def _sign(found: Sequence[OneRenewal], years: int) -> str:
    about = [
        f"{o.row.pk} {o.action} {o.amount} {o.currency}" for o in found if o.amount is not None
    ]
    return hashlib.sha256(" ".join([str(years), *about]).encode()).hexdigest()[:32]


def _under_way(person: User) -> dict[tuple[str, str], str]:
    rows = OrderName.objects.filter(
        order__owner=person, state__in=OPEN, action__in=("renew", "restore", "move")
    ).exclude(order__stage=Order.Stage.CALLED_OFF)
    return {(r.label, r.extension): str(r.order.number) for r in rows.select_related("order")}


def _possible(row: OwnedName, under_way: Mapping[tuple[str, str], str]) -> OneRenewal:
    number = under_way.get((row.label, row.extension))
    if number:
        return OneRenewal(row, why_not=f"It is in order {number} already.")
    if not row.seller or not has_gateway(row.seller):
        where = row.seller_name or "Its seller"
        return OneRenewal(row, why_not=f"{where} takes no orders from here: renew it there.")
    return OneRenewal(row)


def _asked(seller: str, some: Sequence[OneRenewal], years: int) -> list[OneRenewal]:
    """What the seller's gateway says of these, and asks for them."""
    found: list[OneRenewal] = []
    with session(seller, SECONDS) as (gateway, done):
        if done.trouble:
            words = said_in_words(done.code, done.trouble)
            return [replace(one, why_not=words) for one in some]
        seen = [_seen(one, gateway.info(str(one.row.name))) for one in some]
        found += [one for one in seen if one.why_not]
        actions: tuple[FeeAction, ...] = ("renew", "restore")
        for action in actions:
            of_it = [one for one in seen if one.action == action and not one.why_not]
            for start in range(0, len(of_it), CHUNK):
                part = of_it[start : start + CHUNK]
                names = [str(one.row.name) for one in part]
                found += _fees(gateway, part, names, action, years)
    return found


def _seen(one: OneRenewal, seen: Seen) -> OneRenewal:
    """Whether the seller has it for us, until when, and whether it has to be had back."""
    if seen.whose == "unknown":
        return replace(one, why_not=said_in_words(seen.code, seen.trouble))
    if not is_theirs(one.row, seen) or seen.expires is None:
        return replace(one, why_not="It was not registered here for you: renew it at its seller.")
    back = "redemptionPeriod" in seen.grace
    if "pendingDelete" in seen.statuses and not back:
        return replace(one, why_not="It can no longer be had back.")
    return replace(one, action="restore" if back else "renew", until=seen.expires)


def _fees(
    gateway: Gateway, part: Sequence[OneRenewal], names: Sequence[str], action: FeeAction,
    years: int,
) -> list[OneRenewal]:  # fmt: skip
    """With what is asked: getting a name back comes with a year."""
    found = list(part)
    wanted: tuple[FeeAction, ...] = ("restore", "renew") if action == "restore" else ("renew",)
    for what in wanted:
        answer = gateway.check(names, years if action == "renew" else 1, what)
        if isinstance(answer, Done):
            words = said_in_words(answer.code, answer.trouble)
            return [replace(one, fee=None, why_not=words) for one in part]
        found = list(map(_told, found, answer))
    return found


def _told(one: OneRenewal, checked: Checked) -> OneRenewal:
    if checked.fee is None or one.why_not:
        return replace(one, fee=None, why_not="The seller names no price for it.")
    fee = (one.fee or Decimal(0)) + checked.fee
    return replace(one, fee=fee, currency=checked.currency)


def _priced(market: Market, one: OneRenewal, years: int) -> OneRenewal:
    """With what stands beside the fee, tax, and what it would be elsewhere."""
    terms = market.sellers.get(one.row.seller)
    if one.fee is None or terms is None or terms.currency != one.currency:
        known = one.why_not or "Its seller's terms are not known here."
        return replace(one, fee=None, why_not=known)
    item = Item(one.row.label, one.row.extension, "renew", years if one.action == "renew" else 1)
    buyer = replace(market.buyer, privacy=bool(one.row.privacy))
    beside = privacy_lines(terms, market.prices[terms.code], item, market.today, buyer)
    fee = one.fee + sum((line.amount for line in beside), Decimal(0))
    order = closed_order(market, one.row.seller, [(item.full_name, item.extension, fee)])
    here, seller, there = _elsewhere(market, one.row)
    return replace(
        one, fee=fee, amount=order.total.amount, here=here, elsewhere=seller, there=there
    )  # fmt: skip


def _elsewhere(market: Market, row: OwnedName) -> tuple[Decimal | None, str, Decimal | None]:
    """What staying comes to over five years, and with whom it would be less, beginning with a
    move, which adds a year; in the person's currency.
    """

    def yearly(code: str, action: str) -> int | None:
        try:
            priced = market.price(Term(code, row.extension, action, 1, market.today))  # type: ignore[arg-type]
        except RateError:
            return None
        return None if priced is None else priced.amount

    stay = yearly(row.seller, "renew")
    if stay is None:
        return None, "", None
    best: tuple[int, str] | None = None
    for code in market.prices:
        move, renew = yearly(code, "move"), yearly(code, "renew")
        if code == row.seller or move is None or renew is None:
            continue
        whole = move + (OVER - 1) * renew
        if whole < OVER * stay and (best is None or whole < best[0]):
            best = whole, code
    here = Decimal(OVER * stay) / 1000
    if best is None:
        return here, "", None
    return here, market.sellers[best[1]].name, Decimal(best[0]) / 1000


def order_renewal(person: User, renewal: Renewal) -> list[Order]:
    """An order a seller of all that can be renewed. Raises ConflictError where nothing can, or some
    of it is in an order by now.
    """
    with transaction.atomic():
        User.objects.select_for_update().get(pk=person.pk)
        under_way = _under_way(person)
        for one in renewal.names:
            if one.amount is not None and (one.row.label, one.row.extension) in under_way:
                raise ConflictError("changed_elsewhere", f"{one.row.name} is in an order by now.")
        return _make_orders(person, renewal)


def _make_orders(person: User, renewal: Renewal) -> list[Order]:
    owners = owners_of(person)
    buyer = buyer_of(owners, ())
    market = market_for(person, replace(buyer, privacy=False), usual_currency(person))
    by_seller: dict[str, list[OneRenewal]] = {}
    for one in renewal.names:
        if one.amount is not None:
            by_seller.setdefault(one.row.seller, []).append(one)
    if not by_seller:
        raise ConflictError("nothing", "Nothing of this can be renewed here.")
    made = []
    for seller, some in by_seller.items():
        fees = [(str(o.row.name), o.row.extension, o.fee or Decimal(0)) for o in some]
        # Each name alone, so that what was shown of it is what is paid.
        tax = sum((o.amount or Decimal(0)) - (o.fee or Decimal(0)) for o in some)
        priced = closed_order(market, seller, fees)
        bought = [
            Bought(
                o.row.name, o.fee or Decimal(0), renewal.years if o.action == "renew" else 1,
                o.row.project, action=o.action, ran_until=o.until,
                privacy=bool(o.row.privacy),
            )
            for o in some
        ]  # fmt: skip
        terms = market.sellers[seller]
        made.append(
            make_order(
                person, seller, terms.name, terms.country, some[0].currency, bought, Decimal(tax),
                terms_of(priced), owners.payer or Person(),
            )
        )  # fmt: skip
    return made


def adopt_renewed() -> int:
    """Names renewed here run out later; of how many that was not known yet."""
    since = timezone.now() - timedelta(days=3)
    rows = OrderName.objects.filter(
        state="registered", action__in=("renew", "restore"), expires_at__isnull=False,
        registered_at__gt=since,
    ).select_related("order")  # fmt: skip
    count = 0
    for row in rows:
        found = OwnedName.objects.filter(
            Q(expires_at__lt=row.expires_at) | Q(expires_at=None),
            owner=row.order.owner_id, label=row.label, extension=row.extension,
        )  # fmt: skip
        count += found.update(expires_at=row.expires_at, ask_at=timezone.now(), differs=[])
    return count


def renew_by_itself() -> int:
    """Order and pay for what somebody said is to be renewed by itself; how many names."""
    if not cache.add("owned-by-itself", 1, EVERY):
        return 0
    now = timezone.now()
    rows = OwnedName.objects.filter(
        left_at=None, renewal="itself", ceiling__isnull=False, expires_at__lt=now + BY_ITSELF,
        expires_at__gt=now - BY_ITSELF,
    ).select_related("owner", "project")  # fmt: skip
    return sum(_try(row) for row in rows[:MOST_AT_ONCE])


def _try(row: OwnedName) -> bool:
    person = row.owner
    renewal = renewal_of(person, [row], 1)
    [one] = renewal.names
    mark = f"{_day(row.expires_at)} not"
    if one.amount is None:
        if "in order" not in one.why_not:
            tell(row, "not_renewed", mark, {"why": one.why_not})
        return False
    buyer = Buyer()
    market = market_for(person, buyer, row.ceiling_currency or one.currency)
    due = market.rates.convert(Money(one.amount, one.currency), market.currency, market.today)
    if row.ceiling is None or due.money.amount > row.ceiling:
        why = f"it costs {due.money.amount:,.2f} {market.currency}, above what you agreed to."
        tell(row, "not_renewed", mark, {"why": why})
        return False
    if not can_use_credit(person):
        why = "there is no credit it could be paid from. Renew it and pay yourself."
        tell(row, "not_renewed", mark, {"why": why})
        return False
    [order] = order_renewal(person, renewal)
    try:
        pay_by_credit(order)
    except ConflictError as error:
        tell(row, "not_renewed", mark, {"why": error.message})
        return False
    return True


def _day(at: datetime | None) -> str:
    return "" if at is None else f"{at:%Y-%m-%d}"
