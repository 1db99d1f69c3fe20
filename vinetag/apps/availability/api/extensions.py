"""The catalogue of extensions: reading, proposing, and keeping it."""

from __future__ import annotations

from typing import Any

from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.files import download
from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.api.seen import SeenField
from vinetag.apps.availability.api.serializers import ExtensionSerializer
from vinetag.apps.availability.catalogue import (
    catalogue,
    put_entry,
    replace_catalogue,
    require_administrator,
    version_of,
)
from vinetag.core.extensions import (
    COUNTRIES,
    KINDS,
    OWNER_KINDS,
    RULES,
    WORKS,
    Catalogue,
    Entry,
    read_catalogue,
    write_catalogue,
)

__all__ = ["ExtensionFileView", "ExtensionView", "ExtensionsView"]


class NamedSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    name = serializers.CharField()


class ExtensionsSerializer(serializers.Serializer[Any]):
    extensions = ExtensionSerializer(many=True)
    may_edit = serializers.BooleanField()
    kinds = serializers.ListField(child=serializers.CharField())
    owner_kinds = serializers.ListField(child=serializers.CharField())
    countries = NamedSerializer(many=True)
    works = NamedSerializer(many=True)
    version = serializers.CharField(help_text="Of the whole catalogue")
    rules = NamedSerializer(many=True)


class ExtensionsView(APIView):
    @extend_schema(operation_id="listExtensions", responses={200: ExtensionsSerializer})
    def get(self, request: Request) -> Response:
        known = catalogue()
        document = {
            "extensions": list(known),
            "version": version_of(known),
            "may_edit": person_of(request).is_staff,
            "kinds": KINDS,
            "owner_kinds": OWNER_KINDS,
            "countries": [
                {"code": c, "name": n} for c, n in sorted(COUNTRIES.items(), key=lambda i: i[1])
            ],
            "works": [{"code": c, "name": n} for c, n in WORKS.items()],
            "rules": [{"code": c, "name": r.sentence} for c, r in RULES.items()],
        }
        return Response(ExtensionsSerializer(document).data)


class ChangeSerializer(ExtensionSerializer):
    seen = SeenField(
        help_text="The extension as it was; with an empty `extension` for one that was not there"
    )


class ExtensionView(APIView):
    @extend_schema(
        operation_id="putExtension",
        request=ChangeSerializer,
        responses={
            200: ExtensionSerializer,
            400: ErrorSerializer,
            404: ErrorSerializer,
            409: ErrorSerializer,
        },
    )
    def put(self, request: Request, extension: str) -> Response:
        require_administrator(person_of(request))
        sent = request.data if isinstance(request.data, dict) else {}
        given = ChangeSerializer(data={**sent, "extension": extension})
        given.is_valid(raise_exception=True)
        values = {**given.validated_data, "works": tuple(given.validated_data["works"])}
        seen = values.pop("seen", None)
        written = write_catalogue(Catalogue({extension: Entry(**values)}))
        # One reader holds every rule, for a file and for a form.
        [entry] = read_catalogue(written)
        put_entry(entry, seen, lambda e: dict(ExtensionSerializer(e).data))
        return Response(ExtensionSerializer(entry).data)


class FileSerializer(serializers.Serializer[Any]):
    text = serializers.CharField(max_length=1_000_000, trim_whitespace=False)
    seen = SeenField(help_text="The `version` the file was made from; 409 when it is another")


class CountSerializer(serializers.Serializer[Any]):
    extensions = serializers.IntegerField()


class ExtensionFileView(APIView):
    @extend_schema(operation_id="exportExtensions", responses={(200, "text/csv"): OpenApiTypes.STR})
    def get(self, _request: Request) -> HttpResponse:
        written = write_catalogue(catalogue())
        return download(written, "text/csv; charset=utf-8", "extensions", ".csv")

    @extend_schema(
        operation_id="importExtensions",
        request=FileSerializer,
        responses={
            200: CountSerializer,
            400: ErrorSerializer,
            404: ErrorSerializer,
            409: ErrorSerializer,
        },
    )
    def put(self, request: Request) -> Response:
        require_administrator(person_of(request))
        given = FileSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        new = read_catalogue(given.validated_data["text"])
        replace_catalogue(new, given.validated_data.get("seen"))
        return Response(CountSerializer({"extensions": len(new)}).data)
