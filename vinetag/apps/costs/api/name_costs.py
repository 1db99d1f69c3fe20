"""What one name costs, as rows and pages of names tell it."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

__all__ = ["CostsOfNameSerializer", "SpansSerializer"]


class NameCostSerializer(serializers.Serializer[Any]):
    amount = serializers.CharField(help_text="Digits")
    extension = serializers.CharField()
    seller = serializers.CharField(help_text="Whose list says so; empty for a quote")
    premium = serializers.BooleanField()


class SpansSerializer(serializers.Serializer[Any]):
    currency = serializers.CharField()
    years = serializers.IntegerField(help_text="All the years a name is meant to be kept")
    first = NameCostSerializer(allow_null=True, help_text="A year alone")
    later = NameCostSerializer(allow_null=True, help_text="Each later year")
    whole = NameCostSerializer(allow_null=True, help_text="All the years it is kept")

    def to_representation(self, instance: Any) -> Any:
        """As it is: pages of names have hundreds of them, made of plain values."""
        return instance


class UnderSerializer(SpansSerializer):
    extension = serializers.CharField()


class CostsOfNameSerializer(serializers.Serializer[Any]):
    taxed = serializers.BooleanField(help_text="Whether tax is in the amounts")
    least = SpansSerializer(help_text="Under the cheapest of the extensions")
    extensions = UnderSerializer(many=True)
