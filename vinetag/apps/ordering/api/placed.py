"""Orders that were placed: paying, what becomes of their names, receipts."""

from __future__ import annotations

import json
import time
from dataclasses import asdict
from typing import Any

from django.conf import settings
from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.permissions import AllowAny
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.files import FILES, download
from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.api.throttling import ByAddress
from vinetag.apps.accounts.errors import ConflictError, NotFoundError
from vinetag.apps.ordering.api.people import HolderSerializer
from vinetag.apps.ordering.errands import send_on
from vinetag.apps.ordering.models import Errand, Order, OrderName, Receipt
from vinetag.apps.ordering.paying import (
    call_off,
    can_use_credit,
    has_till,
    pay_at_page,
    pay_by_credit,
    take_note,
)
from vinetag.apps.ordering.placing import orders_of, own_order, place_basket, total_of
from vinetag.apps.ordering.receipts import buyer_of
from vinetag.apps.ordering.settling import balance_of
from vinetag.core.names import unicode_label
from vinetag.core.ordering import said_in_words, words_of
from vinetag.lookup.till import told_by

__all__ = [
    "CallOffView", "CarryOnView", "CreditView", "NoticeView", "OrderView", "OrdersView",
    "PayView", "ReceiptFileView", "ReceiptView",
]  # fmt: skip

REFUSALS = {400: ErrorSerializer, 409: ErrorSerializer}


class PlacedNameSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField()
    project = serializers.IntegerField(allow_null=True)
    full_name = serializers.CharField()
    shown = serializers.CharField()
    action = serializers.ChoiceField(choices=OrderName.Action.choices)
    years = serializers.IntegerField()
    privacy = serializers.BooleanField()
    amount = serializers.CharField()
    state = serializers.CharField()
    state_words = serializers.CharField()
    told = serializers.CharField(allow_blank=True, help_text="What stands in the way, in words")
    registered_at = serializers.DateTimeField(allow_null=True)
    expires_at = serializers.DateTimeField(allow_null=True)


class PlacedOrderSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField()
    number = serializers.CharField()
    seller = serializers.CharField()
    seller_name = serializers.CharField()
    currency = serializers.CharField()
    stage = serializers.ChoiceField(choices=Order.Stage.choices)
    method = serializers.CharField(allow_blank=True)
    placed_at = serializers.DateTimeField()
    paid_at = serializers.DateTimeField(allow_null=True)
    ended_at = serializers.DateTimeField(allow_null=True)
    total = serializers.CharField()
    tax = serializers.CharField()
    tax_percent = serializers.CharField(allow_null=True)
    paid = serializers.CharField()
    refunded = serializers.CharField()
    kept = serializers.CharField(help_text="What the names that are registered cost")
    names = PlacedNameSerializer(many=True)
    payment = serializers.CharField(
        allow_blank=True, help_text="What became of the last payment, empty before the first"
    )
    at_page = serializers.BooleanField(help_text="Whether it can be paid at the payment page")
    by_credit = serializers.BooleanField(help_text="Whether the credit there may be used for it")
    stopped = serializers.BooleanField(help_text="Whether a fault of ours stopped the work on it")
    receipts = serializers.ListField(child=serializers.CharField())


class PlacedOrdersSerializer(serializers.Serializer[Any]):
    orders = PlacedOrderSerializer(many=True)


class PayPageSerializer(serializers.Serializer[Any]):
    page = serializers.CharField(help_text="Where it is paid")


class ReceiptSerializer(serializers.Serializer[Any]):
    document = serializers.JSONField()
    buyer = HolderSerializer(allow_null=True)


def _document(order: Order) -> dict[str, Any]:
    names = list(order.names.order_by("pk"))
    paid, refunded, kept = balance_of(order)
    payment = order.payments.order_by("-pk").first()
    errand = Errand.objects.filter(order=order).first()
    total = total_of(order)
    return {
        "id": order.pk,
        "number": order.number or "",
        **{
            name: getattr(order, name)
            for name in ("seller", "seller_name", "currency", "stage", "method")
        },
        **{name: getattr(order, name) for name in ("placed_at", "paid_at", "ended_at")},
        "total": f"{total:.2f}",
        "tax": f"{sum(name.tax for name in names):.2f}",
        "tax_percent": order.terms.get("percent"),
        "paid": f"{paid:.2f}",
        "refunded": f"{refunded:.2f}",
        "kept": f"{kept:.2f}",
        "names": [_name(name) for name in names],
        "payment": payment.state if payment else "",
        "at_page": has_till(),
        "by_credit": can_use_credit(order.owner),
        "stopped": errand is not None and errand.state == Errand.State.STOPPED,
        "receipts": list(order.receipts.order_by("pk").values_list("kind", flat=True)),
    }


DONE = {"register": "registered", "renew": "renewed", "restore": "had back", "move": "moved here"}


def _name(row: OrderName) -> dict[str, Any]:
    told = ""
    if row.state != "registered" and (row.code >= 2000 or row.trouble):
        told = said_in_words(row.code, row.trouble, row.said if row.code >= 2000 else "")
    state = DONE[row.action] if row.state == "registered" else ""
    if row.action == "move" and row.state == "pending":
        state = "waiting for its present seller to let it go"
    return {
        "id": row.pk,
        "project": row.project_id,
        "full_name": str(row.name),
        "shown": f"{unicode_label(row.label)}.{row.extension}",
        "action": row.action,
        "years": row.years,
        "privacy": row.privacy,
        "amount": f"{row.amount:.2f}",
        "state": row.state,
        "state_words": state or words_of(row.state),
        "told": told,
        "registered_at": row.registered_at,
        "expires_at": row.expires_at,
    }


def _one(order: Order, status: int = 200) -> Response:
    row = Order.objects.select_related("owner").get(pk=order.pk)
    return Response(PlacedOrderSerializer(_document(row)).data, status=status)


class OrdersView(APIView):
    @extend_schema(operation_id="readOrders", responses=PlacedOrdersSerializer)
    def get(self, request: Request) -> Response:
        orders = [_document(order) for order in orders_of(person_of(request))[:100]]
        return Response(PlacedOrdersSerializer({"orders": orders}).data)

    @extend_schema(
        operation_id="placeOrders",
        request=None,
        responses={201: PlacedOrdersSerializer, **REFUSALS},
    )
    def post(self, request: Request) -> Response:
        made = [_document(order) for order in place_basket(person_of(request))]
        return Response(PlacedOrdersSerializer({"orders": made}).data, status=201)


class OrderView(APIView):
    @extend_schema(operation_id="readOrder", responses=PlacedOrderSerializer)
    def get(self, request: Request, order_id: int) -> Response:
        return _one(own_order(person_of(request), order_id))


class PayView(APIView):
    @extend_schema(
        operation_id="payOrder", request=None, responses={200: PayPageSerializer, **REFUSALS}
    )
    def post(self, request: Request, order_id: int) -> Response:
        payment = pay_at_page(own_order(person_of(request), order_id))
        return Response(PayPageSerializer({"page": payment.page}).data)


class CreditView(APIView):
    @extend_schema(
        operation_id="payOrderByCredit",
        request=None,
        responses={200: PlacedOrderSerializer, **REFUSALS},
    )
    def post(self, request: Request, order_id: int) -> Response:
        return _one(pay_by_credit(own_order(person_of(request), order_id)))


class CallOffView(APIView):
    @extend_schema(
        operation_id="callOrderOff",
        request=None,
        responses={200: PlacedOrderSerializer, **REFUSALS},
    )
    def post(self, request: Request, order_id: int) -> Response:
        order = own_order(person_of(request), order_id)
        if not call_off(order):
            message = "Nothing of it can be called off any more."
            raise ConflictError("too_late", message)
        return _one(order)


class CarryOnView(APIView):
    @extend_schema(operation_id="carryOrderOn", request=None, responses=PlacedOrderSerializer)
    def post(self, request: Request, order_id: int) -> Response:
        order = own_order(person_of(request), order_id)
        if Errand.objects.filter(order=order).exists():
            send_on(order)
        return _one(order)


def _receipt(request: Request, order_id: int, kind: str) -> Receipt:
    order = own_order(person_of(request), order_id)
    found = order.receipts.select_related("order").filter(kind=kind).first()
    if found is None:
        raise NotFoundError
    return found


def _receipt_document(receipt: Receipt) -> dict[str, Any]:
    buyer = buyer_of(receipt)
    return {"document": receipt.document, "buyer": None if buyer is None else asdict(buyer)}


class ReceiptView(APIView):
    @extend_schema(operation_id="readReceipt", responses=ReceiptSerializer)
    def get(self, request: Request, order_id: int, kind: str) -> Response:
        receipt = _receipt(request, order_id, kind)
        return Response(ReceiptSerializer(_receipt_document(receipt)).data)


class ReceiptFileView(APIView):
    @extend_schema(operation_id="exportReceipt", responses=FILES)
    def get(self, request: Request, order_id: int, kind: str) -> Any:
        receipt = _receipt(request, order_id, kind)
        found = _receipt_document(receipt)
        document = {**receipt.document, "buyer": found["buyer"]}
        text = json.dumps(document, ensure_ascii=False, indent=1)
        return download(text, "application/json", receipt.number, ".json")


class NoticeView(APIView):
    """Where the payment page tells what became of a payment: whoever knows the secret is it."""

    permission_classes = [AllowAny]
    authentication_classes = []
    throttle_classes = [ByAddress]
    throttle_scope = "notices"

    @extend_schema(
        operation_id="takePaymentNotice",
        request=OpenApiTypes.OBJECT,
        responses={204: None, 404: ErrorSerializer, 409: ErrorSerializer},
    )
    def post(self, request: Request) -> HttpResponse:
        if settings.TILL is None:
            raise NotFoundError
        # The very bytes are signed, whatever they say.
        told = told_by(request.headers, request._request.body, settings.TILL.secret, time.time())
        if told is None:
            raise ConflictError("unsigned", "This message is not signed as it should be.")
        take_note(told)
        return HttpResponse(status=204)
