"""Working on an order until nothing is left to do: names, then the money of those that failed, then
the receipts.
"""

from __future__ import annotations

import logging
from decimal import Decimal
from typing import Final

from django.db import transaction
from django.utils import timezone

from vinetag.apps.availability.leases import carry
from vinetag.apps.ordering.errands import put_off
from vinetag.apps.ordering.models import Entry, Errand, Order
from vinetag.apps.ordering.paying import has_till, till
from vinetag.apps.ordering.receipts import write_credit_note, write_receipt
from vinetag.apps.ordering.registering import register_names
from vinetag.core.ordering import FINAL

__all__ = ["balance_of", "work_on"]

OPEN: Final = ("paid", "sent", "pending", "failed")

log = logging.getLogger(__name__)


def work_on(errand_id: int) -> bool:
    """Carry an order on; whether it is done. Safe to be killed at any line, and to run twice."""
    errand = Errand.objects.select_related("order__owner").filter(pk=errand_id).first()
    if errand is None or not errand.is_active:
        return True
    order = errand.order

    def do(lease: str) -> bool:
        write_receipt(order)
        answered = register_names(order, errand.pk, lease)
        return _pay_back(order) and answered

    came = carry(Errand, errand.pk, do, lambda: _finish(order, errand.pk))
    if came is None:
        return False
    answered, finished = came
    if not finished:
        put_off(errand.pk, answered=answered)
    return finished


def balance_of(order: Order) -> tuple[Decimal, Decimal, Decimal]:
    """What was paid, what was given back, and what the names that are registered cost: the first
    less the second is the third, once an order is done.
    """
    paid = refunded = Decimal("0.00")
    for entry in order.entries.all():
        if entry.kind == Entry.Kind.PAID:
            paid += entry.amount
        else:
            refunded += entry.amount
    kept = (name.amount for name in order.names.filter(state="registered"))
    return paid, refunded, sum(kept, Decimal("0.00"))


def _pay_back(order: Order) -> bool:
    """Write down what is to be given back for names that failed, and have it done. False where the
    payment page did not answer.
    """
    with transaction.atomic():
        row = Order.objects.select_for_update().get(pk=order.pk)
        paid = row.entries.filter(kind=Entry.Kind.PAID).order_by("pk").first()
        if paid is not None and row.stage == Order.Stage.PAID:
            for name in row.names.filter(state="failed"):
                Entry.objects.get_or_create(
                    reference=f"back-{name.pk}",
                    defaults={
                        "order": row, "kind": Entry.Kind.REFUNDED, "amount": name.amount,
                        "payment": paid.payment,
                    },
                )  # fmt: skip
    answered = True
    for entry in order.entries.filter(kind=Entry.Kind.REFUNDED, done_at=None):
        if entry.payment is not None:
            if not has_till():
                return False
            if not entry.amount:
                trouble = ""
            else:
                trouble = till().refund(entry.payment.number, entry.reference, entry.amount)
            if trouble:
                log.warning("A refund of order %s is not done: %s", order.pk, trouble)
                answered = False
                continue
        Entry.objects.filter(pk=entry.pk).update(done_at=timezone.now())
    done = order.entries.filter(kind=Entry.Kind.REFUNDED, done_at__isnull=False)
    back = [r.removeprefix("back-") for r in done.values_list("reference", flat=True)]
    pks = [int(number) for number in back if number.isdigit()]
    order.names.filter(state="failed", pk__in=pks).update(state="refunded")
    return answered


def _finish(order: Order, errand_id: int) -> bool:
    """Whether nothing is left to do; then it is closed."""
    with transaction.atomic():
        row = Order.objects.select_for_update().get(pk=order.pk)
        waiting = row.entries.filter(done_at=None).exists()
        if row.stage == Order.Stage.PAID and not waiting:
            states = set(row.names.values_list("state", flat=True))
            if states <= FINAL:
                row.stage, row.ended_at, row.people = Order.Stage.DONE, timezone.now(), b""
                row.save(update_fields=["stage", "ended_at", "people"])
        if row.stage == Order.Stage.PAID or waiting:
            return False
        now = timezone.now()
        Errand.objects.filter(pk=errand_id).update(state=Errand.State.DONE, ended_at=now)
    write_credit_note(row)
    return True
