"""Keeping names."""

from __future__ import annotations

from typing import Any

from django.http import HttpResponse
from django.utils.text import slugify
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.availability.api.serializers import CellSerializer
from vinetag.apps.naming.services import own_project
from vinetag.apps.shortlists import services
from vinetag.apps.shortlists.export import shortlist_csv
from vinetag.core.names import unicode_label

__all__ = ["EntryView", "ExportView", "OrderView", "ShortlistView"]


class KeptSerializer(serializers.Serializer[Any]):
    label = serializers.CharField(source="entry.label")
    shown = serializers.SerializerMethodField(help_text="The label as a person writes it")
    note = serializers.CharField(source="entry.note", allow_blank=True)
    kept_at = serializers.DateTimeField(source="entry.kept_at")
    letters = serializers.SerializerMethodField()
    grade = serializers.FloatField(allow_null=True)
    starts = serializers.SerializerMethodField(help_text="Where each part begins, from 0")
    statuses = CellSerializer(many=True, source="cells")

    def get_shown(self, kept: Any) -> str:
        return unicode_label(kept.entry.label)

    def get_letters(self, kept: Any) -> int:
        shown = unicode_label(kept.entry.label)
        return len(shown) - shown.count("-")

    def get_starts(self, kept: Any) -> list[int]:
        return [part[3] for part in kept.entry.parts]


class KeepSerializer(serializers.Serializer[Any]):
    label = serializers.CharField(max_length=255, allow_blank=True)


class NoteSerializer(serializers.Serializer[Any]):
    note = serializers.CharField(allow_blank=True, trim_whitespace=False, max_length=100_000)


class OrderSerializer(serializers.Serializer[Any]):
    labels = serializers.ListField(child=serializers.CharField(max_length=63), max_length=1000)


class ShortlistView(APIView):
    @extend_schema(
        operation_id="readShortlist",
        responses={200: KeptSerializer(many=True), 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = own_project(request.user, project_id)
        return Response(KeptSerializer(services.kept_names(project), many=True).data)

    @extend_schema(
        operation_id="keepName",
        request=KeepSerializer,
        responses={
            201: KeepSerializer,
            400: ErrorSerializer,
            404: ErrorSerializer,
            409: ErrorSerializer,
        },
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = own_project(request.user, project_id)
        given = KeepSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        entry = services.keep(project=project, label=given.validated_data["label"])
        return Response({"label": entry.label}, status=201)


class EntryView(APIView):
    @extend_schema(
        operation_id="writeNote",
        request=NoteSerializer,
        responses={200: NoteSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def patch(self, request: Request, project_id: int, label: str) -> Response:
        project = own_project(request.user, project_id)
        given = NoteSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        entry = services.note(project=project, label=label, text=given.validated_data["note"])
        return Response({"note": entry.note})

    @extend_schema(operation_id="unkeepName", responses={204: None, 404: ErrorSerializer})
    def delete(self, request: Request, project_id: int, label: str) -> Response:
        services.unkeep(project=own_project(request.user, project_id), label=label)
        return Response(status=204)


class OrderView(APIView):
    @extend_schema(
        operation_id="reorderShortlist",
        request=OrderSerializer,
        responses={204: None, 400: ErrorSerializer, 404: ErrorSerializer, 409: ErrorSerializer},
    )
    def put(self, request: Request, project_id: int) -> Response:
        project = own_project(request.user, project_id)
        given = OrderSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        services.reorder(project=project, labels=given.validated_data["labels"])
        return Response(status=204)


class ExportView(APIView):
    @extend_schema(
        operation_id="exportShortlist",
        responses={(200, "text/csv"): OpenApiTypes.BINARY, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> HttpResponse:
        project = own_project(request.user, project_id)
        body = shortlist_csv(services.kept_names(project), project.brief["extensions"])
        name = slugify(project.name) or "shortlist"
        response = HttpResponse(body, content_type="text/csv; charset=utf-8")
        response.headers["Content-Disposition"] = f'attachment; filename="{name}-shortlist.csv"'
        return response
