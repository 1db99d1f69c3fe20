"""The hunt."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.hunting.api.serializers import (
    HuntCountsSerializer,
    HuntPageQuestionSerializer,
    HuntPageSerializer,
    HuntPlaceSerializer,
    HuntQuestionSerializer,
)
from vinetag.apps.hunting.hunts import Hunted, hunt_counts, hunt_page
from vinetag.apps.market.api.serializers import offer_document
from vinetag.apps.market.offers import market_names
from vinetag.apps.naming.services import own_project
from vinetag.core.market import Hunt, parse_hunt

__all__ = ["HuntCountsView", "HuntView"]


def _asked(fields: Mapping[str, Any]) -> Hunt:
    return parse_hunt({name: str(value) for name, value in fields.items()})


class HuntView(APIView):
    @extend_schema(
        operation_id="hunt",
        parameters=[HuntPageQuestionSerializer],
        responses={200: HuntPageSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        place = HuntPlaceSerializer(data=request.query_params)
        place.is_valid(raise_exception=True)
        at = place.validated_data
        page = hunt_page(project, _asked(request.query_params), at["offset"], at["limit"])
        names = market_names()
        document = {
            "rows": [_row(row, names) for row in page.rows],
            "total": page.total,
            "currency": page.currency,
        }
        return Response(HuntPageSerializer(document).data)


class HuntCountsView(APIView):
    @extend_schema(
        operation_id="countHunt",
        parameters=[HuntQuestionSerializer],
        responses={200: HuntCountsSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        found = hunt_counts(project, _asked(request.query_params))
        empty: dict[str, dict[str, int]] = {"kind": {}, "market": {}, "extension": {}}
        return Response(HuntCountsSerializer({**empty, **found}).data)


def _row(row: Hunted, names: dict[str, str]) -> dict[str, Any]:
    label = row.offer.name.label
    scores = row.grade.scores if row.grade else {}
    return {
        "label": label,
        "extension": row.offer.name.extension,
        "offer": offer_document(row.offer, names),
        "suits": row.suits,
        "cost": None if row.cost is None else f"{row.cost:.2f}",
        "grade": None if row.grade is None else round(row.grade.grade, 1),
        "scores": {name: round(score, 1) for name, score in scores.items()},
        "starts": list(row.starts),
        "letters": len(label.replace("-", "")),
        "words": row.words,
        "kept": row.kept,
    }
