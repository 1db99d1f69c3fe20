"""Paying an order: at the payment page or from the credit with its seller, once, whatever happens.

What a payment page says may come twice, late, or never; it is asked then. Money that is paid for an
order that needs none is given back.
"""

from __future__ import annotations

import logging
import uuid
from datetime import timedelta
from decimal import Decimal
from typing import Final

from django.conf import settings
from django.db import transaction
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError
from vinetag.apps.accounts.models import User
from vinetag.apps.ordering.errands import send_on
from vinetag.apps.ordering.gateways import session
from vinetag.apps.ordering.models import BasketItem, Entry, Order, Payment
from vinetag.apps.ordering.placing import basket_batch, total_of
from vinetag.core.ordering import said_in_words
from vinetag.lookup.till import HostedTill, PaymentTold, Till

__all__ = [
    "call_off", "can_use_credit", "has_till", "look_at_payments", "pay_at_page", "pay_by_credit",
    "take_note", "till",
]  # fmt: skip

# What was agreed to holds for so long; then the order is called off.
LASTS: Final = timedelta(hours=2)
# A payment nobody told of is asked about after so long, and again ever later, for so many days.
ASK_AFTER, ASK_AGAIN, ASK_FOR = timedelta(seconds=10), timedelta(seconds=20), timedelta(days=3)
MOST_ASKED: Final = 20
SETTLED: Final = ("accepted", "declined", "abandoned")
WAITING: Final = (Payment.State.BEGUN, Payment.State.OPEN)

log = logging.getLogger(__name__)


def has_till() -> bool:
    """Whether there is a payment page."""
    return settings.TILL is not None


def till() -> Till:
    """The payment page of the settings. Raises ConflictError where there is none."""
    if settings.TILL is None:
        raise ConflictError("no_till", "Nothing can be paid for here.")
    return HostedTill(settings.TILL)


def can_use_credit(person: User) -> bool:
    """Whether the credit with sellers, which is the installation's, is this person's to spend."""
    return person.is_staff or (person.is_demo and settings.DEMO_MODE)


def pay_at_page(order: Order) -> Payment:
    """A payment to send the owner to: the one under way, or a new one. Raises ConflictError."""
    with transaction.atomic():
        row = _open_order(order)
        payment = row.payments.filter(state__in=WAITING).order_by("-pk").first()
        if payment is None:
            payment = Payment.objects.create(
                order=row, reference=uuid.uuid4().hex, amount=total_of(row), currency=row.currency
            )
    return _begin(payment)


def _open_order(order: Order) -> Order:
    """The order, locked, while it can be paid. Raises ConflictError."""
    row = Order.objects.select_for_update().get(pk=order.pk)
    if row.stage == Order.Stage.CALLED_OFF:
        raise ConflictError("called_off", "This order was called off.")
    if row.stage != Order.Stage.OPEN:
        raise ConflictError("paid", "This order is paid.")
    return row


def _begin(payment: Payment) -> Payment:
    """Let the page know of a payment. Raises ConflictError where it cannot be reached."""
    if payment.page:
        return payment
    base = settings.PUBLIC_ADDRESS
    order = payment.order
    about = f"Order {order.number} with {order.seller_name}"
    told = till().begin(
        payment.reference, payment.amount, payment.currency, about,
        f"{base}/orders/{order.pk}", f"{base}/api/payments/notice",
    )  # fmt: skip
    if told.trouble:
        message = "The payment page cannot be reached now. Nothing was paid; try again in a moment."
        raise ConflictError("no_till", message)
    rows = Payment.objects.filter(pk=payment.pk)
    rows.update(number=told.id, page=told.page)
    rows.filter(state=Payment.State.BEGUN).update(state=Payment.State.OPEN)
    return Payment.objects.select_related("order").get(pk=payment.pk)


def pay_by_credit(order: Order) -> Order:
    """Pay from the credit with the seller. Raises ConflictError where it does not cover it, or it
    cannot be found out.
    """
    if not can_use_credit(order.owner):
        raise ConflictError("not_yours", "The credit with sellers is spent by administrators.")
    due = sum((name.fee for name in order.names.all()), Decimal(0))
    with session(order.seller) as (gateway, done):
        left = Decimal(0)
        if not done.trouble:
            left, done = gateway.credit()
    if done.trouble or not done.good:
        words = said_in_words(done.code, done.trouble)
        raise ConflictError(
            "no_credit", f"How much credit there is could not be found out. {words}"
        )
    if left < due:
        message = (
            f"The credit with {order.seller_name} is {left:,.2f} {order.currency}, and this takes "
            f"{due:,.2f} {order.currency} of it."
        )
        raise ConflictError("no_credit", message)
    with transaction.atomic():
        row = _open_order(order)
        _enter(row, Entry.Kind.PAID, total_of(row), f"credit-{row.pk}", None)
        _paid(row, Order.Method.CREDIT)
    send_on(row)
    return row


def take_note(told: PaymentTold) -> bool:
    """What the payment page says of a payment, however often. False where it is none of ours, or
    not for what was asked for.
    """
    found = Payment.objects.filter(number=told.id).first()
    if found is None:
        found = Payment.objects.filter(reference=told.reference).first()
    if found is None or told.reference != found.reference:
        return False
    if (told.amount, told.currency) != (found.amount, found.currency):
        log.error("Payment %s is of another amount than was asked for.", found.pk)
        return False
    with transaction.atomic():
        order = Order.objects.select_for_update().get(pk=found.order_id)
        payment = Payment.objects.select_for_update().get(pk=found.pk)
        payment.number = payment.number or told.id
        if told.state in SETTLED and payment.state != Payment.State.ACCEPTED:
            payment.state, payment.settled_at = told.state, timezone.now()
        payment.save()
        if payment.state != Payment.State.ACCEPTED:
            return True
        new = _enter(order, Entry.Kind.PAID, payment.amount, f"pay-{payment.pk}", payment)
        if new and order.stage == Order.Stage.OPEN:
            _paid(order, Order.Method.PAGE)
        elif new:
            # It was called off, or paid for by another payment, before this one was told of.
            back = f"back-pay-{payment.pk}"
            _enter(order, Entry.Kind.REFUNDED, payment.amount, back, payment)
    if new:
        send_on(order)
    return True


def _enter(
    order: Order, kind: str, amount: Decimal, reference: str, payment: Payment | None
) -> bool:
    """Write down money that moved; False where that was done before."""
    done = timezone.now() if kind == Entry.Kind.PAID else None
    given = {"order": order, "kind": kind, "amount": amount, "payment": payment, "done_at": done}
    return Entry.objects.get_or_create(reference=reference, defaults=given)[1]


def _paid(order: Order, method: str) -> None:
    order.stage, order.method, order.paid_at = Order.Stage.PAID, method, timezone.now()
    order.save(update_fields=["stage", "method", "paid_at"])
    order.names.filter(state="agreed").update(state="paid")


def call_off(order: Order) -> int:
    """Call an order off: what is not paid comes back into the basket, what is paid and not sent yet
    is paid back. How many names it was.
    """
    with transaction.atomic():
        row = Order.objects.select_for_update().get(pk=order.pk)
        now = timezone.now()
        if row.stage == Order.Stage.OPEN:
            row.stage, row.ended_at = Order.Stage.CALLED_OFF, now
            row.people = row.buyer = b""
            row.save(update_fields=["stage", "ended_at", "people", "buyer"])
            _back_into_basket(row)
            names = row.names.filter(state="agreed")
        else:
            names = row.names.filter(state="paid")
        count = names.update(state="failed", trouble="called_off")
    if row.stage == Order.Stage.PAID and count:
        send_on(row)
    return count


def _back_into_basket(order: Order) -> None:
    """Names that are not there again already."""
    rows = BasketItem.objects.filter(
        project__owner=order.owner_id, batch=basket_batch(order.pk), removed_at__isnull=False
    )
    rows.update(removed_at=None, batch="", seen={})


def look_at_payments() -> int:
    """Ask about payments nobody told of, and call off orders nobody paid; how many were asked."""
    now = timezone.now()
    old = Order.objects.filter(stage=Order.Stage.OPEN, placed_at__lt=now - LASTS)
    for order in old[:MOST_ASKED]:
        call_off(order)
    if not has_till():
        return 0
    open_ones = Payment.objects.filter(
        state__in=WAITING, begun_at__lt=now - ASK_AFTER, begun_at__gt=now - ASK_FOR
    ).select_related("order")
    due = [p for p in open_ones.order_by("asked_at")[:200] if _is_due(p)]
    for payment in due[:MOST_ASKED]:
        Payment.objects.filter(pk=payment.pk).update(asked_at=now)
        if not payment.number:
            try:
                payment = _begin(payment)
            except ConflictError:
                continue
        told = till().look(payment.number)
        if not told.trouble:
            take_note(told)
    return len(due)


def _is_due(payment: Payment) -> bool:
    if payment.asked_at is None:
        return True
    age = payment.asked_at - payment.begun_at
    return timezone.now() - payment.asked_at > max(ASK_AGAIN, age / 4)
