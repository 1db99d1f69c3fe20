"""The shapes of owned names in the API."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from django.utils import timezone
from rest_framework import serializers

from vinetag.apps.ordering.models import BasketItem
from vinetag.apps.owning.listing import SORTS, WHEN, Page
from vinetag.apps.owning.models import OwnedName
from vinetag.apps.owning.renewing import OneRenewal, Renewal
from vinetag.core.owning import phase_of, phases_of

__all__ = [
    "BroughtSerializer",
    "IdsSerializer",
    "MonthsSerializer",
    "OwnedChangeSerializer",
    "OwnedChangedSerializer",
    "OwnedQuestionSerializer",
    "OwnedSerializer",
    "RenewSerializer",
    "RenewalSerializer",
    "RenewingSerializer",
    "TypedSerializer",
    "owned_document",
    "page_document",
    "renewal_document",
]  # fmt: skip

MOST_IDS = 20_000
DIFFERENCES = ("nobody", "expires", "seller", "locked", "signed", "servers")


class OwnedQuestionSerializer(serializers.Serializer[Any]):
    text = serializers.CharField(default="", allow_blank=True, max_length=100)
    extension = serializers.CharField(default="", allow_blank=True, max_length=63)
    seller = serializers.CharField(default="", allow_blank=True, max_length=80)
    tag = serializers.CharField(default="", allow_blank=True, max_length=30)
    project = serializers.IntegerField(default=None, allow_null=True)
    when = serializers.ChoiceField(choices=("", *WHEN), default="")
    renewed = serializers.ChoiceField(choices=("", "ask", "itself"), default="")
    differs = serializers.BooleanField(default=False)
    sort = serializers.ChoiceField(choices=tuple(SORTS), default="expires")
    page = serializers.IntegerField(default=0, min_value=0, max_value=1_000)


class OwnedNameSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField()
    full_name = serializers.CharField()
    shown = serializers.CharField()
    project = serializers.IntegerField(allow_null=True)
    project_name = serializers.CharField(allow_blank=True)
    origin = serializers.ChoiceField(choices=OwnedName.Source.choices)
    seller = serializers.CharField(allow_blank=True)
    registered_at = serializers.DateTimeField(allow_null=True)
    expires_at = serializers.DateTimeField(allow_null=True)
    phase = serializers.ChoiceField(
        choices=("unknown", "held", "grace", "redemption", "lost"),
        help_text="By the rules of its extension, where it has run out",
    )
    phase_until = serializers.DateTimeField(allow_null=True)
    renewal = serializers.ChoiceField(choices=BasketItem.Renewal.choices)
    ceiling = serializers.CharField(allow_null=True)
    ceiling_currency = serializers.CharField(allow_blank=True)
    locked = serializers.BooleanField(allow_null=True)
    privacy = serializers.BooleanField(allow_null=True)
    signed = serializers.BooleanField(allow_null=True)
    servers = serializers.ListField(child=serializers.CharField())
    tags = serializers.ListField(child=serializers.CharField())
    yearly = serializers.CharField(allow_null=True)
    yearly_currency = serializers.CharField(allow_blank=True)
    asked_at = serializers.DateTimeField(allow_null=True)
    trouble = serializers.CharField(allow_blank=True)
    differs = serializers.ListField(child=serializers.ChoiceField(choices=DIFFERENCES))
    said = serializers.DictField(help_text="What the registry or the seller said")


class OwnedFacetSerializer(serializers.Serializer[Any]):
    value = serializers.CharField()
    count = serializers.IntegerField()


class OwnedProjectSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField()
    name = serializers.CharField()
    count = serializers.IntegerField()


class OwnedFacetsSerializer(serializers.Serializer[Any]):
    extension = OwnedFacetSerializer(many=True)
    seller_name = OwnedFacetSerializer(many=True)
    renewal = OwnedFacetSerializer(many=True)
    tag = OwnedFacetSerializer(many=True)
    project = OwnedProjectSerializer(many=True)


class OwnedSerializer(serializers.Serializer[Any]):
    rows = OwnedNameSerializer(many=True)
    total = serializers.IntegerField()
    every = serializers.IntegerField(help_text="How many there are, whatever is asked for")
    size = serializers.IntegerField(help_text="Of a page")


class TypedSerializer(serializers.Serializer[Any]):
    text = serializers.CharField(max_length=8_000_000, trim_whitespace=False)


class WrongSerializer(serializers.Serializer[Any]):
    where = serializers.CharField()
    message = serializers.CharField()


class BroughtSerializer(serializers.Serializer[Any]):
    new = serializers.IntegerField()
    changed = serializers.IntegerField()
    problems = WrongSerializer(many=True)
    wrong = serializers.IntegerField()


class IdsSerializer(serializers.Serializer[Any]):
    ids = serializers.ListField(child=serializers.IntegerField(), max_length=MOST_IDS)


class OwnedChangeSerializer(IdsSerializer):
    tag = serializers.CharField(required=False, max_length=200)
    untag = serializers.CharField(required=False, max_length=200)
    project = serializers.IntegerField(required=False, allow_null=True)
    renewal = serializers.ChoiceField(choices=BasketItem.Renewal.choices, required=False)
    ceiling = serializers.DecimalField(
        max_digits=14, decimal_places=2, required=False, allow_null=True
    )
    currency = serializers.RegexField(r"^[A-Z]{3}$", required=False)


class RenewingSerializer(IdsSerializer):
    years = serializers.IntegerField(default=1, min_value=1, max_value=10)


class RenewSerializer(RenewingSerializer):
    sign = serializers.CharField(max_length=32)


class OneRenewalSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField()
    full_name = serializers.CharField()
    shown = serializers.CharField()
    action = serializers.ChoiceField(choices=("renew", "restore"))
    until = serializers.DateTimeField(allow_null=True)
    amount = serializers.CharField(allow_null=True, help_text="With tax")
    currency = serializers.CharField(allow_blank=True)
    why_not = serializers.CharField(allow_blank=True)
    elsewhere = serializers.CharField(allow_blank=True)
    here = serializers.CharField(allow_null=True, help_text="Staying, over five years")
    there = serializers.CharField(allow_null=True, help_text="Moving, over five years")


class RenewalTotalSerializer(serializers.Serializer[Any]):
    seller = serializers.CharField()
    amount = serializers.CharField()
    currency = serializers.CharField()


class RenewalSerializer(serializers.Serializer[Any]):
    names = OneRenewalSerializer(many=True)
    totals = RenewalTotalSerializer(many=True)
    years = serializers.IntegerField()
    sign = serializers.CharField(help_text="What is agreed to")
    currency = serializers.CharField(help_text="Of what staying and moving come to")


class MonthSerializer(serializers.Serializer[Any]):
    month = serializers.DateField()
    amount = serializers.CharField()
    names = serializers.IntegerField()
    unknown = serializers.IntegerField()


class MonthsSerializer(serializers.Serializer[Any]):
    currency = serializers.CharField()
    months = MonthSerializer(many=True)


class NotChangedSerializer(serializers.Serializer[Any]):
    full_name = serializers.CharField()
    why = serializers.CharField()


class OwnedChangedSerializer(serializers.Serializer[Any]):
    count = serializers.IntegerField()
    failed = NotChangedSerializer(many=True)


def owned_document(row: OwnedName) -> dict[str, Any]:
    """As OwnedNameSerializer describes it."""
    phase, until = "unknown", None
    if row.expires_at is not None:
        phases = phases_of(row.expires_at, row.extension)
        phase = phase_of(phases, timezone.now())
        until = {"grace": phases.renewable, "redemption": phases.redeemable}.get(phase)
    plain = (
        "seller", "registered_at", "expires_at", "renewal", "ceiling_currency", "locked", "privacy",
        "signed", "servers", "yearly_currency", "asked_at", "trouble", "differs", "said",
    )  # fmt: skip
    return {
        **{name: getattr(row, name) for name in plain},
        "id": row.pk,
        "full_name": str(row.name),
        "shown": row.name.shown,
        "seller": row.seller_name,
        "origin": row.source,
        "project": row.project_id,
        "project_name": row.project.name if row.project else "",
        "phase": phase,
        "phase_until": until,
        "ceiling": _money(row.ceiling),
        "yearly": _money(row.yearly),
        "tags": list(filter(None, row.tags.split("|"))),
    }


def _money(amount: Any) -> str | None:
    return None if amount is None else f"{amount:.2f}"


def page_document(page: Page, size: int) -> dict[str, Any]:
    """As OwnedSerializer describes it."""
    rows = [owned_document(row) for row in page.rows]
    return {"rows": rows, "total": page.total, "every": page.every, "size": size}


def facets_document(found: Mapping[str, Sequence[tuple[str, int]]]) -> dict[str, Any]:
    """As OwnedFacetsSerializer describes it."""
    document: dict[str, Any] = {
        name: [{"value": value, "count": count} for value, count in counted]
        for name, counted in found.items()
        if name != "project"
    }
    parts = ((*value.partition(" "), count) for value, count in found["project"])
    document["project"] = [{"id": int(a), "name": b, "count": count} for a, _, b, count in parts]
    return document


def renewal_document(renewal: Renewal, currency: str) -> dict[str, Any]:
    """As RenewalSerializer describes it."""
    return {
        "names": [_one(one) for one in renewal.names],
        "totals": [
            {"seller": seller, "amount": f"{amount:.2f}", "currency": money}
            for seller, amount, money in renewal.totals.values()
        ],
        "years": renewal.years,
        "sign": renewal.sign,
        "currency": currency,
    }


def _one(one: OneRenewal) -> dict[str, Any]:
    return {
        "id": one.row.pk,
        "full_name": str(one.row.name),
        "shown": one.row.name.shown,
        "action": one.action,
        "until": one.until,
        "amount": _money(one.amount),
        "currency": one.currency,
        "why_not": one.why_not,
        "elsewhere": one.elsewhere,
        "here": _money(one.here),
        "there": _money(one.there),
    }
