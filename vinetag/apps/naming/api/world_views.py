"""The world of a project, fields found by typing, and worlds a person keeps."""

from __future__ import annotations

from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.naming import services, worlds
from vinetag.apps.naming.api.serializers import (
    KeptWorldSerializer,
    TitlesSerializer,
    WorldSerializer,
)
from vinetag.core.lexicon import load_lexicon
from vinetag.core.world.shown import FACET_WORDS, QUESTIONS, find_fields, shown_world

__all__ = ["FieldsView", "KeptWorldView", "KeptWorldsView", "WorldView"]


class WorldView(APIView):
    @extend_schema(operation_id="readWorld", responses={200: WorldSerializer, 404: ErrorSerializer})
    def get(self, request: Request, project_id: int) -> Response:
        brief = services.brief_of(services.own_project(person_of(request), project_id))
        world = shown_world(brief, load_lexicon())
        document = {
            "fields_near": world.fields,
            "facets": [
                {"name": name, "word": FACET_WORDS[name], "entries": entries}
                for name, entries in world.facets.items()
            ],
            "questions": QUESTIONS,
            "fits": world.fits,
            "informed": world.informed,
        }
        return Response(WorldSerializer(document).data)


class FieldsView(APIView):
    @extend_schema(
        operation_id="findFields",
        parameters=[OpenApiParameter("text", str, required=True)],
        responses=TitlesSerializer,
    )
    def get(self, request: Request) -> Response:
        text = str(request.query_params.get("text", ""))[:60]
        return Response({"titles": find_fields(text)})


class KeptWorldsView(APIView):
    @extend_schema(operation_id="listWorlds", responses=KeptWorldSerializer(many=True))
    def get(self, request: Request) -> Response:
        return Response(KeptWorldSerializer(worlds.kept_worlds(person_of(request)), many=True).data)

    @extend_schema(
        operation_id="keepWorld",
        request=KeptWorldSerializer,
        responses={201: KeptWorldSerializer, 400: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        given = KeptWorldSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        asked = given.validated_data
        kept = worlds.keep_world(
            owner=person_of(request), title=asked["title"], entries=asked["entries"]
        )
        return Response(KeptWorldSerializer(kept).data, status=201)


class KeptWorldView(APIView):
    @extend_schema(operation_id="forgetWorld", responses={204: None, 404: ErrorSerializer})
    def delete(self, request: Request, world_id: int) -> Response:
        worlds.forget_world(owner=person_of(request), world_id=world_id)
        return Response(status=204)
