"""The list of names one owns."""

from __future__ import annotations

import json
from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.files import FILES, download
from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.models import User
from vinetag.apps.costs.listing import usual_currency
from vinetag.apps.owning.api.serializers import (
    BroughtSerializer,
    IdsSerializer,
    MonthsSerializer,
    OwnedChangeSerializer,
    OwnedFacetsSerializer,
    OwnedQuestionSerializer,
    OwnedSerializer,
    TypedSerializer,
    facets_document,
    owned_document,
    page_document,
)
from vinetag.apps.owning.keeping import (
    Brought,
    add_typed,
    adopt_ordered,
    bring_back,
    bring_table,
    change_names,
    take_off,
)
from vinetag.apps.owning.listing import PAGE, Asked, asked_for, facets_of, months_of, page_of
from vinetag.apps.owning.pricing import is_priced, price_owned
from vinetag.core.owning import COLUMNS
from vinetag.core.spreadsheet import FORMS, as_csv

__all__ = [
    "BackView", "FacetsView", "MonthsView", "OffView", "OwnedFileView", "OwnedView", "TableView",
]  # fmt: skip

REFUSALS = {400: ErrorSerializer, 409: ErrorSerializer}


class BatchSerializer(serializers.Serializer[Any]):
    batch = serializers.CharField(max_length=32, help_text="By it they are brought back")


class OwnedCountSerializer(serializers.Serializer[Any]):
    count = serializers.IntegerField()


class OwnedFormSerializer(OwnedQuestionSerializer):
    form = serializers.ChoiceField(choices=("csv", "json"), default="csv")


def _asked(request: Request, kind: type[Any] = OwnedQuestionSerializer) -> dict[str, Any]:
    given = kind(data=request.query_params)
    given.is_valid(raise_exception=True)
    return dict(given.validated_data)


def _brought(brought: Brought) -> dict[str, Any]:
    problems = [{"where": p.path, "message": p.text()} for p in brought.problems]
    return {
        "new": brought.new, "changed": brought.changed, "problems": problems,
        "wrong": brought.wrong,
    }  # fmt: skip


class OwnedView(APIView):
    @extend_schema(
        operation_id="readOwned", parameters=[OwnedQuestionSerializer], responses=OwnedSerializer
    )
    def get(self, request: Request) -> Response:
        person = person_of(request)
        asked = Asked(**_asked(request))
        if adopt_ordered(person) or not is_priced(person):
            price_owned(person)
        # As OwnedSerializer would write it: rows of a page are many, and plain.
        return Response(page_document(page_of(person, asked), PAGE))

    @extend_schema(
        operation_id="addOwned",
        request=TypedSerializer,
        responses={201: BroughtSerializer, **REFUSALS},
    )
    def post(self, request: Request) -> Response:
        return _take(person_of(request), request, table=False)

    @extend_schema(
        operation_id="changeOwned",
        request=OwnedChangeSerializer,
        responses={200: OwnedCountSerializer, **REFUSALS},
    )
    def patch(self, request: Request) -> Response:
        given = OwnedChangeSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        part = dict(given.validated_data)
        count = change_names(person_of(request), part.pop("ids"), part)
        return Response(OwnedCountSerializer({"count": count}).data)


def _take(person: User, request: Request, *, table: bool) -> Response:
    given = TypedSerializer(data=request.data)
    given.is_valid(raise_exception=True)
    brought = (bring_table if table else add_typed)(person, given.validated_data["text"])
    price_owned(person)
    return Response(BroughtSerializer(_brought(brought)).data, status=201)


class FacetsView(APIView):
    @extend_schema(operation_id="readOwnedFacets", responses=OwnedFacetsSerializer)
    def get(self, request: Request) -> Response:
        document = facets_document(facets_of(person_of(request)))
        return Response(OwnedFacetsSerializer(document).data)


class TableView(APIView):
    @extend_schema(
        operation_id="importOwned",
        request=TypedSerializer,
        responses={201: BroughtSerializer, **REFUSALS},
    )
    def post(self, request: Request) -> Response:
        return _take(person_of(request), request, table=True)


class OwnedFileView(APIView):
    @extend_schema(
        operation_id="exportOwned",
        parameters=[OwnedFormSerializer],
        responses={**FILES, 400: ErrorSerializer},
    )
    def get(self, request: Request) -> Any:
        person = person_of(request)
        given = _asked(request, OwnedFormSerializer)
        form = given.pop("form")
        rows = asked_for(person, Asked(**given)).select_related("project").order_by("label")
        documents = [owned_document(row) for row in rows]
        if form == "json":
            content = json.dumps(
                {"format": "vinetag-owned", "version": 1, "names": documents},
                ensure_ascii=False, indent=1, default=str,
            )  # fmt: skip
            return download(content, FORMS[form], "my-names", ".json")
        table = [_cells(document) for document in documents]
        return download(as_csv(COLUMNS, table), FORMS[form], "my-names", ".csv")


def _cells(one: dict[str, Any]) -> list[Any]:
    def day(name: str) -> str:
        return "" if one[name] is None else one[name].date().isoformat()

    def either(name: str) -> str:
        return "" if one[name] is None else "yes" if one[name] else "no"

    return [
        one["full_name"], one["seller"], day("registered_at"), day("expires_at"), one["renewal"],
        either("locked"), either("privacy"), " ".join(one["servers"]), "; ".join(one["tags"]),
        one["yearly"] or "", one["yearly_currency"] if one["yearly"] else "", one["phase"],
    ]  # fmt: skip


class MonthsView(APIView):
    @extend_schema(operation_id="readOwnedMonths", responses=MonthsSerializer)
    def get(self, request: Request) -> Response:
        person = person_of(request)
        if not is_priced(person):
            price_owned(person)
        currency = usual_currency(person)
        months = [
            {"month": m.month, "amount": f"{m.amount:.2f}", "names": m.names, "unknown": m.unknown}
            for m in months_of(person, currency)
        ]
        return Response(MonthsSerializer({"currency": currency, "months": months}).data)


class OffView(APIView):
    @extend_schema(
        operation_id="takeOwnedOff", request=IdsSerializer, responses={200: BatchSerializer}
    )
    def post(self, request: Request) -> Response:
        given = IdsSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        batch = take_off(person_of(request), given.validated_data["ids"])
        return Response(BatchSerializer({"batch": batch}).data)


class BackView(APIView):
    @extend_schema(
        operation_id="bringOwnedBack",
        request=BatchSerializer,
        responses={200: OwnedCountSerializer},
    )
    def post(self, request: Request) -> Response:
        given = BatchSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        count = bring_back(person_of(request), given.validated_data["batch"])
        return Response(OwnedCountSerializer({"count": count}).data)
