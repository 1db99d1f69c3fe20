"""The owner's links, and what came of them."""

from __future__ import annotations

from typing import Any

from django.utils import timezone
from drf_spectacular.utils import extend_schema, extend_schema_field
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.naming.services import own_project
from vinetag.apps.sharing import services
from vinetag.apps.sharing.models import Share
from vinetag.core.names import unicode_label

__all__ = ["SaidSerializer", "ShareView", "SharesView"]


class SaidSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField()
    label = serializers.CharField()  # type: ignore[assignment] # a field called as DRF's own
    text = serializers.CharField()
    first_name = serializers.CharField(source="guest.first_name", allow_blank=True)
    said_at = serializers.DateTimeField()


class ShareSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField(read_only=True)
    token = serializers.CharField(read_only=True)
    title = serializers.CharField(allow_blank=True, max_length=200)
    labels = serializers.ListField(
        source="names", child=serializers.CharField(max_length=63), max_length=300
    )
    vetted = serializers.BooleanField(
        default=False, help_text="What vetting found of them is shown, too"
    )
    ends_at = serializers.DateTimeField()
    created_at = serializers.DateTimeField(read_only=True)
    state = serializers.SerializerMethodField(help_text="open, ended or revoked")
    people = serializers.IntegerField(source="guests.count", read_only=True)

    @extend_schema_field(serializers.ChoiceField(choices=("open", "ended", "revoked")))
    def get_state(self, share: Share) -> str:
        if share.revoked_at is not None:
            return "revoked"
        return "open" if share.ends_at > timezone.now() else "ended"


class OutcomeSerializer(serializers.Serializer[Any]):
    label = serializers.CharField()  # type: ignore[assignment] # a field called as DRF's own
    shown_as = serializers.SerializerMethodField(help_text="As a person writes it")
    spelling = serializers.FloatField(allow_null=True, help_text="The computed measure")
    liked = serializers.IntegerField()
    disliked = serializers.IntegerField()
    neutral = serializers.IntegerField()
    heard = serializers.IntegerField()
    right = serializers.IntegerField()
    shown = serializers.IntegerField(help_text="People it was shown to briefly")
    remembered = serializers.IntegerField()
    wrong = serializers.DictField(child=serializers.IntegerField(), help_text="As written")
    comments = SaidSerializer(many=True)

    def get_shown_as(self, outcome: services.Outcome) -> str:
        return unicode_label(outcome.label)


class ResultsSerializer(serializers.Serializer[Any]):
    share = ShareSerializer()
    people = serializers.IntegerField()
    outcomes = OutcomeSerializer(many=True)


class RevokeSerializer(serializers.Serializer[Any]):
    revoked = serializers.BooleanField()


class SharesView(APIView):
    @extend_schema(
        operation_id="listShares",
        responses={200: ShareSerializer(many=True), 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        return Response(ShareSerializer(project.shares.order_by("-id"), many=True).data)

    @extend_schema(
        operation_id="shareNames",
        request=ShareSerializer,
        responses={
            201: ShareSerializer,
            400: ErrorSerializer,
            404: ErrorSerializer,
            409: ErrorSerializer,
        },
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        given = ShareSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        asked = given.validated_data
        share = services.share_names(
            project=project,
            title=asked["title"],
            labels=asked["names"],
            ends_at=asked["ends_at"],
            vetted=asked["vetted"],
        )
        return Response(ShareSerializer(share).data, status=201)


class ShareView(APIView):
    @extend_schema(
        operation_id="readResults",
        responses={200: ResultsSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int, share_id: int) -> Response:
        share = services.own_share(own_project(person_of(request), project_id), share_id)
        found = services.outcomes(share)
        document = {"share": share, "people": found.people, "outcomes": found.outcomes}
        return Response(ResultsSerializer(document).data)

    @extend_schema(
        operation_id="revokeShare",
        request=RevokeSerializer,
        responses={200: ShareSerializer, 404: ErrorSerializer},
    )
    def patch(self, request: Request, project_id: int, share_id: int) -> Response:
        share = services.own_share(own_project(person_of(request), project_id), share_id)
        given = RevokeSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        services.revoke(share, again=not given.validated_data["revoked"])
        return Response(ShareSerializer(share).data)

    @extend_schema(operation_id="deleteShare", responses={204: None, 404: ErrorSerializer})
    def delete(self, request: Request, project_id: int, share_id: int) -> Response:
        services.own_share(own_project(person_of(request), project_id), share_id).delete()
        return Response(status=204)
