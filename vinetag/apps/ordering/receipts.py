"""Receipts of what was paid, credit notes of what was given back: written once, never changed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import fields
from decimal import Decimal
from typing import Any

from django.db import transaction

from vinetag.apps.ordering.models import Entry, Order, OrderName, Receipt
from vinetag.apps.ordering.sealing import SealError, opened
from vinetag.core.names import unicode_label
from vinetag.core.ordering import Person

__all__ = ["buyer_of", "write_credit_note", "write_receipt"]

VERSION = 1
LETTERS = {Receipt.Kind.RECEIPT: "R", Receipt.Kind.CREDIT_NOTE: "C"}


def write_receipt(order: Order) -> Receipt | None:
    """The receipt of an order that is paid; the one there is, if there is one."""
    if order.stage != Order.Stage.PAID:
        return None
    return _write(order, Receipt.Kind.RECEIPT, list(order.names.order_by("pk")))


def write_credit_note(order: Order) -> Receipt | None:
    """The credit note of what was given back of an order, None where nothing was."""
    back = list(order.names.filter(state="refunded").order_by("pk"))
    return _write(order, Receipt.Kind.CREDIT_NOTE, back) if back else None


def buyer_of(receipt: Receipt) -> Person | None:
    """To whom it is written out; None where that cannot be opened any more."""
    try:
        given = opened(receipt.order.owner_id, receipt.buyer)
        return Person(**{name: given[name] for name in (f.name for f in fields(Person))})
    except (SealError, KeyError):
        return None


def _write(order: Order, kind: Receipt.Kind, names: Sequence[OrderName]) -> Receipt:
    found = Receipt.objects.filter(order=order, kind=kind).first()
    if found is not None:
        return found
    with transaction.atomic():
        row, made = Receipt.objects.get_or_create(
            order=order,
            kind=kind,
            defaults={
                "number": f"new-{order.pk}-{kind}", "document": {}, "buyer": bytes(order.buyer),
            },
        )  # fmt: skip
        if made:
            row.number = f"{LETTERS[kind]}{row.written_at:%Y}-{row.pk:06}"
            row.document = _document(order, row, names)
            row.save(update_fields=["number", "document"])
    return row


def _document(order: Order, row: Receipt, names: Sequence[OrderName]) -> dict[str, Any]:
    """As it is given out as JSON; amounts as text with two decimal places."""
    net = sum((name.fee for name in names), Decimal("0.00"))
    tax = sum((name.tax for name in names), Decimal("0.00"))
    paid = order.entries.filter(kind=Entry.Kind.PAID).first()
    return {
        "format": "vinetag-receipt",
        "version": VERSION,
        "kind": row.kind,
        "number": row.number,
        "order": order.number,
        "written_at": row.written_at.isoformat(timespec="seconds"),
        "paid_at": None if order.paid_at is None else order.paid_at.isoformat(timespec="seconds"),
        "paid_by": order.method,
        "payment": paid.payment.number if paid is not None and paid.payment else "",
        "seller": order.seller_name,
        "seller_country": order.seller_country,
        "currency": order.currency,
        "lines": [
            {
                "full_name": str(name.name),
                "as_typed": f"{unicode_label(name.label)}.{name.extension}",
                "what": name.action,
                "years": name.years,
                "privacy": name.privacy,
                "net": f"{name.fee:.2f}",
                "tax": f"{name.tax:.2f}",
                "amount": f"{name.amount:.2f}",
            }
            for name in names
        ],
        "net": f"{net:.2f}",
        "tax": {**order.terms, "amount": f"{tax:.2f}"},
        "total": f"{net + tax:.2f}",
    }
