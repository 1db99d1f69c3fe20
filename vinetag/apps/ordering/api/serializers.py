"""The shapes of the basket in the API."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from rest_framework import serializers

from vinetag.apps.ordering.basket import MOST_ITEMS
from vinetag.apps.ordering.gateways import has_gateway
from vinetag.apps.ordering.models import BasketItem
from vinetag.apps.ordering.orders import neat_thousandths
from vinetag.apps.ordering.owners import Owners
from vinetag.apps.ordering.pricing import BasketPrices
from vinetag.apps.ordering.reviews import reviewed_of, spelled
from vinetag.core.names import unicode_label

__all__ = [
    "AddedSerializer", "AgreeSerializer", "BasketAddSerializer", "BasketChangeSerializer",
    "BasketSerializer", "BasketWishSerializer", "OrderFormSerializer", "TakenOutSerializer",
    "basket_document",
]  # fmt: skip


class SaidLetterSerializer(serializers.Serializer[Any]):
    letter = serializers.CharField()
    said = serializers.CharField()


class ReviewedSerializer(serializers.Serializer[Any]):
    """What the last look found."""

    status = serializers.CharField(help_text="“unasked” before the first")
    reason = serializers.CharField(allow_blank=True)
    at = serializers.DateTimeField(allow_null=True)
    changed = serializers.ListField(child=serializers.CharField())
    missing = serializers.ListField(child=serializers.CharField())
    asks = serializers.ListField(child=serializers.CharField())
    sign = serializers.CharField(
        allow_blank=True, help_text="What can be agreed to; empty where nothing can"
    )
    may = serializers.BooleanField(help_text="Whether it can be bought as it stands")
    here = serializers.BooleanField(help_text="Whether it can be ordered here as it stands")
    not_here = serializers.CharField(allow_blank=True, help_text="Why it cannot")


class BasketItemSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField()
    project = serializers.IntegerField()
    project_name = serializers.CharField()
    full_name = serializers.CharField()
    shown = serializers.CharField()
    years = serializers.IntegerField()
    renewal = serializers.ChoiceField(choices=BasketItem.Renewal.choices)
    privacy = serializers.BooleanField()
    servers = serializers.ListField(child=serializers.CharField())
    coupon = serializers.CharField(allow_blank=True)
    contacts = serializers.IntegerField(allow_null=True, help_text="None for the usual set")
    seller = serializers.CharField(allow_blank=True, help_text="Empty for whoever asks least")
    sold_by = serializers.CharField(allow_blank=True, help_text="Its name")
    amount = serializers.CharField(allow_null=True, help_text="Now, with tax; null where not sold")
    whole = serializers.CharField(allow_null=True, help_text="Staying there over the years")
    premium = serializers.BooleanField()
    reviewed = ReviewedSerializer()
    spelled = SaidLetterSerializer(many=True)


class OrderLineSerializer(serializers.Serializer[Any]):
    kind = serializers.CharField()
    full_name = serializers.CharField(allow_blank=True)
    amount = serializers.CharField()


class BasketOrderSerializer(serializers.Serializer[Any]):
    seller = serializers.CharField()
    here = serializers.BooleanField(help_text="Whether it can be ordered here")
    currency = serializers.CharField()
    total = serializers.CharField()
    tax_known = serializers.BooleanField()
    lines = OrderLineSerializer(many=True)


class BasketSerializer(serializers.Serializer[Any]):
    items = BasketItemSerializer(many=True)
    orders = BasketOrderSerializer(many=True, help_text="What is paid to whom, line by line")
    currency = serializers.CharField()
    country = serializers.CharField(allow_blank=True)
    years = serializers.IntegerField(help_text="Of the whole cost")
    total = serializers.CharField()
    whole = serializers.CharField()
    nowhere = serializers.ListField(child=serializers.CharField())
    waiting = serializers.IntegerField(help_text="Names sellers are being asked about")
    ready = serializers.BooleanField(help_text="Whether all of it can be bought as it stands")
    ready_here = serializers.BooleanField(help_text="Whether all of it can be ordered here")
    most = serializers.IntegerField()


class BasketWishSerializer(serializers.Serializer[Any]):
    years = serializers.IntegerField(default=5, min_value=1, max_value=10)


class BasketAddSerializer(serializers.Serializer[Any]):
    names = serializers.ListField(child=serializers.CharField(max_length=300))
    seller = serializers.CharField(max_length=40, default="", allow_blank=True)
    years = serializers.IntegerField(default=1)


class AddedSerializer(serializers.Serializer[Any]):
    count = serializers.IntegerField()
    there = serializers.ListField(child=serializers.CharField(), help_text="There already")


class BasketChangeSerializer(serializers.Serializer[Any]):
    years = serializers.IntegerField(required=False)
    renewal = serializers.ChoiceField(choices=BasketItem.Renewal.choices, required=False)
    privacy = serializers.BooleanField(required=False)
    servers = serializers.ListField(
        child=serializers.CharField(max_length=300, allow_blank=True), required=False
    )
    coupon = serializers.CharField(max_length=60, required=False, allow_blank=True)
    contacts = serializers.IntegerField(required=False, allow_null=True)
    seller = serializers.CharField(max_length=40, required=False, allow_blank=True)


class TakenOutSerializer(serializers.Serializer[Any]):
    batch = serializers.CharField(max_length=32, help_text="By it they are brought back")


class AgreeSerializer(serializers.Serializer[Any]):
    sign = serializers.CharField(max_length=32)


class OrderFormSerializer(serializers.Serializer[Any]):
    form = serializers.ChoiceField(choices=("csv", "json"), default="csv")


def basket_document(
    items: Sequence[BasketItem], prices: BasketPrices, owners: Owners
) -> dict[str, Any]:
    """As BasketSerializer describes it."""
    rows = [_item(item, prices, owners) for item in items]
    return {
        "items": rows,
        "orders": [
            {
                "seller": one.name,
                "here": has_gateway(one.seller),
                "currency": str(one.order.total.currency.code),
                "total": f"{one.order.total.amount:.2f}",
                "tax_known": one.order.tax.rate is not None,
                "lines": [
                    {"kind": line.kind, "full_name": line.full_name, "amount": f"{line.amount:.2f}"}
                    for line in one.order.lines
                ],
            }
            for one in prices.orders
        ],
        "currency": prices.currency,
        "country": prices.country,
        "years": prices.years,
        "total": neat_thousandths(prices.total),
        "whole": neat_thousandths(prices.whole),
        "nowhere": list(prices.nowhere),
        "waiting": len(prices.waiting),
        "ready": bool(rows) and all(row["reviewed"].may for row in rows),
        "ready_here": bool(rows) and all(row["reviewed"].here for row in rows),
        "most": MOST_ITEMS,
    }


def _item(item: BasketItem, prices: BasketPrices, owners: Owners) -> dict[str, Any]:
    price = prices.items[item.pk]
    return {
        "id": item.pk,
        "project": item.project_id,
        "project_name": item.project.name,
        "full_name": str(item.name),
        "shown": f"{unicode_label(item.label)}.{item.extension}",
        "years": item.years,
        "renewal": item.renewal,
        "privacy": item.privacy,
        "servers": item.servers,
        "coupon": item.coupon,
        "contacts": item.contacts_id,
        "seller": item.seller,
        "sold_by": price.seller_name,
        "amount": None if price.amount is None else neat_thousandths(price.amount),
        "whole": None if price.whole is None else neat_thousandths(price.whole),
        "premium": price.premium,
        "reviewed": reviewed_of(item, price, prices.currency, owners),
        "spelled": [{"letter": a, "said": b} for a, b in spelled(item.name)],
    }
