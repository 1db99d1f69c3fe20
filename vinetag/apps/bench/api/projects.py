"""Projects as wholes: where each stands, taking one away as a file and bringing it back."""

from __future__ import annotations

import json
from typing import Any

from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.parsers import BaseParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.files import download
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.bench.overview import standings
from vinetag.apps.bench.transfer import (
    MOST_BYTES,
    duplicate,
    project_document,
    read_project,
)
from vinetag.apps.naming.api.serializers import ProjectSerializer
from vinetag.apps.naming.services import archive_project, own_project

__all__ = ["ArchiveView", "DuplicateView", "FileView", "ImportView", "OverviewView"]


class OverviewSerializer(serializers.Serializer[Any]):
    project = ProjectSerializer()
    listed = serializers.IntegerField()
    good = serializers.IntegerField(help_text="Of those listed")
    kept = serializers.IntegerField()
    open = serializers.IntegerField(help_text="Names open somewhere, when last asked")
    asked = serializers.IntegerField(help_text="Full names with an answer")
    stale = serializers.IntegerField(help_text="Of these, answers older than they last")
    checking = serializers.BooleanField()


class OverviewView(APIView):
    @extend_schema(operation_id="readOverview", responses=OverviewSerializer(many=True))
    def get(self, request: Request) -> Response:
        return Response(OverviewSerializer(standings(request.user), many=True).data)


class ArchiveSerializer(serializers.Serializer[Any]):
    archived = serializers.BooleanField()


class ArchiveView(APIView):
    @extend_schema(
        operation_id="archiveProject",
        request=ArchiveSerializer,
        responses={200: ProjectSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def put(self, request: Request, project_id: int) -> Response:
        project = own_project(request.user, project_id)
        given = ArchiveSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        archive_project(project, away=given.validated_data["archived"])
        return Response(ProjectSerializer(project).data)


class DuplicateView(APIView):
    @extend_schema(
        operation_id="duplicateProject",
        request=None,
        responses={201: ProjectSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = own_project(request.user, project_id)
        copy = duplicate(owner=request.user, project=project)
        return Response(ProjectSerializer(copy).data, status=201)


class FileView(APIView):
    @extend_schema(
        operation_id="exportProject",
        responses={(200, "application/json"): OpenApiTypes.BINARY, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> HttpResponse:
        project = own_project(request.user, project_id)
        content = json.dumps(project_document(project), ensure_ascii=False, indent=1)
        return download(content, "application/json", project.name, ".vinetag.json")


class WholeFile(BaseParser):
    """The body as it is: it is read, with its problems told, by the import itself."""

    media_type = "application/json"

    def parse(self, stream: Any, *_about: Any, **_more: Any) -> bytes:
        content: bytes = stream.read(MOST_BYTES + 1)
        return content


class ImportView(APIView):
    parser_classes = [WholeFile]

    @extend_schema(
        operation_id="importProject",
        request=OpenApiTypes.OBJECT,
        responses={201: ProjectSerializer, 400: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        project = read_project(owner=request.user, content=request.data)
        return Response(ProjectSerializer(project).data, status=201)
