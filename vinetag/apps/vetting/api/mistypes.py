"""What people type by mistake."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.availability.api.serializers import CellSerializer
from vinetag.apps.naming.services import own_project
from vinetag.apps.vetting.mistyped import Mistyped, mistyped_names
from vinetag.core.vet import MISTYPE_KINDS

__all__ = ["MistypesView"]


class MistypeSerializer(serializers.Serializer[Any]):
    label = serializers.CharField()  # type: ignore[assignment] # a field called as DRF's own
    extension = serializers.CharField()
    full_name = serializers.CharField()
    shown = serializers.CharField()
    kind = serializers.ChoiceField(choices=MISTYPE_KINDS)
    share = serializers.FloatField(help_text="Of those who mean the name, 0 to 1")
    cell = CellSerializer(allow_null=True)


class SharesSerializer(serializers.Serializer[Any]):
    whole = serializers.FloatField(help_text="Who type something else, 0 to 1")
    taken = serializers.FloatField(help_text="Of those, who land with somebody")
    parked = serializers.FloatField(help_text="Who land on a name that is for sale")
    free = serializers.FloatField(help_text="Who land with nobody")
    unknown = serializers.FloatField(help_text="Of whom that is not known")


class MistypesSerializer(serializers.Serializer[Any]):
    extension = serializers.CharField()
    mistypes = MistypeSerializer(many=True)
    shares = SharesSerializer()


class MistypesView(APIView):
    @extend_schema(
        operation_id="listMistypes",
        responses={200: MistypesSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int, label: str) -> Response:
        project = own_project(person_of(request), project_id)
        return Response(MistypesSerializer(_document(mistyped_names(project, label))).data)


def _document(found: Mistyped) -> dict[str, Any]:
    return {
        "extension": found.extension,
        "shares": found.shares._asdict(),
        "mistypes": [
            {
                "label": one.label,
                "extension": one.extension,
                "full_name": str(one.full_name),
                "shown": one.full_name.shown,
                "kind": one.kind,
                "share": round(one.share, 6),
                "cell": found.cells.get(one.full_name),
            }
            for one in found.found
        ],
    }
