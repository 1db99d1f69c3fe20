"""How a person likes things, in the API."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.exceptions import ParseError
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.described import DescribedSerializer
from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.api.seen import SeenField
from vinetag.apps.accounts.models import User
from vinetag.apps.accounts.preferences import changed, preferences_of, preferences_schema
from vinetag.apps.accounts.seen import require_seen

__all__ = ["PreferencesSerializer", "PreferencesView"]


class PreferencesSerializer(DescribedSerializer):
    described = preferences_schema()


class SeenSerializer(serializers.Serializer[Any]):
    seen = SeenField()


class ChangeSerializer(PreferencesSerializer, SeenSerializer):
    pass


class PreferencesView(APIView):
    @extend_schema(
        operation_id="keepPreferences",
        request=ChangeSerializer,
        responses={200: PreferencesSerializer, 400: ErrorSerializer, 409: ErrorSerializer},
    )
    def patch(self, request: Request) -> Response:
        if not isinstance(request.data, dict):
            raise ParseError("This should be an object with named fields.")
        part = dict(request.data)
        given = SeenSerializer(data={"seen": part.pop("seen", None)})
        given.is_valid(raise_exception=True)
        seen = given.validated_data["seen"]
        with transaction.atomic():
            person = User.objects.select_for_update().get(pk=person_of(request).pk)
            now = preferences_of(person)
            then = changed(now, part)
            require_seen(seen, {key: now[key] for key in part if now[key] != then[key]})
            person.preferences = then
            person.save(update_fields=["preferences"])
        return Response(person.preferences)
