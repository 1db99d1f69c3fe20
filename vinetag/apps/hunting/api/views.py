"""The hunt."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.errors import RefusedError
from vinetag.apps.availability.catalogue import catalogue
from vinetag.apps.hunting.api.serializers import (
    HuntCountsSerializer,
    HuntPageQuestionSerializer,
    HuntPageSerializer,
    HuntPlaceSerializer,
    HuntQuestionSerializer,
    LengthPricesSerializer,
    ScarcitySerializer,
    ShortPageSerializer,
    ShortPlaceSerializer,
    ShortQuestionSerializer,
)
from vinetag.apps.hunting.hunts import Hunted, hunt_counts, hunt_page, length_prices
from vinetag.apps.hunting.scarcity import scarcity
from vinetag.apps.hunting.short import MOST_EXTENSIONS, short_page
from vinetag.apps.market.api.serializers import offer_document
from vinetag.apps.market.offers import market_names
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import own_project
from vinetag.core.errors import Problem
from vinetag.core.market import Hunt, parse_hunt
from vinetag.core.market.short_names import parse_short

__all__ = ["HuntCountsView", "HuntView", "LengthPricesView", "ScarcityView", "ShortNamesView"]


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


class ShortNamesView(APIView):
    @extend_schema(
        operation_id="shortNames",
        parameters=[ShortQuestionSerializer],
        responses={200: ShortPageSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        place = ShortPlaceSerializer(data=request.query_params)
        place.is_valid(raise_exception=True)
        at = place.validated_data
        asked = parse_short({k: str(v) for k, v in request.query_params.items()})
        page = short_page(
            project, asked, _extensions(at["extensions"], project), at["offset"], at["limit"],
            free_only=not at["every"],
        )  # fmt: skip
        return Response(ShortPageSerializer(page).data)


class LengthPricesView(APIView):
    @extend_schema(
        operation_id="readLengthPrices",
        parameters=[OpenApiParameter("extensions", str, description="Those of the brief else")],
        responses={200: LengthPricesSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        wanted = _extensions(request.query_params.get("extensions", ""), project)
        currency, prices = length_prices(project, wanted)
        document = {"currency": currency, "prices": [one._asdict() for one in prices]}
        return Response(LengthPricesSerializer(document).data)


class ScarcityView(APIView):
    @extend_schema(
        operation_id="readScarcity",
        parameters=[OpenApiParameter("shape", str, description="Of C and V, or of ? alone")],
        responses={200: ScarcitySerializer(many=True)},
    )
    def get(self, request: Request) -> Response:
        found = scarcity(request.query_params.get("shape", "????"))
        return Response(ScarcitySerializer(found, many=True).data)


def _extensions(text: str, project: Project) -> list[str]:
    """Those asked for, all of the catalogue, or the brief's. Raises RefusedError."""
    parts = [part.strip().lower().removeprefix(".") for part in text.split(",")]
    wanted = list(dict.fromkeys(part for part in parts if part))
    if not wanted:
        return list(project.brief["extensions"])[:MOST_EXTENSIONS]
    known = {entry.extension for entry in catalogue()}
    if unknown := [e for e in wanted if e not in known]:
        args = {"value": unknown[0][:40], "choices": "those of the catalogue"}
        raise RefusedError([Problem("extensions", "unknown_choice", args)])
    if len(wanted) > MOST_EXTENSIONS:
        counts = {"limit": MOST_EXTENSIONS, "count": len(wanted)}
        raise RefusedError([Problem("extensions", "too_many", counts)])
    return wanted


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
