"""Starting, watching and stopping checks."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.availability import services
from vinetag.apps.availability.api.serializers import (
    CellSerializer,
    CheckRequestSerializer,
    CheckSerializer,
)
from vinetag.apps.availability.tasks import run_check
from vinetag.apps.naming.services import own_project

__all__ = ["ChecksView", "StopCheckView"]


class WatchSerializer(serializers.Serializer[Any]):
    check_run = CheckSerializer(allow_null=True, help_text="The last check, if any")
    cells = CellSerializer(many=True, help_text="Full names answered since `since`")
    now = serializers.DateTimeField(help_text="To be sent as `since` next time")


class SinceSerializer(serializers.Serializer[Any]):
    since = serializers.DateTimeField(required=False)


class ChecksView(APIView):
    @extend_schema(
        operation_id="watchCheck",
        parameters=[OpenApiParameter("since", str, description="Only cells answered since then")],
        responses={200: WatchSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = own_project(request.user, project_id)
        given = SinceSerializer(data=request.query_params)
        given.is_valid(raise_exception=True)
        watched = services.watch(project, given.validated_data.get("since"))
        return Response(WatchSerializer(watched).data)

    @extend_schema(
        operation_id="startCheck",
        request=CheckRequestSerializer,
        responses={
            201: CheckSerializer,
            400: ErrorSerializer,
            404: ErrorSerializer,
            409: ErrorSerializer,
        },
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = own_project(request.user, project_id)
        given = CheckRequestSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        check = services.start_check(project=project, **given.validated_data)
        services.wake(lambda: run_check.delay(check.pk))
        return Response(CheckSerializer(services.progress(check)).data, status=201)


class StopCheckView(APIView):
    @extend_schema(
        operation_id="stopCheck",
        request=None,
        responses={200: CheckSerializer, 404: ErrorSerializer},
    )
    def post(self, request: Request, project_id: int, check_id: int) -> Response:
        project = own_project(request.user, project_id)
        check = services.stop_check(project, check_id)
        return Response(CheckSerializer(services.progress(check)).data)
