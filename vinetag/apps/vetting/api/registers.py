"""Registers of marks and the catalogue of platforms, kept by administrators."""

from __future__ import annotations

from io import BytesIO
from typing import Any, BinaryIO, cast

from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.files import download
from vinetag.apps.accounts.api.parsing import AnyFile
from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.models import User
from vinetag.apps.accounts.waking import wake
from vinetag.apps.availability.catalogue import require_administrator
from vinetag.apps.vetting.api.serializers import CatalogueSerializer, RegistersSerializer
from vinetag.apps.vetting.models import MarkFile
from vinetag.apps.vetting.platforms import keep_platforms, platforms
from vinetag.apps.vetting.registers import count_marks, take_register
from vinetag.apps.vetting.tasks import read_register
from vinetag.core.vet import write_platforms

__all__ = ["PlatformsView", "RegistersView"]

MOST_FILES = 10


def _registers(person: User) -> Any:
    document = {
        "may_edit": person.is_staff,
        "marks": count_marks(),
        "files": MarkFile.objects.order_by("-id")[:MOST_FILES] if person.is_staff else (),
    }
    return RegistersSerializer(document).data


class RegistersView(APIView):
    parser_classes = [AnyFile]

    @extend_schema(operation_id="listRegisters", responses={200: RegistersSerializer})
    def get(self, request: Request) -> Response:
        return Response(_registers(person_of(request)))

    @extend_schema(
        operation_id="bringRegister",
        request={"application/octet-stream": OpenApiTypes.BINARY},
        parameters=[
            OpenApiParameter("name", str, description="Of the file"),
            OpenApiParameter("office", str, description="Of marks that name none"),
        ],
        responses={
            202: RegistersSerializer,
            400: ErrorSerializer,
            404: ErrorSerializer,
            409: ErrorSerializer,
        },
    )
    def post(self, request: Request) -> Response:
        person = person_of(request)
        require_administrator(person)
        asked = request.query_params
        stream = cast(BinaryIO, request.data if hasattr(request.data, "read") else BytesIO())
        file = take_register(
            name=asked.get("name", ""), office=asked.get("office", ""), stream=stream
        )
        wake(lambda: read_register.delay(file.pk))
        return Response(_registers(person), status=202)


class PlatformsView(APIView):
    @extend_schema(operation_id="exportPlatforms", responses={(200, "text/csv"): OpenApiTypes.STR})
    def get(self, _request: Request) -> HttpResponse:
        text = write_platforms(platforms())
        return download(text, "text/csv; charset=utf-8", "platforms", ".csv")

    @extend_schema(
        operation_id="bringPlatforms",
        request=CatalogueSerializer,
        responses={204: None, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def put(self, request: Request) -> Response:
        require_administrator(person_of(request))
        given = CatalogueSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        keep_platforms(given.validated_data["text"])
        return Response(status=204)
