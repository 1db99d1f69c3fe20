"""Starting, watching and stopping checks; pasted names; the quick check."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.waking import wake
from vinetag.apps.availability import checks, lists
from vinetag.apps.availability.api.serializers import (
    CellSerializer,
    CheckRequestSerializer,
    CheckSerializer,
    ListPageSerializer,
    PastedSerializer,
    PasteSerializer,
    QuickRequestSerializer,
)
from vinetag.apps.availability.catalogue import catalogue
from vinetag.apps.availability.models import Check
from vinetag.apps.availability.progress import progress, watch
from vinetag.apps.availability.quick import quick_check
from vinetag.apps.availability.tasks import run_check
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import own_project
from vinetag.core.checking import STATUSES
from vinetag.core.extensions import parse_extension
from vinetag.core.names import FullName, parse_label

__all__ = ["ChecksView", "ListView", "QuickView", "ResumeCheckView", "StopCheckView", "begin"]

REFUSALS = {400: ErrorSerializer, 404: ErrorSerializer, 409: ErrorSerializer}


class WatchSerializer(serializers.Serializer[Any]):
    check_run = CheckSerializer(allow_null=True, help_text="The last check, if any")
    cells = CellSerializer(many=True, help_text="Full names answered after `after`")
    number = serializers.IntegerField(help_text="To be sent as `after` next time")
    more = serializers.BooleanField(help_text="Whether there are more answers to be had at once")


class AfterSerializer(serializers.Serializer[Any]):
    after = serializers.IntegerField(required=False, min_value=0)


def begin(project: Project, how: dict[str, Any], **names: Any) -> Response:
    """Start a check of `names` in the way a HowSerializer read, and answer with it."""
    extensions = how.get("extensions")
    if how["everywhere"]:
        extensions = [entry.extension for entry in catalogue()]
    elif extensions:
        extensions = [parse_extension(e, "extensions") for e in extensions]
    minutes = how.get("older_than_minutes")
    check = checks.start_check(
        project=project,
        extensions=extensions,
        again=how["again"],
        older_than=timedelta(minutes=minutes) if minutes else None,
        aim=how["aim"],
        **names,
    )
    return _awake(check, 201)


def _awake(check: Check, status: int = 200) -> Response:
    wake(lambda: run_check.delay(check.pk))
    return Response(CheckSerializer(progress(check)).data, status=status)


class ChecksView(APIView):
    @extend_schema(
        operation_id="watchCheck",
        parameters=[OpenApiParameter("after", int, description="Only answers after this number")],
        responses={200: WatchSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        given = AfterSerializer(data=request.query_params)
        given.is_valid(raise_exception=True)
        return Response(WatchSerializer(watch(project, given.validated_data.get("after"))).data)

    @extend_schema(
        operation_id="startCheck",
        request=CheckRequestSerializer,
        responses={201: CheckSerializer, **REFUSALS},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        given = CheckRequestSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        how = given.validated_data
        if how["what"] == "pasted":
            return begin(project, how, names=lists.listed_names(project))
        if how["what"] == "full_names":
            return begin(project, how, names=[_full_name(n) for n in how["full_names"]])
        if how["what"] == "labels":
            return begin(project, how, labels=how["labels"])
        return begin(project, how)


def _full_name(text: str) -> FullName:
    """A full name written out. Raises CoreError."""
    label, _, extension = text.partition(".")
    return FullName(parse_label(label), parse_extension(extension, "full_names"))


class StopCheckView(APIView):
    @extend_schema(
        operation_id="stopCheck",
        request=None,
        responses={200: CheckSerializer, 404: ErrorSerializer},
    )
    def post(self, request: Request, project_id: int, check_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        check = checks.stop_check(project, check_id)
        return Response(CheckSerializer(progress(check)).data)


class ResumeCheckView(APIView):
    @extend_schema(
        operation_id="resumeCheck",
        request=None,
        responses={200: CheckSerializer, 404: ErrorSerializer, 409: ErrorSerializer},
    )
    def post(self, request: Request, project_id: int, check_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        return _awake(checks.resume_check(project, check_id))


class QuickView(APIView):
    @extend_schema(
        operation_id="quickCheck",
        request=QuickRequestSerializer,
        responses={200: CellSerializer(many=True), 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        given = QuickRequestSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        cells = quick_check(project=project, **given.validated_data)
        return Response(CellSerializer(cells, many=True).data)


class ListQuestionSerializer(serializers.Serializer[Any]):
    status = serializers.ChoiceField(
        choices=("", *STATUSES, lists.NOT_ASKED), default="", allow_blank=True
    )
    offset = serializers.IntegerField(default=0, min_value=0, max_value=100_000)
    limit = serializers.IntegerField(default=100, min_value=1, max_value=500)


class ListView(APIView):
    @extend_schema(
        operation_id="readList",
        parameters=[ListQuestionSerializer],
        responses={200: ListPageSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        given = ListQuestionSerializer(data=request.query_params)
        given.is_valid(raise_exception=True)
        return Response(ListPageSerializer(lists.list_page(project, **given.validated_data)).data)

    @extend_schema(
        operation_id="pasteList",
        request=PasteSerializer,
        responses={201: PastedSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def put(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        given = PasteSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        taken = lists.take_list(project=project, **given.validated_data)
        return Response(PastedSerializer(taken).data, status=201)

    @extend_schema(operation_id="clearList", responses={204: None, 404: ErrorSerializer})
    def delete(self, request: Request, project_id: int) -> Response:
        lists.clear_list(own_project(person_of(request), project_id))
        return Response(status=204)
