"""What the API tells of vetting."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, get_args

from rest_framework import serializers

from vinetag.apps.accounts.api.problems import ProblemSerializer
from vinetag.apps.availability.leases import MOST_FAULTS, is_asleep
from vinetag.apps.vetting.models import MarkFile, Vetting
from vinetag.apps.vetting.reports import Known
from vinetag.apps.vetting.vettings import Again, Progress
from vinetag.core.concepts import FINDING_NAMES, WEIGHTS

__all__ = [
    "AcceptanceSerializer",
    "CatalogueSerializer",
    "FindingsOfNameSerializer",
    "GlanceSerializer",
    "RegistersSerializer",
    "VettingReportSerializer",
    "VettingRequestSerializer",
    "VettingRunSerializer",
    "glances",
    "run_document",
]  # fmt: skip


class GlanceSerializer(serializers.Serializer[Any]):
    """What was found of a name of one kind, in short."""

    kind = serializers.ChoiceField(choices=FINDING_NAMES)
    weight = serializers.ChoiceField(choices=WEIGHTS)
    text = serializers.CharField(help_text="The weightiest finding in a sentence")
    count = serializers.IntegerField(help_text="How many findings there are")
    found_at = serializers.DateTimeField()
    old = serializers.BooleanField(help_text="To be found out again")
    accepted = serializers.BooleanField()
    changed = serializers.BooleanField(help_text="It was accepted when it said something else")
    note = serializers.CharField(allow_blank=True)
    sign = serializers.CharField(help_text="The same while it says the same")


def glances(known: Mapping[str, Known]) -> list[dict[str, Any]]:
    """In the order of the kinds."""
    return [_glance(kind, known[kind]) for kind in FINDING_NAMES if kind in known]


def _glance(kind: str, one: Known) -> dict[str, Any]:
    return {
        "kind": kind,
        "weight": one.row.weight,
        "text": one.findings[0]["text"] if one.findings else "",
        "count": len(one.findings),
        "found_at": one.row.found_at,
        "old": one.old,
        "accepted": one.accepted,
        "changed": one.changed,
        "note": one.acceptance.note if one.acceptance else "",
        "sign": one.row.sign,
    }


class VettingRunSerializer(serializers.Serializer[Any]):
    """A vetting, and how far it is."""

    id = serializers.IntegerField()
    state = serializers.ChoiceField(choices=Vetting.State.choices)
    total = serializers.IntegerField(help_text="Steps: a name and a kind each")
    done = serializers.IntegerField()
    left = serializers.IntegerField()
    asleep = serializers.BooleanField(help_text="It waits for a worker")
    broken = serializers.BooleanField(help_text="It was stopped, as it failed again and again")


def run_document(progress: Progress) -> dict[str, Any]:
    """As VettingRunSerializer has it."""
    vetting = progress.vetting
    return {
        "id": vetting.pk,
        "state": vetting.state,
        "total": vetting.total,
        "done": progress.done,
        "left": progress.left,
        "asleep": is_asleep(vetting),
        "broken": vetting.faults >= MOST_FAULTS,
    }


class VettedSerializer(serializers.Serializer[Any]):
    label = serializers.CharField()  # type: ignore[assignment] # a field called as DRF's own
    shown = serializers.CharField()
    full_name = serializers.CharField()
    kinds = GlanceSerializer(many=True)


class PlatformSaysSerializer(serializers.Serializer[Any]):
    platform = serializers.CharField()
    says = serializers.ListField(
        child=serializers.CharField(allow_blank=True),
        help_text="Of each name in their order: free, taken, barred, unknown, or empty: not asked",
    )


class VettingReportSerializer(serializers.Serializer[Any]):
    """All names of the shortlist, the worst first."""

    names = VettedSerializer(many=True)
    handles = PlatformSaysSerializer(many=True, help_text="Platforms by names")
    run = VettingRunSerializer(allow_null=True, help_text="The last vetting, if any")
    classes = serializers.ListField(
        child=serializers.IntegerField(), help_text="Those of the brief, or proposed"
    )
    classes_proposed = serializers.BooleanField()
    markets = serializers.ListField(child=serializers.CharField())
    marks = serializers.IntegerField(help_text="How many marks there are to look into")
    platforms = serializers.IntegerField()
    search = serializers.BooleanField(help_text="Whether a search service is set up")


class VettingRequestSerializer(serializers.Serializer[Any]):
    names = serializers.ListField(
        child=serializers.CharField(max_length=300), required=False, max_length=60,
        help_text="Names or full names; those of the shortlist when left out",
    )  # fmt: skip
    kinds = serializers.ListField(
        child=serializers.ChoiceField(choices=FINDING_NAMES), required=False, max_length=10
    )
    again = serializers.ChoiceField(choices=get_args(Again), default="old")


class EvidenceRowSerializer(serializers.DictField):
    """A row of what speaks for a finding; the columns are the kind's."""

    child = serializers.JSONField(allow_null=True)


class FindingSerializer(serializers.Serializer[Any]):
    weight = serializers.ChoiceField(choices=WEIGHTS)
    code = serializers.CharField()
    text = serializers.CharField()
    advice = serializers.CharField(allow_blank=True, help_text="What one could do")
    evidence = serializers.ListField(child=EvidenceRowSerializer())
    source = serializers.CharField(allow_blank=True)  # type: ignore[assignment] # as DRF's own


class FindingsOfKindSerializer(GlanceSerializer):
    findings = FindingSerializer(many=True)
    more = serializers.DictField(child=serializers.JSONField(allow_null=True))


class SpelledSerializer(serializers.Serializer[Any]):
    letter = serializers.CharField()
    word = serializers.CharField()


class PresentedSerializer(serializers.Serializer[Any]):
    """A name as it is met."""

    alphabet = SpelledSerializer(many=True)
    said = serializers.CharField(allow_blank=True)
    capitals = serializers.CharField()
    email = serializers.CharField()
    handle = serializers.CharField()


class FindingsOfNameSerializer(serializers.Serializer[Any]):
    """All that was found of a name."""

    label = serializers.CharField()  # type: ignore[assignment] # a field called as DRF's own
    shown = serializers.CharField()
    full_name = serializers.CharField()
    kinds = FindingsOfKindSerializer(many=True)
    presented = PresentedSerializer()


class AcceptanceSerializer(serializers.Serializer[Any]):
    accepted = serializers.BooleanField()
    note = serializers.CharField(allow_blank=True, default="", max_length=2_000)
    sign = serializers.CharField(
        allow_blank=True, default="", max_length=32, help_text="Of what was seen"
    )


class MarkFileSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    office = serializers.CharField(allow_blank=True)
    state = serializers.ChoiceField(choices=MarkFile.State.choices)
    done = serializers.IntegerField(help_text="How many marks were taken")
    wrong = serializers.IntegerField(help_text="In how many places something was wrong")
    problems = ProblemSerializer(many=True, help_text="The first of them")
    brought_at = serializers.DateTimeField()


class RegistersSerializer(serializers.Serializer[Any]):
    may_edit = serializers.BooleanField()
    marks = serializers.IntegerField()
    files = MarkFileSerializer(many=True, help_text="The last that were brought, the newest first")


class CatalogueSerializer(serializers.Serializer[Any]):
    text = serializers.CharField(max_length=200_000, trim_whitespace=False)
