"""The shapes of checks, statuses, pasted names and extensions in the API."""

from __future__ import annotations

from datetime import timedelta
from decimal import Decimal
from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from vinetag.apps.availability.leases import MOST_FAULTS, is_asleep
from vinetag.apps.availability.models import Check, Lookup
from vinetag.core.checking import STATUSES, in_words, read_evidence, reason_of, record_of
from vinetag.core.extensions import RULES
from vinetag.core.money import PLACES, neat
from vinetag.core.names import unicode_label

__all__ = [
    "CellSerializer",
    "CheckRequestSerializer",
    "CheckSerializer",
    "EvidenceSerializer",
    "ExtensionSerializer",
    "HowSerializer",
    "ListPageSerializer",
    "PastAnswerSerializer",
    "PasteSerializer",
    "PastedSerializer",
    "ProposalSerializer",
    "QuickRequestSerializer",
    "evidence_of",
]  # fmt: skip


# Sources of one answer are asked within so long.
EARLIER = timedelta(minutes=5)


def _amount(amount: Decimal | None) -> str | None:
    return None if amount is None else str(neat(amount))


class CellSerializer(serializers.ModelSerializer[Lookup]):
    """One full name's status with its age."""

    status = serializers.ChoiceField(choices=(Lookup.WAITING, *STATUSES))
    reason = serializers.SerializerMethodField()
    pending = serializers.SerializerMethodField()

    class Meta:
        model = Lookup
        fields = (
            "label", "extension", "status", "likely", "trouble", "reason", "aim", "asked_at",
            "registered", "expires", "drops_from", "drops_to", "currency", "first_year", "renewal",
            "holder_asks", "imported", "pending",
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
            "likely": row.likely,
            "trouble": row.trouble,
            "reason": self.get_reason(row),
            "aim": row.aim,
            "asked_at": row.asked_at,
            "registered": row.registered,
            "expires": row.expires,
            "drops_from": row.drops_from,
            "drops_to": row.drops_to,
            "currency": row.currency,
            "first_year": _amount(row.first_year),
            "renewal": _amount(row.renewal),
            "holder_asks": _amount(row.holder_asks),
            "imported": row.imported,
            "pending": self.get_pending(row),
        }

    def get_reason(self, row: Lookup) -> str:
        """Why it is unsure, in words."""
        return reason_of(row.trouble)

    def get_pending(self, row: Lookup) -> bool:
        """Whether it is being asked now."""
        return row.pending


class EvidenceSerializer(serializers.Serializer[Any]):
    """What one source said."""

    extension = serializers.CharField()
    source = serializers.CharField()  # type: ignore[assignment] # a field called as DRF's own
    text = serializers.CharField()
    at = serializers.DateTimeField()
    earlier = serializers.BooleanField(
        help_text="Said before the last answer, and still holding: this source was not asked again"
    )
    imported = serializers.BooleanField(help_text="As a file says; nobody here has asked")
    address = serializers.CharField(allow_blank=True)
    detail = serializers.CharField(allow_blank=True)
    registrar = serializers.CharField(allow_blank=True)
    holder = serializers.CharField(allow_blank=True)
    record = serializers.ListField(
        child=serializers.CharField(), help_text="The public record, in sentences"
    )
    statuses = serializers.ListField(
        child=serializers.CharField(), help_text="Status words of the registry (RFC 8056)"
    )


def evidence_of(rows: list[Lookup]) -> list[dict[str, Any]]:
    """The evidence behind some answers, in the order it was asked for."""
    found = []
    for row in rows:
        for document in row.evidence:
            evidence = read_evidence(document)
            found.append(
                {
                    "extension": row.extension,
                    "source": evidence.source,
                    "text": in_words(evidence),
                    "at": evidence.at,
                    "earlier": row.asked_at is not None and row.asked_at - evidence.at > EARLIER,
                    "imported": row.imported,
                    "address": evidence.address,
                    "detail": "" if evidence.source == "rules" else evidence.detail,
                    "registrar": evidence.registrar,
                    "holder": evidence.holder,
                    "record": record_of(evidence),
                    "statuses": list(evidence.statuses),
                }
            )
    return found


class TroubleSerializer(serializers.Serializer[Any]):
    trouble = serializers.CharField()
    reason = serializers.CharField()
    count = serializers.IntegerField()


class CheckSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField(source="check.id")
    state = serializers.ChoiceField(source="check.state", choices=Check.State.choices)
    aim = serializers.CharField(source="check.aim")
    total = serializers.IntegerField(source="check.total")
    done = serializers.IntegerField()
    left = serializers.IntegerField(
        help_text="Still to be asked; of a stopped check, to go on with"
    )
    unsure = serializers.IntegerField(help_text="Answers that leave the status unsure")
    troubles = serializers.SerializerMethodField(help_text="Why they do, the commonest first")
    rate = serializers.FloatField(allow_null=True, help_text="Answers a second")
    created_at = serializers.DateTimeField(source="check.created_at")
    ended_at = serializers.DateTimeField(source="check.ended_at", allow_null=True)
    away = serializers.ListField(
        source="check.away", child=serializers.CharField(),
        help_text="Extensions whose registry does not answer just now: their names wait for it",
    )  # fmt: skip
    asleep = serializers.SerializerMethodField(
        help_text="No worker has taken it up; it starts as soon as one is there"
    )
    broken = serializers.SerializerMethodField(
        help_text="It was stopped because it failed again and again"
    )

    def get_asleep(self, progress: Any) -> bool:
        return is_asleep(progress.check) and not progress.check.away

    def get_broken(self, progress: Any) -> bool:
        return bool(progress.check.faults >= MOST_FAULTS)

    @extend_schema_field(TroubleSerializer(many=True))
    def get_troubles(self, progress: Any) -> list[dict[str, Any]]:
        counts = sorted(progress.troubles.items(), key=lambda item: -item[1])
        return [{"trouble": t, "reason": reason_of(t), "count": n} for t, n in counts]


class HowSerializer(serializers.Serializer[Any]):
    """How names are checked."""

    extensions = serializers.ListField(
        child=serializers.CharField(max_length=63),
        required=False,
        max_length=250,
        help_text="The brief's when left out",
    )
    everywhere = serializers.BooleanField(
        default=False, help_text="Under every extension of the catalogue"
    )
    again = serializers.ChoiceField(choices=("stale", "unsure", "all"), default="stale")
    older_than_minutes = serializers.IntegerField(required=False, min_value=1, max_value=525_600)
    aim = serializers.ChoiceField(choices=("scan", "buying"), default="scan")


class CheckRequestSerializer(HowSerializer):
    what = serializers.ChoiceField(
        choices=("best", "labels", "full_names", "pasted"),
        default="best",
        help_text="The best of the list, `labels`, `full_names`, or the pasted names",
    )
    labels = serializers.ListField(
        child=serializers.CharField(max_length=253), required=False, min_length=1, max_length=5_000
    )
    full_names = serializers.ListField(
        child=serializers.CharField(max_length=253), required=False, min_length=1, max_length=7_000
    )

    def validate(self, attrs: dict[str, Any]) -> dict[str, Any]:
        """What is to be checked has to be there."""
        what = attrs["what"]
        if what in ("labels", "full_names") and what not in attrs:
            raise serializers.ValidationError({what: "Say which names."})
        return attrs


class QuickRequestSerializer(serializers.Serializer[Any]):
    label = serializers.CharField(max_length=253)  # type: ignore[assignment] # a field called as DRF's own
    aim = serializers.ChoiceField(choices=("scan", "buying"), default="scan")


class PasteSerializer(serializers.Serializer[Any]):
    text = serializers.CharField(max_length=1_500_000, trim_whitespace=False)
    extensions = serializers.ListField(
        child=serializers.CharField(max_length=63), required=False, min_length=1, max_length=20
    )


class BadLineSerializer(serializers.Serializer[Any]):
    line = serializers.IntegerField()
    text = serializers.CharField()
    reason = serializers.CharField()


class PastedSerializer(serializers.Serializer[Any]):
    lines = serializers.IntegerField()
    names = serializers.IntegerField()
    full_names = serializers.IntegerField()
    merged = serializers.IntegerField(help_text="Repeats that were put together")
    bad = BadLineSerializer(many=True)
    bad_count = serializers.IntegerField()
    left_out = serializers.IntegerField(help_text="Lines beyond the most that are read")
    names_left_out = serializers.IntegerField(help_text="Names beyond the most that are taken")
    passed_over = serializers.IntegerField(help_text="Cells of other columns")


class ListedSerializer(serializers.Serializer[Any]):
    label = serializers.CharField()  # type: ignore[assignment] # a field called as DRF's own
    shown = serializers.SerializerMethodField(help_text="The label as a person writes it")
    extensions = serializers.ListField(child=serializers.CharField())
    cells = CellSerializer(many=True)

    def get_shown(self, row: Any) -> str:
        return unicode_label(row.label)


class ListPageSerializer(serializers.Serializer[Any]):
    rows = ListedSerializer(many=True)
    total = serializers.IntegerField(help_text="Names that match")
    names = serializers.IntegerField(help_text="Names on the list")
    full_names = serializers.IntegerField()
    statuses = serializers.DictField(
        child=serializers.IntegerField(), help_text="Full names by status"
    )
    extensions = serializers.ListField(
        child=serializers.CharField(), help_text="Chosen for names that came without"
    )


class ExtensionSerializer(serializers.Serializer[Any]):
    extension = serializers.CharField()
    kind = serializers.CharField()
    country = serializers.CharField(allow_blank=True)
    works = serializers.ListField(child=serializers.CharField())
    use = serializers.CharField(allow_blank=True)
    eligibility = serializers.CharField()
    rule = serializers.SerializerMethodField(help_text="Who may register, in words")
    letters_min = serializers.IntegerField(min_value=1, max_value=63)
    letters_max = serializers.IntegerField(min_value=1, max_value=63)
    idn = serializers.BooleanField()
    yearly = serializers.DecimalField(
        13, PLACES, allow_null=True, normalize_output=True, help_text="A guide, in euros"
    )
    rdap = serializers.CharField(allow_blank=True)
    whois = serializers.CharField(
        allow_blank=True, default="", help_text="Host, with a port where it is not 43 (RFC 3912)"
    )
    whois_query = serializers.CharField(
        allow_blank=True, default="", help_text="The question, with {name}; empty for the name"
    )
    whois_absent = serializers.CharField(
        allow_blank=True, default="", help_text="The line that says that there is no registration"
    )

    def get_rule(self, entry: Any) -> str:
        rule = RULES.get(entry.eligibility)
        return rule.sentence if rule else ""


class ProposalSerializer(serializers.Serializer[Any]):
    extension = serializers.CharField(source="entry.extension")
    points = serializers.FloatField()
    yearly = serializers.DecimalField(
        13, PLACES, source="entry.yearly", allow_null=True, normalize_output=True
    )
    reasons = serializers.ListField(child=serializers.CharField())


class PastAnswerSerializer(serializers.Serializer[Any]):
    extension = serializers.CharField()
    status = serializers.ChoiceField(choices=STATUSES)
    likely = serializers.BooleanField()
    reason = serializers.SerializerMethodField(help_text="Why it was unsure")
    asked_at = serializers.DateTimeField()

    def get_reason(self, past: Any) -> str:
        return reason_of(past.trouble)
