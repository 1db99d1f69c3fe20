"""The shapes of markets and offers in the API."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

from vinetag.apps.accounts.api.problems import ProblemSerializer
from vinetag.apps.market.models import ListFile
from vinetag.core.concepts import OFFER_NAMES
from vinetag.core.market import Offer, risk_of

__all__ = [
    "ListFileSerializer",
    "MarketOfferSerializer",
    "MarketsSerializer",
    "OfferChangeSerializer",
    "offer_document",
]


class MarketOfferSerializer(serializers.Serializer[Any]):
    """What a market tells of a full name; null and "" where it does not."""

    full_name = serializers.CharField()
    market = serializers.CharField()
    market_name = serializers.CharField()
    kind = serializers.ChoiceField(choices=OFFER_NAMES)
    told = serializers.DateTimeField(help_text="When its list was put in force")
    price = serializers.CharField(allow_null=True)
    currency = serializers.CharField(allow_blank=True)
    bids = serializers.IntegerField(allow_null=True)
    ends = serializers.DateTimeField(allow_null=True)
    drops_from = serializers.DateTimeField(allow_null=True)
    drops_to = serializers.DateTimeField(allow_null=True)
    state = serializers.CharField(allow_blank=True)
    address = serializers.CharField(allow_blank=True)
    first_registered = serializers.DateField(allow_null=True)
    times_registered = serializers.IntegerField(allow_null=True)
    links = serializers.IntegerField(allow_null=True)
    linking_sites = serializers.IntegerField(allow_null=True)
    archived = serializers.IntegerField(allow_null=True)
    archived_about = serializers.CharField(allow_blank=True)
    used_for = serializers.CharField(allow_blank=True)
    risk = serializers.CharField(allow_blank=True, help_text="What its past is warned of")
    rank = serializers.IntegerField(allow_null=True)
    click_price = serializers.CharField(allow_null=True)
    also = serializers.ListField(child=serializers.CharField())


def offer_document(offer: Offer, names: dict[str, str]) -> dict[str, Any]:
    """An offer as MarketOfferSerializer describes it; `names` are those of markets."""
    web = offer.address.startswith(("https://", "http://"))
    return {
        "full_name": str(offer.name),
        "market": offer.market,
        "market_name": names.get(offer.market, offer.market),
        "kind": offer.kind,
        "told": offer.told,
        "price": None if offer.price is None else f"{offer.price:.2f}",
        "currency": offer.currency,
        "bids": offer.bids,
        "ends": offer.ends,
        "drops_from": offer.drops_from,
        "drops_to": offer.drops_to,
        "state": offer.state,
        "address": offer.address if web else "",
        "first_registered": offer.first_registered,
        "times_registered": offer.times_registered,
        "links": offer.links,
        "linking_sites": offer.linking_sites,
        "archived": offer.archived,
        "archived_about": offer.archived_about,
        "used_for": offer.used_for,
        "risk": risk_of(offer.used_for),
        "rank": offer.rank,
        "click_price": None if offer.click_price is None else f"{offer.click_price:.2f}",
        "also": list(offer.also),
    }


class OfferChangeSerializer(serializers.Serializer[Any]):
    """That an offer became another."""

    full_name = serializers.SerializerMethodField()
    market = serializers.CharField(source="market.name")
    at = serializers.DateTimeField()
    what = serializers.CharField(help_text="price, kind, extended, drops or gone")
    before = serializers.CharField(allow_blank=True)
    after = serializers.CharField(allow_blank=True)

    def get_full_name(self, row: Any) -> str:
        return f"{row.label}.{row.extension}"


class ListFileSerializer(serializers.Serializer[Any]):
    market = serializers.CharField(source="market.code")
    name = serializers.CharField()
    state = serializers.ChoiceField(choices=ListFile.State.choices)
    step = serializers.CharField(allow_blank=True)
    lines = serializers.IntegerField()
    taken = serializers.IntegerField()
    new = serializers.IntegerField()
    changed = serializers.IntegerField()
    gone = serializers.IntegerField()
    wrong = serializers.IntegerField(help_text="In how many places something was wrong")
    problems = ProblemSerializer(many=True, help_text="The first of them")
    brought_at = serializers.DateTimeField()


class MarketSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    name = serializers.CharField()
    names = serializers.IntegerField(help_text="How many its list tells of")
    told_at = serializers.DateTimeField(allow_null=True)
    followed = serializers.SerializerMethodField(help_text="Whether its list is fetched")
    trouble = serializers.CharField(allow_blank=True)

    def get_followed(self, row: Any) -> bool:
        return bool(row.address)


class MarketsSerializer(serializers.Serializer[Any]):
    may_edit = serializers.BooleanField()
    coming = serializers.BooleanField(help_text="Whether lists are fetched or read just now")
    markets = MarketSerializer(many=True)
    files = ListFileSerializer(many=True, help_text="The last that came, the newest first")
