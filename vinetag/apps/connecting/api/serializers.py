"""A zone as a document."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from rest_framework import serializers

from vinetag.apps.connecting.models import Zone
from vinetag.apps.connecting.zones import TROUBLES, hosts, proof_of, records_of, remarks_on
from vinetag.apps.ordering.gateways import has_gateway
from vinetag.apps.owning.models import OwnedName
from vinetag.core.errors import Problem
from vinetag.core.zone import KINDS, READY, USUAL_TTL, Record, Remark, shown_data

__all__ = [
    "MasterSerializer",
    "ReadMasterSerializer",
    "ReadyDoneSerializer",
    "ReadySerializer",
    "ZoneChangeSerializer",
    "ZoneJudgedSerializer",
    "ZonePastSerializer",
    "ZoneRecordsSerializer",
    "ZoneSerializer",
    "judged_document",
    "rows_of",
    "zone_document",
]  # fmt: skip

LARGEST_FILE = 1_000_000


class ZoneRecordSerializer(serializers.Serializer[Any]):
    name = serializers.CharField(max_length=300, allow_blank=True, help_text="@ for the name")
    kind = serializers.CharField(max_length=20, allow_blank=True)
    ttl = serializers.IntegerField(help_text="Seconds it is remembered")
    # Blank where it is being typed.
    data = serializers.CharField(  # type: ignore[assignment] # a field, as all of them
        max_length=4_000, allow_blank=True, trim_whitespace=False
    )


class ZoneRecordsSerializer(serializers.Serializer[Any]):
    records = ZoneRecordSerializer(many=True)


class ZoneChangeSerializer(ZoneRecordsSerializer):
    edition = serializers.IntegerField(help_text="What was seen of it")


class ReadySerializer(ZoneRecordsSerializer):
    set = serializers.CharField(max_length=20)
    given = serializers.DictField(child=serializers.CharField(max_length=2_000, allow_blank=True))


class MasterSerializer(serializers.Serializer[Any]):
    text = serializers.CharField(max_length=LARGEST_FILE, trim_whitespace=False)


class MasterLineSerializer(serializers.Serializer[Any]):
    where = serializers.CharField()
    message = serializers.CharField()


class ReadMasterSerializer(ZoneRecordsSerializer):
    problems = MasterLineSerializer(many=True)
    wrong = serializers.IntegerField()
    left_out = serializers.IntegerField(help_text="What name servers say by themselves")


class ReadyDoneSerializer(ZoneRecordsSerializer):
    gone = ZoneRecordSerializer(many=True)


class ZoneRemarkSerializer(serializers.Serializer[Any]):
    place = serializers.IntegerField(allow_null=True, help_text="Which record, None for all of it")
    field = serializers.CharField(allow_blank=True)
    wrong = serializers.BooleanField(help_text="Cannot be put into force so")
    message = serializers.CharField()


class ZoneJudgedSerializer(serializers.Serializer[Any]):
    remarks = ZoneRemarkSerializer(many=True)


class ZonePastSerializer(serializers.Serializer[Any]):
    at = serializers.DateTimeField()
    records = ZoneRecordSerializer(many=True)


class ReadyAskSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    title = serializers.CharField()
    example = serializers.CharField(allow_blank=True)
    needed = serializers.BooleanField()


class ReadySetSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    title = serializers.CharField()
    about = serializers.CharField()
    asks = ReadyAskSerializer(many=True)


class ZoneSeenSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    standing = serializers.ChoiceField(choices=("good", "wrong", "warn", "unknown"))
    text = serializers.CharField()


class ProofSerializer(serializers.Serializer[Any]):
    name = serializers.CharField(help_text="Where the word is put")
    text = serializers.CharField()


class ZoneSerializer(ZoneRecordsSerializer):
    id = serializers.IntegerField(help_text="Of the name on the list")
    full_name = serializers.CharField()
    shown = serializers.CharField()
    kinds = serializers.ListField(child=serializers.CharField())
    usual_ttl = serializers.IntegerField()
    hosts = serializers.ListField(child=serializers.CharField(), help_text="Ours")
    servers = serializers.ListField(child=serializers.CharField(), help_text="The name's own")
    can_point = serializers.BooleanField(help_text="Its name servers can be set from here")
    edition = serializers.IntegerField()
    answering = serializers.BooleanField()
    current = serializers.BooleanField(help_text="What is kept is what is in force")
    published_at = serializers.DateTimeField(allow_null=True)
    trouble = serializers.CharField(allow_blank=True)
    proof = ProofSerializer(allow_null=True)
    remarks = ZoneRemarkSerializer(many=True)
    past = ZonePastSerializer(many=True)
    looked = ZoneSeenSerializer(many=True)
    looked_at = serializers.DateTimeField(allow_null=True)
    ready = ReadySetSerializer(many=True)


def rows_of(records: Sequence[Record]) -> list[dict[str, Any]]:
    """As a person types them."""
    return [
        {"name": one.name, "kind": one.kind, "ttl": one.ttl, "data": shown_data(one)}
        for one in records
    ]


def judged_document(problems: Sequence[Problem], remarks: Sequence[Remark]) -> dict[str, Any]:
    """As ZoneJudgedSerializer describes it."""
    return {"remarks": [*map(_problem, problems), *map(_remark, remarks)]}


def _problem(problem: Problem) -> dict[str, Any]:
    parts = problem.path.split(".")
    place = int(parts[1]) if len(parts) > 2 else None
    field = parts[2] if len(parts) > 2 else ""
    return {"place": place, "field": field, "wrong": True, "message": problem.text()}


def _remark(one: Remark) -> dict[str, Any]:
    return {"place": one.place, "field": "data", "wrong": one.wrong, "message": one.text()}


def _proof(row: OwnedName) -> dict[str, str]:
    at, word = proof_of(row)
    return {"name": f"{at}.{row.name}", "text": word}


def zone_document(zone: Zone) -> dict[str, Any]:
    """As ZoneSerializer describes it."""
    row, records = zone.owned, records_of(zone.records)
    return {
        "id": row.pk,
        "full_name": str(row.name),
        "shown": row.name.shown,
        "kinds": KINDS,
        "usual_ttl": USUAL_TTL,
        "hosts": hosts(),
        "servers": row.servers,
        "can_point": bool(row.seller and has_gateway(row.seller)),
        "edition": zone.edition,
        "answering": zone.answering is not None and zone.published_at is not None,
        "current": zone.answering is not None and zone.in_force == zone.records,
        "published_at": zone.published_at,
        "trouble": TROUBLES[zone.trouble],
        "proof": _proof(row) if zone.trouble == "not_yours" else None,
        "records": rows_of(records),
        "remarks": [_remark(one) for one in remarks_on(zone, records)],
        "past": [
            {"at": one["at"], "records": rows_of(records_of(one["records"]))} for one in zone.past
        ],
        "looked": zone.looked,
        "looked_at": zone.looked_at,
        "ready": [
            {
                "code": one.code, "title": one.title, "about": one.about,
                "asks": [
                    {"code": f.code, "title": f.title, "example": f.example, "needed": f.needed}
                    for f in one.asks
                ],
            }
            for one in READY
        ],
    }  # fmt: skip
