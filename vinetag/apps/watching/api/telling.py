"""How a person is told: letters, and feeds anybody who has their address can read."""

from __future__ import annotations

import hashlib

from django.conf import settings
from django.http import HttpRequest, HttpResponse, HttpResponseNotModified
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework.permissions import AllowAny
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.api.throttling import ByAddress
from vinetag.apps.accounts.models import User
from vinetag.apps.watching.api.serializers import (
    ConfirmSerializer,
    FeedsSerializer,
    NewFeedSerializer,
    TellingChangeSerializer,
    TellingSerializer,
)
from vinetag.apps.watching.feeds import (
    atom_feed,
    calendar_feed,
    feeds_of,
    make_feed,
    opened_feed,
    revoke_feed,
)
from vinetag.apps.watching.letters import can_mail, confirm, letters_of, set_telling, telling_of
from vinetag.apps.watching.models import PrivateFeed

__all__ = [
    "AtomView", "CalendarView", "ConfirmView", "FeedView", "FeedsView", "TellingView",
]  # fmt: skip

FILES = {"atom": "changes.atom", "calendar": "dates.ics"}


def _telling(person: User) -> Response:
    row = telling_of(person)
    document = {
        "can_mail": can_mail(person),
        "reader": settings.MAIL_READER,
        "zone": row.zone,
        "address": row.address,
        "how": row.how,
        "hour": row.hour,
        "confirmed": row.confirmed_at is not None,
        "trouble": row.trouble,
        "letters": letters_of(person),
    }
    return Response(TellingSerializer(document).data)


class TellingView(APIView):
    @extend_schema(operation_id="readTelling", responses=TellingSerializer)
    def get(self, request: Request) -> Response:
        return _telling(person_of(request))

    @extend_schema(
        operation_id="changeTelling",
        request=TellingChangeSerializer,
        responses={200: TellingSerializer, 400: ErrorSerializer, 409: ErrorSerializer},
    )
    def patch(self, request: Request) -> Response:
        person = person_of(request)
        given = TellingChangeSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        set_telling(person, **given.validated_data)
        return _telling(person)


class ConfirmView(APIView):
    throttle_classes = [ByAddress]
    throttle_scope = "joining"

    @extend_schema(
        operation_id="confirmAddress",
        request=ConfirmSerializer,
        responses={200: TellingSerializer, 400: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        person = person_of(request)
        given = ConfirmSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        confirm(person, given.validated_data["code"])
        return _telling(person)


def _feeds(person: User) -> dict[str, object]:
    rows = [
        {
            "id": row.pk,
            "kind": row.kind,
            "path": f"/api/feeds/{row.token}/{FILES[row.kind]}",
            "made_at": row.made_at,
            "read_at": row.read_at,
        }
        for row in feeds_of(person)
    ]
    return dict(FeedsSerializer({"feeds": rows}).data)


class FeedsView(APIView):
    @extend_schema(operation_id="listFeeds", responses=FeedsSerializer)
    def get(self, request: Request) -> Response:
        return Response(_feeds(person_of(request)))

    @extend_schema(
        operation_id="makeFeed",
        request=NewFeedSerializer,
        responses={201: FeedsSerializer, 400: ErrorSerializer, 409: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        person = person_of(request)
        given = NewFeedSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        make_feed(person, given.validated_data["kind"])
        return Response(_feeds(person), status=201)


class FeedView(APIView):
    @extend_schema(operation_id="revokeFeed", responses={200: FeedsSerializer})
    def delete(self, request: Request, feed_id: int) -> Response:
        person = person_of(request)
        revoke_feed(person, feed_id)
        return Response(_feeds(person))


class OpenFeed(APIView):
    """A feed at its address: whoever has it reads it."""

    permission_classes = [AllowAny]
    authentication_classes = []
    throttle_classes = [ByAddress]
    throttle_scope = "feeds"

    def answer(self, request: HttpRequest, body: bytes, content_type: str) -> HttpResponse:
        """The feed, or that it is as it was (RFC 9110, section 13)."""
        tag = f'"{hashlib.sha256(body).hexdigest()[:24]}"'
        same = request.headers.get("If-None-Match") == tag
        response = HttpResponseNotModified() if same else HttpResponse(body, content_type)
        response.headers["ETag"] = tag
        response.headers["Cache-Control"] = "private, no-cache"
        return response


class AtomView(OpenFeed):
    @extend_schema(
        operation_id="readAtom", responses={(200, "application/atom+xml"): OpenApiTypes.STR}
    )
    def get(self, request: Request, token: str) -> HttpResponse:
        body = atom_feed(opened_feed(token, PrivateFeed.Kind.ATOM)).encode()
        return self.answer(request._request, body, "application/atom+xml; charset=utf-8")


class CalendarView(OpenFeed):
    @extend_schema(
        operation_id="readCalendar", responses={(200, "text/calendar"): OpenApiTypes.STR}
    )
    def get(self, request: Request, token: str) -> HttpResponse:
        body = calendar_feed(opened_feed(token, PrivateFeed.Kind.CALENDAR))
        return self.answer(request._request, body, "text/calendar; charset=utf-8")
