"""Two names at a time: which is better?"""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema, extend_schema_field
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.naming.services import own_project
from vinetag.apps.shortlists import dueling
from vinetag.core.duels import Ranking
from vinetag.core.names import unicode_label

__all__ = ["DuelOrderView", "DuelsView", "TakeBackView"]


class StandingSerializer(serializers.Serializer[Any]):
    label = serializers.CharField()  # type: ignore[assignment] # a field called as DRF's own
    shown = serializers.SerializerMethodField()
    strength = serializers.FloatField(help_text="A logit; 0 for a name like the others")
    error = serializers.FloatField(help_text="Its standard error")
    best = serializers.FloatField(help_text="The chance that it is the best, 0 to 1")
    wins = serializers.FloatField(help_text="Ties count half")
    duels = serializers.IntegerField()

    def get_shown(self, standing: Any) -> str:
        return unicode_label(standing.label)


class RankingSerializer(serializers.Serializer[Any]):
    standings = StandingSerializer(many=True)
    pair = serializers.SerializerMethodField(help_text="Whom to compare next; empty for none")
    certainty = serializers.FloatField(help_text="The chance that the first is the best")
    enough = serializers.BooleanField()
    asked = serializers.SerializerMethodField(help_text="How many answers there are")

    @extend_schema_field(serializers.ListField(child=serializers.CharField()))
    def get_pair(self, ranking: Ranking) -> list[str]:
        return list(ranking.pair or ())

    def get_asked(self, ranking: Ranking) -> int:
        return sum(s.duels for s in ranking.standings) // 2


class DuelSerializer(serializers.Serializer[Any]):
    winner = serializers.CharField(max_length=63)
    loser = serializers.CharField(max_length=63)
    tie = serializers.BooleanField(default=False)


class DuelsView(APIView):
    @extend_schema(
        operation_id="readDuels", responses={200: RankingSerializer, 404: ErrorSerializer}
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        return Response(RankingSerializer(dueling.ranking(project)).data)

    @extend_schema(
        operation_id="answerDuel",
        request=DuelSerializer,
        responses={200: RankingSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        given = DuelSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        dueling.duel(project=project, **given.validated_data)
        return Response(RankingSerializer(dueling.ranking(project)).data)

    @extend_schema(operation_id="forgetDuels", responses={204: None, 404: ErrorSerializer})
    def delete(self, request: Request, project_id: int) -> Response:
        dueling.forget_duels(own_project(person_of(request), project_id))
        return Response(status=204)


class TakeBackView(APIView):
    @extend_schema(
        operation_id="takeBackDuel",
        request=None,
        responses={200: RankingSerializer, 404: ErrorSerializer},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        dueling.take_back(project)
        return Response(RankingSerializer(dueling.ranking(project)).data)


class DuelOrderView(APIView):
    @extend_schema(
        operation_id="orderByDuels", request=None, responses={204: None, 404: ErrorSerializer}
    )
    def post(self, request: Request, project_id: int) -> Response:
        dueling.order_by_duels(own_project(person_of(request), project_id))
        return Response(status=204)
