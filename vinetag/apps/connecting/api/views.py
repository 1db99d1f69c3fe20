"""The zone of a name one owns."""

from __future__ import annotations

from typing import Any

from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.files import download
from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.connecting.api.serializers import (
    MasterSerializer,
    ReadMasterSerializer,
    ReadyDoneSerializer,
    ReadySerializer,
    ZoneChangeSerializer,
    ZoneJudgedSerializer,
    ZoneRecordsSerializer,
    ZoneSerializer,
    judged_document,
    rows_of,
    zone_document,
)
from vinetag.apps.connecting.zones import (
    judged,
    keep,
    look_at,
    master_of,
    put_into_force,
    ready_for,
    take_out_of_force,
    zone_of,
)
from vinetag.core.zone import read_master

__all__ = [
    "JudgeView", "LookView", "MasterView", "ReadyView", "WithdrawView", "ZoneFileView", "ZoneView",
]  # fmt: skip

REFUSALS = {400: ErrorSerializer, 404: ErrorSerializer, 409: ErrorSerializer}


def _given(request: Request, kind: type[Any]) -> dict[str, Any]:
    given = kind(data=request.data)
    given.is_valid(raise_exception=True)
    return dict(given.validated_data)


def _answer(zone: Any) -> Response:
    return Response(ZoneSerializer(zone_document(zone)).data)


class ZoneView(APIView):
    @extend_schema(operation_id="readZone", responses={200: ZoneSerializer, 404: ErrorSerializer})
    def get(self, request: Request, owned_id: int) -> Response:
        return _answer(zone_of(person_of(request), owned_id))

    @extend_schema(
        operation_id="putZone",
        request=ZoneChangeSerializer,
        responses={200: ZoneSerializer, **REFUSALS},
    )
    def put(self, request: Request, owned_id: int) -> Response:
        zone = zone_of(person_of(request), owned_id)
        part = _given(request, ZoneChangeSerializer)
        return _answer(put_into_force(keep(zone, part["records"], part["edition"])))


class JudgeView(APIView):
    @extend_schema(
        operation_id="judgeZone",
        request=ZoneRecordsSerializer,
        responses={200: ZoneJudgedSerializer, **REFUSALS},
    )
    def post(self, request: Request, owned_id: int) -> Response:
        zone = zone_of(person_of(request), owned_id)
        problems, remarks = judged(zone, _given(request, ZoneRecordsSerializer)["records"])
        return Response(ZoneJudgedSerializer(judged_document(problems, remarks)).data)


class MasterView(APIView):
    @extend_schema(
        operation_id="readMaster",
        request=MasterSerializer,
        responses={200: ReadMasterSerializer, **REFUSALS},
    )
    def post(self, request: Request, owned_id: int) -> Response:
        zone = zone_of(person_of(request), owned_id)
        text = _given(request, MasterSerializer)["text"]
        read = read_master(text, str(zone.owned.name))
        document = {
            "records": rows_of(read.records),
            "problems": [{"where": p.path, "message": p.text()} for p in read.problems],
            "wrong": read.wrong,
            "left_out": read.left_out,
        }
        return Response(ReadMasterSerializer(document).data)


class ReadyView(APIView):
    @extend_schema(
        operation_id="fillZone",
        request=ReadySerializer,
        responses={200: ReadyDoneSerializer, **REFUSALS},
    )
    def post(self, request: Request, owned_id: int) -> Response:
        zone = zone_of(person_of(request), owned_id)
        part = _given(request, ReadySerializer)
        records, gone = ready_for(zone, part["set"], part["given"], part["records"])
        document = {"records": rows_of(records), "gone": rows_of(gone)}
        return Response(ReadyDoneSerializer(document).data)


class ZoneFileView(APIView):
    @extend_schema(
        operation_id="exportZone",
        responses={(200, "text/dns"): OpenApiTypes.STR, 404: ErrorSerializer},
    )
    def get(self, request: Request, owned_id: int) -> Any:
        zone = zone_of(person_of(request), owned_id)
        name = str(zone.owned.name)
        return download(master_of(zone), "text/dns", name.replace(".", "-"), ".zone")


class LookView(APIView):
    @extend_schema(
        operation_id="lookAtZone", request=None, responses={200: ZoneSerializer, **REFUSALS}
    )
    def post(self, request: Request, owned_id: int) -> Response:
        return _answer(look_at(zone_of(person_of(request), owned_id)))


class WithdrawView(APIView):
    @extend_schema(
        operation_id="withdrawZone", request=None, responses={200: ZoneSerializer, **REFUSALS}
    )
    def post(self, request: Request, owned_id: int) -> Response:
        return _answer(take_out_of_force(zone_of(person_of(request), owned_id)))
