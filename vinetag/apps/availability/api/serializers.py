"""The shapes of checks and statuses in the API."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

from vinetag.apps.availability.models import Check, Lookup
from vinetag.lookup.answers import TROUBLE_WORDING

__all__ = ["CellSerializer", "CheckRequestSerializer", "CheckSerializer"]


class CellSerializer(serializers.ModelSerializer[Lookup]):
    """One full name's status with its evidence."""

    rdap_status = serializers.ListField(
        child=serializers.CharField(),
        read_only=True,
        help_text="Status words of the registry (RFC 8056)",
    )
    reason = serializers.SerializerMethodField()
    pending = serializers.SerializerMethodField()

    class Meta:
        model = Lookup
        fields = (
            "label", "extension", "status", "trouble", "reason", "detail", "source", "asked_at",
            "registered", "expires", "rdap_status", "pending",
        )  # fmt: skip
        read_only_fields = fields

    def to_representation(self, row: Lookup) -> dict[str, Any]:
        """By hand: a page of the sheet holds thousands of cells, and DRF's own way takes five times
        as long.
        """
        return {
            "label": row.label,
            "extension": row.extension,
            "status": row.status,
            "trouble": row.trouble,
            "reason": self.get_reason(row),
            "detail": row.detail,
            "source": row.source,
            "asked_at": row.asked_at,
            "registered": row.registered,
            "expires": row.expires,
            "rdap_status": row.rdap_status,
            "pending": self.get_pending(row),
        }

    def get_reason(self, row: Lookup) -> str:
        """Why it is unsure, in words."""
        return TROUBLE_WORDING.get(row.trouble, "The answer could not be read.")

    def get_pending(self, row: Lookup) -> bool:
        """Whether it is being asked now."""
        return row.check_run_id is not None


class CheckSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField(source="check.id")
    state = serializers.ChoiceField(source="check.state", choices=Check.State.choices)
    total = serializers.IntegerField(source="check.total")
    done = serializers.IntegerField()
    unsure = serializers.IntegerField(help_text="Answers that leave the status unsure")
    rate = serializers.FloatField(allow_null=True, help_text="Answers a second")
    created_at = serializers.DateTimeField(source="check.created_at")
    ended_at = serializers.DateTimeField(source="check.ended_at", allow_null=True)


class CheckRequestSerializer(serializers.Serializer[Any]):
    labels = serializers.ListField(
        child=serializers.CharField(max_length=253),
        required=False,
        min_length=1,
        max_length=500,
        help_text="Names to check; the best of the list when left out",
    )
    again = serializers.BooleanField(default=False)
