"""Watches, and what happened."""

from __future__ import annotations

from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.naming.services import own_project
from vinetag.apps.watching.api.serializers import (
    HappeningPlaceSerializer,
    HappeningsSerializer,
    KeptWatchSerializer,
    PlaceSerializer,
    ReadSerializer,
    WatchChangeSerializer,
    WatchedPageSerializer,
    WatchesSerializer,
    WatchWishSerializer,
    happening_document,
    watch_document,
    watched_document,
)
from vinetag.apps.watching.happenings import happenings_of, mark_read, texts_of, unread_of
from vinetag.apps.watching.letters import telling_of
from vinetag.apps.watching.watches import (
    Wish,
    change_watch,
    own_watch,
    own_watches,
    remove_watch,
    standing_of,
    start_watch,
)

__all__ = [
    "HappeningsView", "ReadView", "StartWatchView", "WatchView", "WatchedNamesView", "WatchesView",
]  # fmt: skip

REFUSALS = {400: ErrorSerializer, 409: ErrorSerializer}
SHOWN = 600


class WatchesView(APIView):
    @extend_schema(operation_id="listWatches", responses=WatchesSerializer)
    def get(self, request: Request) -> Response:
        person = person_of(request)
        document = {
            "watches": [watch_document(watch) for watch in own_watches(person)[:SHOWN]],
            "standing": standing_of(person),
        }
        return Response(WatchesSerializer(document).data)


class StartWatchView(APIView):
    @extend_schema(
        operation_id="startWatch",
        request=WatchWishSerializer,
        responses={201: KeptWatchSerializer, **REFUSALS},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        given = WatchWishSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        watch = start_watch(project, Wish(**given.validated_data))
        return Response(KeptWatchSerializer(watch_document(watch)).data, status=201)


class WatchView(APIView):
    @extend_schema(
        operation_id="changeWatch",
        request=WatchChangeSerializer,
        responses={200: KeptWatchSerializer, **REFUSALS},
    )
    def patch(self, request: Request, watch_id: int) -> Response:
        watch = own_watch(person_of(request), watch_id)
        given = WatchChangeSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        watch = change_watch(watch, **given.validated_data)
        return Response(KeptWatchSerializer(watch_document(watch)).data)

    @extend_schema(operation_id="removeWatch", responses={204: None})
    def delete(self, request: Request, watch_id: int) -> Response:
        remove_watch(own_watch(person_of(request), watch_id))
        return Response(status=204)


class WatchedNamesView(APIView):
    @extend_schema(
        operation_id="listWatched",
        parameters=[PlaceSerializer],
        responses=WatchedPageSerializer,
    )
    def get(self, request: Request, watch_id: int) -> Response:
        watch = own_watch(person_of(request), watch_id)
        place = PlaceSerializer(data=request.query_params)
        place.is_valid(raise_exception=True)
        at = place.validated_data
        rows = watch.names.order_by("pk")[at["offset"] : at["offset"] + at["limit"]]
        document = {"rows": [watched_document(row) for row in rows], "total": watch.names.count()}
        return Response(WatchedPageSerializer(document).data)


class HappeningsView(APIView):
    @extend_schema(
        operation_id="listHappenings",
        parameters=[HappeningPlaceSerializer],
        responses=HappeningsSerializer,
    )
    def get(self, request: Request) -> Response:
        person = person_of(request)
        place = HappeningPlaceSerializer(data=request.query_params)
        place.is_valid(raise_exception=True)
        at = place.validated_data
        rows = happenings_of(person, at.get("before"), at["limit"])
        texts = texts_of(rows, at["zone"] or telling_of(person).zone)
        document = {
            "rows": [happening_document(row, text) for row, text in zip(rows, texts, strict=True)],
            "unread": unread_of(person),
        }
        return Response(HappeningsSerializer(document).data)


class ReadView(APIView):
    @extend_schema(
        operation_id="readHappenings", request=ReadSerializer, responses=HappeningsSerializer
    )
    def post(self, request: Request) -> Response:
        person = person_of(request)
        given = ReadSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        mark_read(person, given.validated_data["upto"])
        return Response(HappeningsSerializer({"rows": [], "unread": unread_of(person)}).data)
