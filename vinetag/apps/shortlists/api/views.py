"""Keeping names."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from django.http import HttpResponse
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.files import FILES, download
from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.api.seen import SeenField
from vinetag.apps.availability.api.serializers import CellSerializer
from vinetag.apps.naming.api.serializers import LabelsSerializer
from vinetag.apps.naming.services import own_project
from vinetag.apps.shortlists import services
from vinetag.apps.shortlists.export import shortlist_file
from vinetag.core.candidates import starts_of
from vinetag.core.names import unicode_label
from vinetag.core.spreadsheet import FORMS

__all__ = ["EntryView", "ExportView", "OrderView", "ShortlistView", "UnkeepView"]


class KeptSerializer(serializers.Serializer[Any]):
    label = serializers.CharField(source="entry.label")  # type: ignore[assignment] # a field called as DRF's own
    shown = serializers.SerializerMethodField(help_text="The label as a person writes it")
    extension = serializers.CharField(
        source="entry.extension", allow_blank=True, help_text="Of a full name; empty for a name"
    )
    note = serializers.CharField(source="entry.note", allow_blank=True)
    tags = serializers.ListField(source="entry.tags", child=serializers.CharField())
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
        return starts_of(kept.entry.parts)


class RemarksSerializer(serializers.Serializer[Any]):
    note = serializers.CharField(
        allow_blank=True, trim_whitespace=False, max_length=100_000, required=False
    )
    tags = serializers.ListField(
        child=serializers.CharField(allow_blank=True, max_length=200), max_length=100,
        required=False,
    )  # fmt: skip
    extension = serializers.CharField(
        allow_blank=True, max_length=64, required=False,
        help_text="Makes it a full name; empty for a name again",
    )  # fmt: skip
    seen = SeenField()


class OrderSerializer(serializers.Serializer[Any]):
    labels = serializers.ListField(child=serializers.CharField(max_length=63), max_length=1000)
    seen = SeenField(help_text="`labels` as they were; 409 when they are otherwise by now")


class ShortlistView(APIView):
    @extend_schema(
        operation_id="readShortlist",
        responses={200: KeptSerializer(many=True), 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        return Response(KeptSerializer(services.kept_names(project), many=True).data)

    @extend_schema(
        operation_id="keepNames",
        request=LabelsSerializer,
        responses={
            201: LabelsSerializer,
            400: ErrorSerializer,
            404: ErrorSerializer,
            409: ErrorSerializer,
        },
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        given = LabelsSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        kept = services.keep(project=project, labels=given.validated_data["labels"])
        return Response({"labels": kept}, status=201)


class UnkeepView(APIView):
    @extend_schema(
        operation_id="unkeepNames",
        request=LabelsSerializer,
        responses={204: None, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        given = LabelsSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        services.unkeep(project=project, labels=given.validated_data["labels"])
        return Response(status=204)


class EntryView(APIView):
    @extend_schema(
        operation_id="writeRemarks",
        request=RemarksSerializer,
        responses={
            200: RemarksSerializer,
            400: ErrorSerializer,
            404: ErrorSerializer,
            409: ErrorSerializer,
        },
    )
    def patch(self, request: Request, project_id: int, label: str) -> Response:
        project = own_project(person_of(request), project_id)
        given = RemarksSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        asked, changed = given.validated_data, {}
        which = {"project": project, "label": label, "seen": asked.get("seen")}
        with transaction.atomic():
            if "note" in asked:
                changed["note"] = services.note(text=asked["note"], **which).note
            if "tags" in asked:
                changed["tags"] = services.tag(tags=asked["tags"], **which).tags
            if "extension" in asked:
                settled = services.settle(extension=asked["extension"], **which)
                changed["extension"] = settled.extension
        return Response(changed)


class OrderView(APIView):
    @extend_schema(
        operation_id="reorderShortlist",
        request=OrderSerializer,
        responses={204: None, 400: ErrorSerializer, 404: ErrorSerializer, 409: ErrorSerializer},
    )
    def put(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        given = OrderSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        services.reorder(project=project, **{"seen": None, **given.validated_data})
        return Response(status=204)


class FormSerializer(serializers.Serializer[Any]):
    form = serializers.ChoiceField(choices=tuple(FORMS), default="csv")


class ExportView(APIView):
    @extend_schema(
        operation_id="exportShortlist",
        parameters=[FormSerializer],
        responses=FILES,
    )
    def get(self, request: Request, project_id: int) -> HttpResponse:
        project = own_project(person_of(request), project_id)
        given = FormSerializer(data=request.query_params)
        given.is_valid(raise_exception=True)
        form = given.validated_data["form"]
        body = shortlist_file(services.kept_names(project), project.brief["extensions"], form)
        return download(body, FORMS[form], project.name, f"-shortlist.{form}")
