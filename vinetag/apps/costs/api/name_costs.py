"""What one name costs, as rows and pages of names tell it."""

from __future__ import annotations

from decimal import Decimal
from typing import Any

from rest_framework import serializers

from vinetag.core.sheet import NameCost

__all__ = ["CostsOfNameSerializer", "SpansSerializer"]


class NameCostSerializer(serializers.Serializer[Any]):
    amount = serializers.SerializerMethodField()
    extension = serializers.CharField()
    seller = serializers.CharField(help_text="Whose list says so; empty for a quote")
    premium = serializers.BooleanField()

    def get_amount(self, cost: NameCost) -> str:
        """Digits, with two decimal places."""
        return str((Decimal(cost.amount) / 1000).quantize(Decimal("0.01"), "ROUND_HALF_UP"))


class SpansSerializer(serializers.Serializer[Any]):
    currency = serializers.CharField()
    years = serializers.IntegerField(help_text="All the years a name is meant to be kept")
    first = NameCostSerializer(allow_null=True, help_text="A year alone")
    later = NameCostSerializer(allow_null=True, help_text="Each later year")
    whole = NameCostSerializer(allow_null=True, help_text="All the years it is kept")


class UnderSerializer(SpansSerializer):
    extension = serializers.CharField()


class CostsOfNameSerializer(serializers.Serializer[Any]):
    taxed = serializers.BooleanField(help_text="Whether tax is in the amounts")
    least = SpansSerializer(help_text="Under the cheapest of the extensions")
    extensions = UnderSerializer(many=True)
