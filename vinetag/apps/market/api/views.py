"""Markets and their lists."""

from __future__ import annotations

from io import BytesIO
from typing import Any, BinaryIO, cast

from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.parsing import AnyFile
from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.errors import NotFoundError
from vinetag.apps.accounts.models import User
from vinetag.apps.accounts.waking import wake
from vinetag.apps.market.api.serializers import MarketsSerializer
from vinetag.apps.market.models import ListFile, MarketRow
from vinetag.apps.market.refresh import is_coming, take_file
from vinetag.apps.market.tasks import read_list

__all__ = ["ListView", "MarketsView"]

MOST_FILES = 10


def _markets(person: User) -> Any:
    files = ListFile.objects.select_related("market").order_by("-pk")
    document = {
        "may_edit": person.is_staff,
        "coming": is_coming(),
        "markets": MarketRow.objects.exclude(listed=False, edition="").order_by("name"),
        "files": files[:MOST_FILES] if person.is_staff else (),
    }
    return MarketsSerializer(document).data


class MarketsView(APIView):
    @extend_schema(operation_id="listMarkets", responses={200: MarketsSerializer})
    def get(self, request: Request) -> Response:
        return Response(_markets(person_of(request)))


class ListView(APIView):
    parser_classes = [AnyFile]

    @extend_schema(
        operation_id="bringOffers",
        request={"application/octet-stream": OpenApiTypes.BINARY},
        parameters=[OpenApiParameter("name", str, description="Of the market, where it is new")],
        responses={
            202: MarketsSerializer,
            400: ErrorSerializer,
            404: ErrorSerializer,
            409: ErrorSerializer,
        },
    )
    def post(self, request: Request, code: str) -> Response:
        person = person_of(request)
        if not person.is_staff:
            raise NotFoundError
        stream = cast(BinaryIO, request.data if hasattr(request.data, "read") else BytesIO())
        file = take_file(code=code, name=request.query_params.get("name", ""), stream=stream)
        wake(lambda: read_list.delay(file.pk))
        return Response(_markets(person), status=202)
