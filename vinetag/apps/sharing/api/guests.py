"""What people without an account may do under a link. Who they are is kept in their session."""

from __future__ import annotations

import hashlib
from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.permissions import AllowAny
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.api.throttling import ByAddress
from vinetag.apps.accounts.errors import ConflictError
from vinetag.apps.sharing import services
from vinetag.apps.sharing.api.views import SaidSerializer
from vinetag.apps.sharing.models import Comment, Guest, Share
from vinetag.apps.vetting.api.serializers import glances
from vinetag.apps.vetting.reports import known_of
from vinetag.core.candidates import starts_of
from vinetag.core.concepts import FINDING_NAMES, WEIGHTS
from vinetag.core.names import unicode_label

__all__ = [
    "CommentView", "CommentsView", "HearingView", "JoinView", "RecallView", "SharedView",
    "VoteView",
]  # fmt: skip

CLOSED = {400: ErrorSerializer, 404: ErrorSerializer, 409: ErrorSerializer}


class SharedFindingSerializer(serializers.Serializer[Any]):
    """What was found of a name, without its evidence, notes and what is accepted."""

    kind = serializers.ChoiceField(choices=FINDING_NAMES)
    weight = serializers.ChoiceField(choices=WEIGHTS)
    text = serializers.CharField()
    found_at = serializers.DateTimeField()


class SharedNameSerializer(serializers.Serializer[Any]):
    label = serializers.CharField()  # type: ignore[assignment] # a field called as DRF's own
    shown = serializers.CharField()
    starts = serializers.ListField(child=serializers.IntegerField())
    extension = serializers.CharField(
        allow_blank=True,
        help_text="Its own as a full name, or the first of the owner's that is not gone",
    )
    vote = serializers.IntegerField(allow_null=True, help_text="One's own: 1, 0 or -1")
    comments = SaidSerializer(many=True)
    vetted = SharedFindingSerializer(many=True, help_text="Where the owner chose to show it")


class SharedSerializer(serializers.Serializer[Any]):
    title = serializers.CharField()
    ends_at = serializers.DateTimeField()
    joined = serializers.BooleanField()
    first_name = serializers.CharField(allow_blank=True)
    guest = serializers.IntegerField(allow_null=True)
    names = SharedNameSerializer(many=True)
    heard = serializers.ListField(child=serializers.CharField(), help_text="Written already")
    recalled = serializers.BooleanField(help_text="The second test was taken")
    mine = serializers.ListField(child=serializers.IntegerField(), help_text="Own comments")


class JoinSerializer(serializers.Serializer[Any]):
    first_name = serializers.CharField(allow_blank=True, max_length=40, default="")


class VoteSerializer(serializers.Serializer[Any]):
    label = serializers.CharField(max_length=63)  # type: ignore[assignment] # a field called as DRF's own
    value = serializers.ChoiceField(choices=(-1, 0, 1))


class RemarkSerializer(serializers.Serializer[Any]):
    label = serializers.CharField(max_length=63)  # type: ignore[assignment] # a field called as DRF's own
    text = serializers.CharField(allow_blank=True, max_length=5_000)


class HeardSerializer(serializers.Serializer[Any]):
    label = serializers.CharField(max_length=63)  # type: ignore[assignment] # a field called as DRF's own
    typed = serializers.CharField(allow_blank=True, max_length=200)


class RightSerializer(serializers.Serializer[Any]):
    right = serializers.BooleanField()


class RecallSerializer(serializers.Serializer[Any]):
    shown = serializers.ListField(child=serializers.CharField(max_length=63), max_length=20)
    typed = serializers.CharField(allow_blank=True, max_length=5_000)


class RememberedSerializer(serializers.Serializer[Any]):
    remembered = serializers.ListField(child=serializers.CharField())


class GuestView(APIView):
    """A view for whoever has the link."""

    permission_classes = [AllowAny]
    throttle_classes = [ByAddress]
    throttle_scope = "guests"

    def share(self, token: str) -> Share:
        return services.open_share(token)

    def guest(self, request: Request, share: Share) -> Guest | None:
        known = request.session.get("guests", {}).get(str(share.pk))
        return share.guests.filter(pk=known).first() if known else None

    def joined(self, request: Request, token: str) -> Guest:
        guest = self.guest(request, self.share(token))
        if guest is None:
            raise ConflictError("not_joined", "Open the link again to take part.")
        return guest

    def page(self, request: Request, share: Share) -> Response:
        guest = self.guest(request, share)
        votes = dict(guest.votes.values_list("label", "value")) if guest else {}
        kept = services.kept_of(share)
        best = services.best_extensions(share)
        said: dict[str, list[Comment]] = {}
        comments = Comment.objects.filter(guest__share=share).select_related("guest")
        for one in comments.order_by("id"):
            said.setdefault(one.label, []).append(one)
        found = known_of(share.project, share.names) if share.vetted else {}
        document = {
            "title": share.title,
            "ends_at": share.ends_at,
            "joined": guest is not None,
            "first_name": guest.first_name if guest else "",
            "guest": guest.pk if guest else None,
            "names": [
                {
                    "label": label,
                    "shown": unicode_label(label),
                    "starts": starts_of(kept[label].parts) if label in kept else [0],
                    "extension": (kept[label].extension if label in kept else "") or best[label],
                    "vote": votes.get(label),
                    "comments": said.get(label, []),
                    "vetted": glances(found.get(label, {})),
                }
                for label in share.names
            ],
            "heard": list(guest.hearings.values_list("label", flat=True)) if guest else [],
            "recalled": hasattr(guest, "recall"),
            "mine": list(guest.comments.values_list("id", flat=True)) if guest else [],
        }
        return Response(SharedSerializer(document).data)


class SharedView(GuestView):
    @extend_schema(operation_id="readShared", responses={200: SharedSerializer, **CLOSED})
    def get(self, request: Request, token: str) -> Response:
        return self.page(request, self.share(token))


class JoinThrottle(ByAddress):
    """So many of one address may join one link: nobody can use its places up."""

    scope_attr = "joining_scope"

    def get_cache_key(self, request: Request, view: APIView) -> str:
        link = hashlib.sha256(str(view.kwargs["token"]).encode()).hexdigest()[:24]
        return f"joining:{link}:{self.get_ident(request)}"


class JoinView(GuestView):
    throttle_classes = [ByAddress, JoinThrottle]
    joining_scope = "joining"

    @extend_schema(
        operation_id="joinShared",
        request=JoinSerializer,
        responses={200: SharedSerializer, **CLOSED},
    )
    def post(self, request: Request, token: str) -> Response:
        share = self.share(token)
        given = JoinSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        if self.guest(request, share) is None:
            guest = services.join(share=share, first_name=given.validated_data["first_name"])
            known = request.session.get("guests", {})
            request.session["guests"] = {**known, str(share.pk): guest.pk}
        return self.page(request, share)


class VoteView(GuestView):
    @extend_schema(
        operation_id="voteShared", request=VoteSerializer, responses={204: None, **CLOSED}
    )
    def post(self, request: Request, token: str) -> Response:
        guest = self.joined(request, token)
        given = VoteSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        services.vote(guest=guest, **given.validated_data)
        return Response(status=204)


class CommentsView(GuestView):
    @extend_schema(
        operation_id="commentShared",
        request=RemarkSerializer,
        responses={201: SaidSerializer, **CLOSED},
    )
    def post(self, request: Request, token: str) -> Response:
        guest = self.joined(request, token)
        given = RemarkSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        said = services.comment(guest=guest, **given.validated_data)
        return Response(SaidSerializer(said).data, status=201)


class CommentView(GuestView):
    @extend_schema(operation_id="deleteComment", responses={204: None, **CLOSED})
    def delete(self, request: Request, token: str, comment_id: int) -> Response:
        services.delete_comment(guest=self.joined(request, token), comment_id=comment_id)
        return Response(status=204)


class HearingView(GuestView):
    @extend_schema(
        operation_id="writeHeard",
        request=HeardSerializer,
        responses={200: RightSerializer, **CLOSED},
    )
    def post(self, request: Request, token: str) -> Response:
        guest = self.joined(request, token)
        given = HeardSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        hearing = services.hear(guest=guest, **given.validated_data)
        return Response({"right": hearing.right})


class RecallView(GuestView):
    @extend_schema(
        operation_id="recallShared",
        request=RecallSerializer,
        responses={200: RememberedSerializer, **CLOSED},
    )
    def post(self, request: Request, token: str) -> Response:
        guest = self.joined(request, token)
        given = RecallSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        found = services.recall(guest=guest, **given.validated_data)
        return Response({"remembered": found.remembered})
