"""The bench: the sheet, the funnel, and the reasons of one name."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from django.http import HttpResponse
from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.files import FILES, download
from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.availability.api.serializers import CheckSerializer
from vinetag.apps.availability.api.views import begin
from vinetag.apps.availability.lists import listed_names
from vinetag.apps.bench import selectors
from vinetag.apps.bench.api.serializers import (
    MOST_CHECKED,
    CountsSerializer,
    DotsSerializer,
    ExamplesSerializer,
    ExportFormSerializer,
    ExportQuestionSerializer,
    FunnelSerializer,
    JudgedSerializer,
    PagePlaceSerializer,
    PageQuestionSerializer,
    PageSerializer,
    QuestionSerializer,
    RungSerializer,
    ShownSerializer,
    StretchQuestionSerializer,
    StretchSerializer,
)
from vinetag.apps.bench.export import exported
from vinetag.apps.bench.worked import examples
from vinetag.apps.naming.api.serializers import LabelsSerializer
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import own_project
from vinetag.core.names import FullName
from vinetag.core.sheet import Question

__all__ = [
    "CheckShownView",
    "CountsView",
    "DotsView",
    "ExamplesView",
    "ExportView",
    "FallbackView",
    "FunnelView",
    "LabelsView",
    "NameView",
    "NamesView",
    "NearView",
]


def _asked(project: Project, fields: Mapping[str, Any]) -> Question:
    return selectors.read_question(project, {k: str(v) for k, v in fields.items()})


class NamesView(APIView):
    @extend_schema(
        operation_id="listNames",
        parameters=[PageQuestionSerializer],
        responses={200: PageSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        given = PagePlaceSerializer(data=request.query_params)
        given.is_valid(raise_exception=True)
        place = given.validated_data
        question = _asked(project, request.query_params)
        page = selectors.sheet_page(project, question, place["offset"], place["limit"])
        return Response(PageSerializer(page).data)


class CountsView(APIView):
    @extend_schema(
        operation_id="countNames",
        parameters=[QuestionSerializer],
        responses={200: CountsSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        counts = selectors.filter_counts(project, _asked(project, request.query_params))
        return Response(CountsSerializer(counts).data)


class LabelsView(APIView):
    """Only the labels of a stretch of the sheet, for marking many rows at once."""

    @extend_schema(
        operation_id="listLabels",
        parameters=[StretchQuestionSerializer],
        responses={200: LabelsSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        given = StretchSerializer(data=request.query_params)
        given.is_valid(raise_exception=True)
        first, limit = given.validated_data["offset"], given.validated_data["limit"]
        question = _asked(project, request.query_params)
        return Response({"labels": selectors.matching_labels(project, question, limit, first)})


class DotsView(APIView):
    @extend_schema(
        operation_id="readDots",
        parameters=[QuestionSerializer],
        responses={200: DotsSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        asked = _asked(project, request.query_params)
        return Response(DotsSerializer(selectors.dots(project, asked)).data)


class ExamplesView(APIView):
    @extend_schema(operation_id="workedExamples", responses=ExamplesSerializer)
    def get(self, _request: Request) -> Response:
        return Response(ExamplesSerializer({"examples": examples()}).data)


class FunnelView(APIView):
    @extend_schema(
        operation_id="readFunnel", responses={200: FunnelSerializer, 404: ErrorSerializer}
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        return Response(FunnelSerializer(selectors.funnel(project)).data)


class NearView(APIView):
    @extend_schema(
        operation_id="nearNames",
        responses={200: PageSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int, label: str) -> Response:
        project = own_project(person_of(request), project_id)
        return Response(PageSerializer(selectors.near_names(project, label)).data)


class CheckShownView(APIView):
    @extend_schema(
        operation_id="checkShown",
        request=ShownSerializer,
        responses={
            201: CheckSerializer,
            400: ErrorSerializer,
            404: ErrorSerializer,
            409: ErrorSerializer,
        },
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        given = ShownSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        asked = _asked(project, given.validated_data["shown"])
        labels = selectors.matching_labels(project, asked, MOST_CHECKED)
        return begin(project, given.validated_data, labels=labels)


class FallbackView(APIView):
    @extend_schema(
        operation_id="readFallback",
        responses={200: RungSerializer(many=True), 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int, label: str) -> Response:
        project = own_project(person_of(request), project_id)
        return Response(RungSerializer(selectors.fallback(project, label), many=True).data)


class ExportView(APIView):
    @extend_schema(
        operation_id="exportStatuses",
        parameters=[ExportQuestionSerializer],
        responses=FILES,
    )
    def get(self, request: Request, project_id: int) -> HttpResponse:
        project = own_project(person_of(request), project_id)
        given = ExportFormSerializer(data=request.query_params)
        given.is_valid(raise_exception=True)
        form, what = given.validated_data["form"], given.validated_data["what"]
        if what == "pasted":
            names = listed_names(project)
        else:
            asked = _asked(project, request.query_params)
            labels = selectors.matching_labels(project, asked, MOST_CHECKED)
            names = [FullName(a, e) for a in labels for e in project.brief["extensions"]]
        content, kind = exported(project, names, form)
        return download(content, kind, project.name, f"-{what}.{form}")


class NameView(APIView):
    @extend_schema(
        operation_id="readName",
        responses={200: JudgedSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int, label: str) -> Response:
        project = own_project(person_of(request), project_id)
        return Response(JudgedSerializer(selectors.one_name(project, label)).data)
