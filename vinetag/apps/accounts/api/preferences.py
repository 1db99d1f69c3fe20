"""How a person likes things: looks, formats, and what new projects begin with."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.api.seen import SeenField
from vinetag.apps.accounts.models import User
from vinetag.apps.accounts.seen import require_seen
from vinetag.core.brief import MEASURE_NAMES
from vinetag.core.errors import ExtensionError
from vinetag.core.extensions import parse_extension

__all__ = ["PreferencesSerializer", "PreferencesView", "preferences_of"]

THEMES = ("system", "light", "dark")
DENSITIES = ("dense", "usual", "roomy")
LOCALES = ("en", "en-GB", "en-IE", "de", "fr", "es", "sv", "nl", "pt")
CURRENCIES = ("", "EUR", "USD", "GBP", "SEK", "CHF", "CAD", "AUD", "NZD")
MOST_EXTENSIONS = 20
HEAVIEST = 10


class PreferencesSerializer(serializers.Serializer[Any]):
    theme = serializers.ChoiceField(choices=THEMES, default="system")
    density = serializers.ChoiceField(choices=DENSITIES, default="usual")
    locale = serializers.ChoiceField(
        choices=LOCALES, default="en", help_text="For numbers and dates (BCP 47)"
    )
    currency = serializers.ChoiceField(
        choices=CURRENCIES, default="", help_text="To show prices in; empty for the seller's own"
    )
    rate = serializers.FloatField(
        default=None, allow_null=True, min_value=0.0001, max_value=100_000,
        help_text="What one euro is in that currency, by the person's own reckoning",
    )  # fmt: skip
    weights = serializers.DictField(
        child=serializers.IntegerField(min_value=0, max_value=HEAVIEST), default=dict,
        help_text="Of the measures, for new projects",
    )  # fmt: skip
    extensions = serializers.ListField(
        child=serializers.CharField(max_length=63), default=list, max_length=MOST_EXTENSIONS,
        help_text="For new projects, in order",
    )  # fmt: skip
    letter_keys = serializers.BooleanField(
        default=True, help_text="Keys of one letter do something (WCAG 2.1.4)"
    )
    toured = serializers.BooleanField(default=False, help_text="The tour was taken or put away")

    def validate_weights(self, weights: dict[str, int]) -> dict[str, int]:
        """Known measures, at least one of them with some weight."""
        if unknown := weights.keys() - set(MEASURE_NAMES):
            raise serializers.ValidationError(f"There is no measure “{sorted(unknown)[0]}”.")
        if weights and not any(weights.values()):
            raise serializers.ValidationError("Give at least one measure some weight.")
        return weights

    def validate_extensions(self, extensions: list[str]) -> list[str]:
        """Extensions that exist, each once."""
        try:
            return list(dict.fromkeys(parse_extension(e) for e in extensions))
        except ExtensionError as error:
            raise serializers.ValidationError(str(error)) from error


class ChangeSerializer(PreferencesSerializer):
    seen = SeenField()


def preferences_of(person: User) -> dict[str, Any]:
    """How the person likes things, complete. What an earlier version kept, and is not known any
    more, gives way to the usual.
    """
    kept = PreferencesSerializer(data=person.preferences)
    usual = PreferencesSerializer(data={})
    usual.is_valid(raise_exception=True)
    return dict(kept.validated_data if kept.is_valid() else usual.validated_data)


class PreferencesView(APIView):
    @extend_schema(
        operation_id="keepPreferences",
        request=ChangeSerializer,
        responses={200: PreferencesSerializer, 400: ErrorSerializer, 409: ErrorSerializer},
    )
    def patch(self, request: Request) -> Response:
        given = ChangeSerializer(data=request.data, partial=True)
        given.is_valid(raise_exception=True)
        part = dict(given.validated_data)
        seen = part.pop("seen", None)
        with transaction.atomic():
            person = User.objects.select_for_update().get(pk=person_of(request).pk)
            now = preferences_of(person)
            require_seen(seen, {key: now[key] for key in part if now[key] != part[key]})
            person.preferences = {**now, **part}
            person.save(update_fields=["preferences"])
        return Response(person.preferences)
