"""What there is of each kind of thing, for the front end, which repeats no list of it."""

from __future__ import annotations

from typing import Any, get_args

from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.permissions import AllowAny
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.core.checking import SOURCES, STATUS_KINDS
from vinetag.core.checking.statuses import Mark
from vinetag.core.concepts import (
    FINDING_KINDS,
    FINDING_NAMES,
    LEAVING_KINDS,
    MEASURE_KINDS,
    OFFER_KINDS,
    OFFER_NAMES,
    PART_KINDS,
    PAST_USES,
    PURPOSE_KINDS,
    PURPOSES,
    RECIPE_KINDS,
    WATCH_KINDS,
    WATCH_NAMES,
    WEIGHT_KINDS,
    WEIGHTS,
)
from vinetag.core.grade import EXPONENT
from vinetag.core.vet.marks import CLASSES

__all__ = ["ConceptsView", "document"]


class StatusKindSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    word = serializers.CharField()
    means = serializers.CharField()
    mark = serializers.ChoiceField(choices=get_args(Mark), help_text="Its shape")
    worth = serializers.IntegerField(help_text="Its place where what can be had comes first")
    buyable = serializers.BooleanField(help_text="It can be registered now")
    lifetime = serializers.SerializerMethodField(help_text="Seconds an answer holds; null for none")

    def get_lifetime(self, kind: Any) -> int | None:
        return None if kind.lifetime is None else int(kind.lifetime.total_seconds())


class MeasureKindSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    word = serializers.CharField()
    short = serializers.SerializerMethodField(help_text="The word where there is little room")
    asks = serializers.CharField(help_text="Its question")
    how = serializers.ListField(child=serializers.CharField(), help_text="How it is worked out")
    weights = serializers.DictField(child=serializers.IntegerField(), help_text="By purpose")

    def get_short(self, kind: Any) -> str:
        return str(kind.short or kind.word)


class RecipeKindSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    summary = serializers.CharField()
    group = serializers.CharField()


class PurposeKindSerializer(serializers.Serializer[Any]):
    name = serializers.ChoiceField(choices=PURPOSES)
    word = serializers.CharField()
    help = serializers.CharField()


class PartKindSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    word = serializers.CharField()
    changed = serializers.BooleanField(help_text="A word changed as a whole")


class SourceKindSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    authority = serializers.CharField()
    cost = serializers.IntegerField()
    word = serializers.CharField()
    summary = serializers.CharField()


class FindingKindSerializer(serializers.Serializer[Any]):
    name = serializers.ChoiceField(choices=FINDING_NAMES)
    word = serializers.CharField()
    short = serializers.CharField(help_text="At the head of a column")
    asks = serializers.CharField(help_text="Its question")
    lasts = serializers.IntegerField(help_text="Days after which it is old")


class WeightKindSerializer(serializers.Serializer[Any]):
    name = serializers.ChoiceField(choices=WEIGHTS)
    word = serializers.CharField()
    help = serializers.CharField()


class OfferKindSerializer(serializers.Serializer[Any]):
    name = serializers.ChoiceField(choices=OFFER_NAMES)
    word = serializers.CharField()
    means = serializers.CharField()
    priced = serializers.BooleanField(help_text="Its price buys it")


class ToldSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    word = serializers.CharField()


class WatchKindSerializer(serializers.Serializer[Any]):
    name = serializers.ChoiceField(choices=WATCH_NAMES)
    word = serializers.CharField()
    means = serializers.CharField()
    of_names = serializers.BooleanField(help_text="Full names are asked about for it")


class MarkClassSerializer(serializers.Serializer[Any]):
    number = serializers.IntegerField()
    title = serializers.CharField()


class ConceptsSerializer(serializers.Serializer[Any]):
    statuses = StatusKindSerializer(many=True)
    purposes = PurposeKindSerializer(many=True)
    measures = MeasureKindSerializer(many=True)
    exponent = serializers.FloatField(help_text="Of the power mean that makes the grade")
    recipes = RecipeKindSerializer(many=True)
    parts = PartKindSerializer(many=True)
    sources = SourceKindSerializer(many=True)
    findings = FindingKindSerializer(many=True, help_text="What names are vetted for")
    weights = WeightKindSerializer(many=True, help_text="Of findings, the worst first")
    offers = OfferKindSerializer(many=True, help_text="How a name that is held can be had")
    leavings = ToldSerializer(many=True, help_text="States on the way out")
    past_uses = ToldSerializer(many=True, help_text="What a name was used for before")
    watches = WatchKindSerializer(many=True, help_text="What can be watched")
    mark_classes = MarkClassSerializer(many=True, help_text="Of goods and services (Nice)")


def document() -> dict[str, Any]:
    """All of it, as JSON."""
    there_is = {
        "statuses": list(STATUS_KINDS.values()),
        "purposes": list(PURPOSE_KINDS.values()),
        "measures": MEASURE_KINDS,
        "exponent": EXPONENT,
        "recipes": RECIPE_KINDS,
        "parts": list(PART_KINDS.values()),
        "sources": list(SOURCES.values()),
        "findings": list(FINDING_KINDS.values()),
        "weights": list(WEIGHT_KINDS.values()),
        "offers": list(OFFER_KINDS.values()),
        "leavings": list(LEAVING_KINDS.values()),
        "past_uses": list(PAST_USES.values()),
        "watches": list(WATCH_KINDS.values()),
        "mark_classes": list(CLASSES.values()),
    }
    return dict(ConceptsSerializer(there_is).data)


class ConceptsView(APIView):
    permission_classes = [AllowAny]

    @extend_schema(operation_id="concepts", responses=ConceptsSerializer)
    def get(self, _request: Request) -> Response:
        return Response(document())
