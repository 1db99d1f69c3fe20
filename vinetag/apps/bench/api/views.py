"""The bench: the sheet, the funnel, and the reasons of one name."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema, extend_schema_field
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.availability.api.serializers import CellSerializer
from vinetag.apps.bench import selectors
from vinetag.apps.bench.worked import weighing
from vinetag.apps.naming.services import own_project
from vinetag.core.names import unicode_label

__all__ = ["DotsView", "FunnelView", "NameView", "NamesView", "NearView", "WeighingView"]


class QuestionSerializer(serializers.Serializer[Any]):
    sort = serializers.ChoiceField(choices=tuple(selectors.SORTS), default="best")
    reverse = serializers.BooleanField(default=False)
    text = serializers.CharField(default="", allow_blank=True, max_length=63)
    open_in = serializers.CharField(default="", allow_blank=True, max_length=63)
    good = serializers.BooleanField(default=False)
    kept = serializers.BooleanField(default=False)
    offset = serializers.IntegerField(default=0, min_value=0, max_value=100_000)
    limit = serializers.IntegerField(default=100, min_value=1, max_value=500)


class RowSerializer(serializers.Serializer[Any]):
    label = serializers.CharField(source="candidate.label")
    grade = serializers.FloatField(source="candidate.grade")
    letters = serializers.IntegerField(source="candidate.letters")
    scores = serializers.DictField(source="candidate.scores", child=serializers.FloatField())
    recipes = serializers.ListField(source="candidate.recipes", child=serializers.CharField())
    starts = serializers.SerializerMethodField(help_text="Where each part begins, from 0")
    change = serializers.SerializerMethodField(help_text="What was done to a word, if anything")
    dot = serializers.SerializerMethodField(help_text="The extension that completes the word")
    kept = serializers.BooleanField()
    cells = CellSerializer(many=True)

    def get_starts(self, row: selectors.Row) -> list[int]:
        return [part[3] for part in row.candidate.parts]

    def get_change(self, row: selectors.Row) -> str:
        return next((p[4] for p in row.candidate.parts if len(p) > 4 and p[4]), "")

    def get_dot(self, row: selectors.Row) -> str:
        [first, *_] = row.candidate.parts or [("", "", "", 0)]
        whole = self.get_change(row).rpartition(" ")[2]
        return whole.partition(".")[2] if first[1] == "acrossdot" else ""


class PageSerializer(serializers.Serializer[Any]):
    rows = RowSerializer(many=True)
    total = serializers.IntegerField()


class FunnelSerializer(serializers.Serializer[Any]):
    made = serializers.IntegerField()
    within = serializers.IntegerField()
    listed = serializers.IntegerField()
    good = serializers.IntegerField()
    open = serializers.IntegerField()
    kept = serializers.IntegerField()
    good_from = serializers.FloatField(help_text="The grade from which a name is good enough")


class ReasonSerializer(serializers.Serializer[Any]):
    text = serializers.CharField()
    points = serializers.FloatField()
    start = serializers.IntegerField()
    end = serializers.IntegerField()


class MeasureSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    score = serializers.FloatField(allow_null=True)
    weight = serializers.FloatField()
    reasons = ReasonSerializer(many=True)


class WarningSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    text = serializers.CharField()
    start = serializers.IntegerField()
    end = serializers.IntegerField()


class MisspellingSerializer(serializers.Serializer[Any]):
    label = serializers.CharField()
    share = serializers.FloatField(help_text="Of those who hear the name, 0 to 1")


class DotsSerializer(serializers.Serializer[Any]):
    labels = serializers.ListField(child=serializers.CharField())
    letters = serializers.ListField(child=serializers.IntegerField())
    scores = serializers.DictField(
        child=serializers.ListField(child=serializers.FloatField(allow_null=True))
    )
    kept = serializers.ListField(child=serializers.BooleanField())


class ExampleSerializer(serializers.Serializer[Any]):
    project = serializers.CharField()
    label = serializers.CharField()
    score = serializers.FloatField(allow_null=True)
    reasons = ReasonSerializer(many=True)


class WeighingSerializer(serializers.Serializer[Any]):
    exponent = serializers.FloatField(help_text="Of the power mean that makes the grade")
    presets = serializers.DictField(
        child=serializers.DictField(child=serializers.IntegerField()), help_text="By purpose"
    )
    examples = serializers.DictField(child=ExampleSerializer(many=True))


class PartSerializer(serializers.Serializer[Any]):
    text = serializers.CharField()
    kind = serializers.CharField()
    keyword = serializers.CharField(allow_blank=True)
    start = serializers.IntegerField()
    change = serializers.CharField(allow_blank=True, help_text="What was done to the word")


class JudgedSerializer(serializers.Serializer[Any]):
    label = serializers.CharField()
    shown = serializers.SerializerMethodField(help_text="The label as a person writes it")
    grade = serializers.FloatField(allow_null=True)
    recipes = serializers.ListField(child=serializers.CharField())
    parts = PartSerializer(many=True)
    measures = MeasureSerializer(many=True)
    warnings = WarningSerializer(many=True)
    misspellings = serializers.SerializerMethodField(help_text="The likeliest first")
    kept = serializers.BooleanField()
    cells = CellSerializer(many=True)

    @extend_schema_field(MisspellingSerializer(many=True))
    def get_misspellings(self, judged: selectors.Judged) -> list[dict[str, Any]]:
        return [{"label": text, "share": share} for text, share in judged.misspellings]

    def get_shown(self, judged: selectors.Judged) -> str:
        return unicode_label(judged.label)


def _question(request: Request) -> selectors.Question:
    given = QuestionSerializer(data=request.query_params)
    given.is_valid(raise_exception=True)
    return selectors.Question(**given.validated_data)


class NamesView(APIView):
    @extend_schema(
        operation_id="listNames",
        parameters=[QuestionSerializer],
        responses={200: PageSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = own_project(request.user, project_id)
        page = selectors.sheet_page(project, _question(request))
        return Response(PageSerializer(page).data)


class DotsView(APIView):
    @extend_schema(
        operation_id="readDots",
        parameters=[QuestionSerializer],
        responses={200: DotsSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = own_project(request.user, project_id)
        return Response(DotsSerializer(selectors.dots(project, _question(request))).data)


class WeighingView(APIView):
    @extend_schema(operation_id="readWeighing", responses=WeighingSerializer)
    def get(self, _request: Request) -> Response:
        return Response(WeighingSerializer(weighing()).data)


class FunnelView(APIView):
    @extend_schema(
        operation_id="readFunnel", responses={200: FunnelSerializer, 404: ErrorSerializer}
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = own_project(request.user, project_id)
        return Response(FunnelSerializer(selectors.funnel(project)).data)


class NearView(APIView):
    @extend_schema(
        operation_id="nearNames",
        responses={200: PageSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int, label: str) -> Response:
        project = own_project(request.user, project_id)
        return Response(PageSerializer(selectors.near_names(project, label)).data)


class NameView(APIView):
    @extend_schema(
        operation_id="readName",
        responses={200: JudgedSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int, label: str) -> Response:
        project = own_project(request.user, project_id)
        return Response(JudgedSerializer(selectors.one_name(project, label)).data)
