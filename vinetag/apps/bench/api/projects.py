"""Projects as wholes: where each stands, taking one away as a file and bringing it back."""

from __future__ import annotations

import json
from io import BytesIO
from typing import Any, BinaryIO, cast

from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.parsers import BaseParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.files import download
from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer, ProblemSerializer
from vinetag.apps.accounts.joining import Fields, Joined, JoinedSerializer
from vinetag.apps.accounts.waking import wake
from vinetag.apps.bench import filing
from vinetag.apps.bench.models import Filing
from vinetag.apps.bench.overview import standings
from vinetag.apps.bench.tasks import do_filing
from vinetag.apps.bench.transfer import project_document
from vinetag.apps.naming.api.serializers import ProjectSerializer
from vinetag.apps.naming.services import archive_project, own_project

__all__ = [
    "ArchiveView", "DuplicateView", "FileView", "FilingView", "ImportView", "OverviewView",
]  # fmt: skip


class OverviewSerializer(JoinedSerializer):
    """Where a project stands, with what each app counts of it."""

    project = ProjectSerializer()
    listed = serializers.IntegerField()
    good = serializers.IntegerField(help_text="Of those listed")
    open = serializers.IntegerField(help_text="Names open somewhere, when last asked")

    def added(self, one: Joined) -> Fields:
        """What the app counts."""
        return one.counted.fields if one.counted else {}


class OverviewView(APIView):
    @extend_schema(operation_id="readOverview", responses=OverviewSerializer(many=True))
    def get(self, request: Request) -> Response:
        return Response(OverviewSerializer(standings(person_of(request)), many=True).data)


class ArchiveSerializer(serializers.Serializer[Any]):
    archived = serializers.BooleanField()


class ArchiveView(APIView):
    @extend_schema(
        operation_id="archiveProject",
        request=ArchiveSerializer,
        responses={200: ProjectSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def put(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        given = ArchiveSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        archive_project(project, away=given.validated_data["archived"])
        return Response(ProjectSerializer(project).data)


class FilingSerializer(serializers.Serializer[Any]):
    """A project being made of a file, or copied."""

    id = serializers.IntegerField()
    state = serializers.ChoiceField(choices=Filing.State.choices)
    done = serializers.IntegerField(help_text="In percent")
    problems = ProblemSerializer(many=True, help_text="Why it failed")
    project = ProjectSerializer(allow_null=True, help_text="What was made")


def _begun(job: Filing) -> Response:
    wake(lambda: do_filing.delay(job.pk))
    job.refresh_from_db()
    return Response(FilingSerializer(job).data, status=202)


class DuplicateView(APIView):
    @extend_schema(
        operation_id="duplicateProject",
        request=None,
        responses={202: FilingSerializer, 404: ErrorSerializer, 409: ErrorSerializer},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        return _begun(filing.start_copy(owner=person_of(request), project=project))


class FilingView(APIView):
    @extend_schema(
        operation_id="readFiling", responses={200: FilingSerializer, 404: ErrorSerializer}
    )
    def get(self, request: Request, filing_id: int) -> Response:
        return Response(FilingSerializer(filing.own_filing(person_of(request), filing_id)).data)


class FileView(APIView):
    @extend_schema(
        operation_id="exportProject",
        responses={(200, "application/json"): OpenApiTypes.OBJECT, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> HttpResponse:
        project = own_project(person_of(request), project_id)
        content = json.dumps(project_document(project), ensure_ascii=False, indent=1)
        return download(content, "application/json", project.name, ".vinetag.json")


class WholeFile(BaseParser):
    """The body as it arrives: a worker reads it, and tells its problems."""

    media_type = "application/json"

    def parse(self, stream: Any, *_about: Any, **_more: Any) -> Any:
        return stream


class ImportView(APIView):
    parser_classes = [WholeFile]

    @extend_schema(
        operation_id="importProject",
        request=OpenApiTypes.OBJECT,
        responses={202: FilingSerializer, 400: ErrorSerializer, 409: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        stream = cast(BinaryIO, request.data if hasattr(request.data, "read") else BytesIO())
        return _begun(filing.start_import(owner=person_of(request), stream=stream))
