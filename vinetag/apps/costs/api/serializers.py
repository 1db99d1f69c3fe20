"""What the API tells of costs. Amounts are digits in text, in the currency asked for."""

from __future__ import annotations

from decimal import Decimal
from typing import Any

from rest_framework import serializers

from vinetag.core.cost import ACTIONS, LONGEST_HORIZON
from vinetag.core.extensions import COUNTRIES

__all__ = ["CostQuestionSerializer", "CostsSerializer", "SellersSerializer"]


class PriceChangeSerializer(serializers.Serializer[Any]):
    kind = serializers.ChoiceField(choices=("rose", "fell", "came", "went"))
    extension = serializers.CharField()
    action = serializers.ChoiceField(choices=tuple(ACTIONS))
    years_from = serializers.IntegerField()
    years_to = serializers.IntegerField()
    before = serializers.CharField(allow_null=True)
    after = serializers.CharField(allow_null=True)


class SellerSerializer(serializers.Serializer[Any]):
    code = serializers.CharField(source="entry.code")
    name = serializers.CharField(source="entry.name")
    country = serializers.CharField(source="entry.country")
    currency = serializers.CharField(source="entry.currency")
    privacy = serializers.CharField(source="entry.privacy")
    tax = serializers.CharField(source="entry.tax")
    years_chosen = serializers.IntegerField(source="entry.years_chosen")
    dated = serializers.DateField(allow_null=True, help_text="The day of its list")
    fetched_at = serializers.DateTimeField(allow_null=True)
    stale = serializers.BooleanField()
    trouble = serializers.CharField()
    changes = PriceChangeSerializer(many=True)
    changed_on = serializers.DateField(allow_null=True)


class SellersSerializer(serializers.Serializer[Any]):
    sellers = SellerSerializer(many=True)
    may_edit = serializers.BooleanField()


class CostQuestionSerializer(serializers.Serializer[Any]):
    full_names = serializers.ListField(
        child=serializers.CharField(max_length=255), min_length=1, max_length=200
    )
    years = serializers.IntegerField(min_value=1, max_value=LONGEST_HORIZON, default=5)
    country = serializers.ChoiceField(choices=("", *COUNTRIES), default="", allow_blank=True)
    vat = serializers.CharField(default="", allow_blank=True, max_length=40)
    privacy = serializers.BooleanField(default=True)
    currency = serializers.RegexField("^[A-Z]{3}$", default="EUR")
    sellers = serializers.ListField(
        child=serializers.CharField(max_length=40), default=list, max_length=200
    )
    moving = serializers.BooleanField(default=True)
    trouble = serializers.DecimalField(
        max_digits=9,
        decimal_places=2,
        min_value=Decimal(0),
        default=Decimal(0),
        help_text="Of a move, in currency",
    )


class LineSerializer(serializers.Serializer[Any]):
    kind = serializers.CharField()
    full_name = serializers.CharField()
    amount = serializers.CharField(help_text="In the seller's currency; below 0 when taken off")
    reason = serializers.CharField()
    args = serializers.DictField()


class OrderSerializer(serializers.Serializer[Any]):
    seller = serializers.CharField()
    currency = serializers.CharField(help_text="The seller's")
    lines = LineSerializer(many=True)
    subtotal = serializers.CharField()
    total = serializers.CharField()
    tax_known = serializers.BooleanField()


class StepSerializer(serializers.Serializer[Any]):
    on = serializers.DateField()
    action = serializers.ChoiceField(choices=("register", "renew", "move"))
    seller = serializers.CharField()
    years = serializers.IntegerField()
    until = serializers.DateField()
    amount = serializers.CharField()
    order = OrderSerializer()


class WaySerializer(serializers.Serializer[Any]):
    total = serializers.CharField()
    by_year = serializers.ListField(child=serializers.CharField())
    steps = StepSerializer(many=True)


class ExtraSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    about = serializers.CharField()
    needed = serializers.BooleanField()
    total = serializers.CharField()


class HoldingSerializer(serializers.Serializer[Any]):
    seller = serializers.CharField()
    total = serializers.CharField(allow_null=True, help_text="None where it is not offered")
    a_year = serializers.CharField(allow_null=True)
    first = serializers.CharField(allow_null=True)
    dearest = serializers.CharField(allow_null=True)
    ticked = serializers.CharField(allow_null=True, help_text="When nothing is unticked")
    extras = ExtraSerializer(many=True)


class CostedSerializer(serializers.Serializer[Any]):
    full_name = serializers.CharField()
    sellers = HoldingSerializer(many=True)
    cheapest = WaySerializer(allow_null=True)


class PlanSerializer(serializers.Serializer[Any]):
    total = serializers.CharField()
    weight = serializers.CharField(help_text="With the trouble of moves")
    bound = serializers.CharField(help_text="No plan weighs less")
    orders = OrderSerializer(many=True)
    nowhere = serializers.ListField(child=serializers.CharField())


class CostsSerializer(serializers.Serializer[Any]):
    currency = serializers.CharField()
    years = serializers.IntegerField()
    names = CostedSerializer(many=True)
    plan = PlanSerializer()
    rates_of = serializers.DateField(allow_null=True, help_text="The day of the exchange rates")
