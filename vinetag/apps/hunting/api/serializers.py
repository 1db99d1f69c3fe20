"""The shapes of the hunt in the API."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

from vinetag.apps.accounts.api.described import DescribedSerializer
from vinetag.apps.availability.api.serializers import CellSerializer
from vinetag.apps.costs.api.name_costs import SpansSerializer
from vinetag.apps.market.api.serializers import MarketOfferSerializer
from vinetag.core.market import hunt_schema
from vinetag.core.market.short_names import short_schema

__all__ = [
    "GoingSerializer", "HuntCountsSerializer", "HuntPageQuestionSerializer", "HuntPageSerializer",
    "HuntPlaceSerializer", "HuntQuestionSerializer", "LengthPricesSerializer",
    "ScarcitySerializer", "ShortPageSerializer", "ShortPlaceSerializer", "ShortQuestionSerializer",
]  # fmt: skip

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


class GoingSerializer(serializers.Serializer[Any]):
    """Of names like it that were open, how many were taken within some days."""

    days = serializers.IntegerField()
    share = serializers.FloatField(help_text="0 to 1")
    low = serializers.FloatField()
    high = serializers.FloatField()
    names = serializers.IntegerField(help_text="How many were followed")
    extension = serializers.CharField(allow_blank=True, help_text="Theirs; empty for any")
    letters_from = serializers.IntegerField()
    letters_to = serializers.IntegerField()
    words = serializers.IntegerField(allow_null=True, help_text="Theirs; null for any")
    grade_from = serializers.IntegerField(allow_null=True, help_text="Null for any grade")
    grade_to = serializers.IntegerField(allow_null=True, help_text="Theirs are below")


class ScarcitySerializer(serializers.Serializer[Any]):
    """How many names of a shape are left under an extension, by the day of its zone."""

    extension = serializers.CharField()
    shape = serializers.CharField()
    whole = serializers.IntegerField()
    days = serializers.ListField(child=serializers.DateField())
    free = serializers.ListField(child=serializers.IntegerField())
    projected = serializers.BooleanField(help_text="Whether a day can be estimated")
    half_gone = serializers.DateField(allow_null=True, help_text="Null: not within fifty years")
    earliest = serializers.DateField(allow_null=True)
    latest = serializers.DateField(allow_null=True)


class AskedForSerializer(serializers.Serializer[Any]):
    """What is asked for names for sale of so many letters under an extension."""

    extension = serializers.CharField()
    letters = serializers.IntegerField()
    names = serializers.IntegerField()
    low = serializers.FloatField(help_text="The first quartile")
    middle = serializers.FloatField(help_text="The median")
    high = serializers.FloatField(help_text="The third quartile")


class LengthPricesSerializer(serializers.Serializer[Any]):
    currency = serializers.CharField()
    prices = AskedForSerializer(many=True)


class ShortPlaceSerializer(serializers.Serializer[Any]):
    extensions = serializers.CharField(
        default="", allow_blank=True, max_length=800, help_text="Those of the brief, if left out"
    )
    every = serializers.BooleanField(default=False, help_text="Those that were taken, too")
    offset = serializers.IntegerField(default=0, min_value=0, max_value=20_000_000)
    limit = serializers.IntegerField(default=60, min_value=1, max_value=MOST_ROWS)


class ShortQuestionSerializer(DescribedSerializer, ShortPlaceSerializer):
    """Which short names, as in an address; vinetag.core.market.short_names reads it."""

    described = short_schema()
    mode = "optional"


class ShortExtensionSerializer(serializers.Serializer[Any]):
    extension = serializers.CharField()
    day = serializers.DateField(allow_null=True, help_text="Of the newest zone file")
    free = serializers.IntegerField(allow_null=True, help_text="Names it did not have")
    costs = SpansSerializer()


class ShortRowSerializer(serializers.Serializer[Any]):
    label = serializers.CharField()  # type: ignore[assignment] # a field called as DRF's own
    had = serializers.DictField(
        child=serializers.BooleanField(allow_null=True),
        help_text="By extension, whether the zone had it; null without one",
    )
    cells = CellSerializer(many=True)


class ShortPageSerializer(serializers.Serializer[Any]):
    matching = serializers.IntegerField()
    total = serializers.IntegerField()
    extensions = ShortExtensionSerializer(many=True)
    rows = ShortRowSerializer(many=True)
