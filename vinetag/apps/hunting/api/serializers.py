"""The shapes of the hunt in the API."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

from vinetag.apps.accounts.api.described import DescribedSerializer
from vinetag.apps.market.api.serializers import MarketOfferSerializer
from vinetag.core.market import hunt_schema

__all__ = ["HuntCountsSerializer", "HuntPageQuestionSerializer", "HuntPageSerializer",
           "HuntPlaceSerializer", "HuntQuestionSerializer"]  # fmt: skip

MOST_ROWS = 100


class HuntQuestionSerializer(DescribedSerializer):
    """What is asked of the hunt, as in an address; vinetag.core.market reads it."""

    described = hunt_schema()
    mode = "optional"


class HuntPlaceSerializer(serializers.Serializer[Any]):
    offset = serializers.IntegerField(default=0, min_value=0, max_value=1_000_000)
    limit = serializers.IntegerField(default=60, min_value=1, max_value=MOST_ROWS)


class HuntPageQuestionSerializer(HuntQuestionSerializer, HuntPlaceSerializer):
    pass


class HuntedSerializer(serializers.Serializer[Any]):
    """A name a market tells of."""

    label = serializers.CharField()  # type: ignore[assignment] # a field called as DRF's own
    extension = serializers.CharField()
    offer = MarketOfferSerializer()
    suits = serializers.FloatField(help_text="How well it suits the brief, 0 to 100")
    cost = serializers.CharField(allow_null=True, help_text="The price in the person's currency")
    grade = serializers.FloatField(allow_null=True)
    scores = serializers.DictField(child=serializers.FloatField())
    starts = serializers.ListField(child=serializers.IntegerField())
    letters = serializers.IntegerField()
    words = serializers.IntegerField()
    kept = serializers.BooleanField()


class HuntPageSerializer(serializers.Serializer[Any]):
    rows = HuntedSerializer(many=True)
    total = serializers.IntegerField()
    currency = serializers.CharField()


class HuntCountsSerializer(serializers.Serializer[Any]):
    kind = serializers.DictField(child=serializers.IntegerField())
    market = serializers.DictField(child=serializers.IntegerField())
    extension = serializers.DictField(child=serializers.IntegerField())
