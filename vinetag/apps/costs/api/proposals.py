"""Which extensions suit an owner, by what they cost at the sellers there are."""

from __future__ import annotations

from decimal import Decimal
from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.api.serializers import ProposalSerializer
from vinetag.apps.availability.catalogue import catalogue
from vinetag.apps.costs.listing import list_costs
from vinetag.core.cost import LONGEST_HORIZON
from vinetag.core.extensions import (
    COUNTRIES,
    OWNER_KINDS,
    WORKS,
    Catalogue,
    Costing,
    Means,
    propose,
)

__all__ = ["ProposalsView"]

# Of those that suit otherwise, so many are looked up in the lists.
WEIGHED = 40


class ProposalQuestionSerializer(serializers.Serializer[Any]):
    country = serializers.ChoiceField(choices=("", *COUNTRIES), default="", allow_blank=True)
    work = serializers.ChoiceField(choices=tuple(WORKS), default="any")
    kind = serializers.ChoiceField(choices=("", *OWNER_KINDS), default="", allow_blank=True)
    budget = serializers.DecimalField(9, 2, required=False, min_value=1, max_value=100_000)
    whole = serializers.DecimalField(
        9, 2, required=False, min_value=1, max_value=1_000_000, help_text="Over all the years"
    )
    years = serializers.IntegerField(default=5, min_value=1, max_value=LONGEST_HORIZON)


class ProposalsView(APIView):
    @extend_schema(
        operation_id="proposeExtensions",
        parameters=[ProposalQuestionSerializer],
        responses={200: ProposalSerializer(many=True), 400: ErrorSerializer},
    )
    def get(self, request: Request) -> Response:
        person = person_of(request)
        given = ProposalQuestionSerializer(data=request.query_params)
        given.is_valid(raise_exception=True)
        asked = given.validated_data
        limits = {key: asked.pop(key, None) for key in ("budget", "whole")}
        years = asked.pop("years")
        known = catalogue()
        suit = [p.entry.extension for p in propose(known, **asked, limit=WEIGHED)]
        costs = _costs(person, asked["country"], years, suit)
        among = Catalogue({extension: known[extension] for extension in suit})
        means = Means(**limits, years=years, costs=costs)
        return Response(ProposalSerializer(propose(among, **asked, means=means), many=True).data)


def _costs(person: User, country: str, years: int, extensions: list[str]) -> dict[str, Costing]:
    """In euros."""
    found = list_costs(person, country, years, extensions, "EUR")

    def euros(amount: int) -> Decimal:
        return Decimal(amount) / 1000

    return {
        extension: Costing(
            euros(cost.first),
            None if cost.later is None else euros(cost.later),
            euros(cost.whole),
            found.names.get(cost.seller, cost.seller),
        )
        for extension, cost in found.costs.items()
    }
