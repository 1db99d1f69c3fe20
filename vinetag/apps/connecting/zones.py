"""A zone of one's own: read, judged, kept, put into force, and looked at from outside.

Whoever has a name on their list does not own it by that: name servers answer for a zone only once
it is known that the name is theirs, by its seller's gateway or by a word at the name itself.
"""

from __future__ import annotations

import asyncio
import hashlib
import hmac
from collections.abc import Mapping, Sequence
from dataclasses import asdict, replace
from typing import Any, Final

from django.conf import settings
from django.db import transaction
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError, NotFoundError, RefusedError
from vinetag.apps.accounts.models import User
from vinetag.apps.connecting.models import Zone
from vinetag.apps.ordering.gateways import has_gateway, session
from vinetag.apps.owning.holding import is_theirs
from vinetag.apps.owning.listing import mine
from vinetag.apps.owning.models import OwnedName
from vinetag.core.errors import CoreError, Problem
from vinetag.core.zone import (
    READY,
    Record,
    Remark,
    fill,
    findings,
    judge,
    merge,
    read_record,
    sorted_records,
    write_master,
)
from vinetag.core.zone.records import name_in
from vinetag.lookup.epp import Seen
from vinetag.lookup.hosting import Hosting, HostingSettings
from vinetag.lookup.outside import Outside, look, texts_at

__all__ = [
    "TROUBLES", "hosts", "judged", "keep", "look_at", "master_of", "proof_of", "put_into_force",
    "read_rows", "ready_for", "records_of", "remarks_on", "take_out_of_force", "zone_of",
]  # fmt: skip

MOST_PAST: Final = 10
MOST_ROWS: Final = 1_000
SECONDS: Final = 8.0
PROOF: Final = "_vine-tag"
TROUBLES: Final = {
    "": "",
    "unreachable": "The name servers do not answer. It is kept, and can be put into force later.",
    "refused": "The name servers refuse it. It is kept, and can be put into force later.",
    "changed": "Somebody changes the zone at the name servers at the same time. Try it once more.",
    "nonsense": "What the name servers answer makes no sense. It is kept.",
    "none": "There are no name servers here that could answer for it.",
    "silent": "Its seller does not answer now, so it is not known that it is yours. It is kept.",
    "not_yours": "It is not known yet that the name is yours. It is kept.",
}  # fmt: skip


def _hosting() -> HostingSettings | None:
    given: HostingSettings | None = settings.HOSTING
    return given


def hosts() -> tuple[str, ...]:
    """The name servers that answer for zones kept here."""
    known = _hosting()
    return () if known is None else known.hosts


def zone_of(person: User, owned_id: int) -> Zone:
    """Of one of the person's names, empty where nothing was kept yet. Raises NotFoundError."""
    row = mine(person).filter(pk=owned_id).select_related("owner").first()
    if row is None:
        raise NotFoundError
    zone, _ = Zone.objects.get_or_create(owned=row)
    zone.owned = row
    return zone


def records_of(rows: Sequence[Mapping[str, Any]]) -> list[Record]:
    """As they are stored."""
    return [Record(**row) for row in rows]


def read_rows(origin: str, rows: Sequence[Mapping[str, Any]]) -> tuple[list[Record], list[Problem]]:
    """Records as they were typed, and what is wrong, at `records.3.data`; where something is, the
    record is left out.
    """
    found: list[Record] = []
    problems: list[Problem] = []
    if len(rows) > MOST_ROWS:
        args = {"limit": MOST_ROWS, "count": len(rows)}
        return [], [Problem("records", "too_many", args)]
    for place, row in enumerate(rows):
        try:
            found.append(
                read_record(
                    origin, str(row["name"]), str(row["kind"]), int(row["ttl"]), str(row["data"]),
                    f"records.{place}.",
                )
            )  # fmt: skip
        except CoreError as error:
            problems += error.problems
    return found, problems


def remarks_on(zone: Zone, records: Sequence[Record]) -> list[Remark]:
    """What is to be said of records beside each other."""
    known = _hosting()
    return judge(str(zone.owned.name), records, {known.forwarder} if known else ())


def judged(zone: Zone, rows: Sequence[Mapping[str, Any]]) -> tuple[list[Problem], list[Remark]]:
    """What is wrong with records as they were typed, and what is to be said of them together, once
    all of them can be read.
    """
    records, problems = read_rows(str(zone.owned.name), rows)
    return problems, [] if problems else remarks_on(zone, records)


def keep(zone: Zone, rows: Sequence[Mapping[str, Any]], edition: int) -> Zone:
    """Keep these records. Raises RefusedError for what is wrong, and ConflictError where somebody
    changed them since `edition`.
    """
    records, problems = read_rows(str(zone.owned.name), rows)
    if not problems:
        problems = [
            Problem(
                "records" if one.place is None else f"records.{one.place}.data",
                "as_told", {"text": one.text()},
            )
            for one in remarks_on(zone, records)
            if one.wrong
        ]  # fmt: skip
    if problems:
        raise RefusedError(problems)
    with transaction.atomic():
        there = Zone.objects.select_for_update().get(pk=zone.pk)
        if there.edition != edition:
            message = "The records were changed elsewhere meanwhile."
            raise ConflictError("changed_elsewhere", message)
        zone.records = [asdict(one) for one in sorted_records(records)]
        zone.edition = edition + 1
        zone.save(update_fields=["records", "edition"])
    return zone


def put_into_force(zone: Zone) -> Zone:
    """Have name servers answer what is kept. What goes wrong is said of the zone, which stays."""
    known, origin = _hosting(), str(zone.owned.name)
    if known is None:
        return _noted(zone, "none")
    if doubt := _doubt_that_it_is_theirs(zone):
        return _noted(zone, doubt)
    records = records_of(zone.records)
    with transaction.atomic():
        # Who can show that it is theirs takes it over from whoever had it.
        Zone.objects.filter(answering=origin).exclude(pk=zone.pk).update(answering=None)
        zone.answering = origin
        zone.save(update_fields=["answering"])
    done = Hosting(known).publish(origin, records)
    if done.trouble:
        return _noted(zone, done.trouble)
    now = timezone.now()
    if zone.published_at is not None and zone.in_force and zone.in_force != zone.records:
        before = {"at": zone.published_at.isoformat(), "records": zone.in_force}
        zone.past = [before, *zone.past][:MOST_PAST]
    zone.in_force, zone.serial, zone.published_at = zone.records, done.serial, now
    zone.looked, zone.looked_at = [], None
    zone.save(
        update_fields=["in_force", "serial", "published_at", "past", "looked", "looked_at"]
    )  # fmt: skip
    return _noted(zone, "")


def take_out_of_force(zone: Zone) -> Zone:
    """Have name servers answer nothing any more; what is kept stays. Raises ConflictError."""
    known = _hosting()
    if zone.answering and known is not None:
        done = Hosting(known).withdraw(str(zone.owned.name))
        if done.trouble:
            raise ConflictError("not_now", TROUBLES[done.trouble])
    zone.answering, zone.in_force, zone.serial = None, [], 0
    zone.looked, zone.looked_at = [], None
    zone.save(update_fields=["answering", "in_force", "serial", "looked", "looked_at"])
    return _noted(zone, "")


def _noted(zone: Zone, trouble: str) -> Zone:
    zone.trouble = trouble
    zone.save(update_fields=["trouble"])
    return zone


def proof_of(row: OwnedName) -> tuple[str, str]:
    """Where a word is put to show whose a name is, and which."""
    key = f"zone proof {settings.SECRET_KEY}".encode()
    about = f"{row.owner_id} {row.name}".encode()
    return PROOF, f"vine-tag={hmac.new(key, about, hashlib.sha256).hexdigest()[:32]}"


def _doubt_that_it_is_theirs(zone: Zone) -> str:
    """Why it is not known that a name is its owner's, "" where it is."""
    row, silent = zone.owned, False
    if row.seller and has_gateway(row.seller):
        with session(row.seller, SECONDS) as (gateway, done):
            seen = Seen("unknown") if done.trouble else gateway.info(str(row.name))
        if is_theirs(row, seen):
            return ""
        silent = seen.whose == "unknown"
    at, word = proof_of(row)
    said = asyncio.run(texts_at(f"{at}.{row.name}", _outside()))
    if any(hmac.compare_digest(one.encode(), word.encode()) for one in said):
        return ""
    return "silent" if silent else "not_yours"


def _outside() -> Outside:
    dns, known = settings.LOOKUP.dns, _hosting()
    address, _, port = ("", "", "") if dns == "system" else dns.rpartition(":")
    where = Outside(address, int(port or 53), anywhere=not settings.LOOKUP.live)
    if known is None:
        return where
    return replace(
        where, server_port=known.port, forwarder=known.forwarder,
        forwarder_port=known.forwarder_port,
    )  # fmt: skip


def look_at(zone: Zone) -> Zone:
    """See what the world sees of it, and keep what was found."""
    row, origin = zone.owned, str(zone.owned.name)
    expected = records_of(zone.in_force)
    keys = list(dict.fromkeys((name_in(origin, one.name), one.kind) for one in expected))
    forwards = _sent_on(expected)
    looked = asyncio.run(look(origin, keys, _outside(), forwarded=bool(forwards)))
    now = timezone.now()
    found = findings(
        origin, expected, looked, hosts() if expected else (), now, expires=row.expires_at,
        statuses=row.said.get("statuses", ()), serial=zone.serial, forwards=forwards,
    )  # fmt: skip
    zone.looked = [
        {"code": one.code, "standing": one.standing, "text": one.text()} for one in found
    ]
    zone.looked_at = now
    zone.save(update_fields=["looked", "looked_at"])
    return zone


def _sent_on(records: Sequence[Record]) -> str:
    known = _hosting()
    leads = known and any(one.name == "@" and one.data == known.forwarder for one in records)
    for one in records:
        if leads and one.kind == "URI" and one.name == "_http._tcp":
            return one.data.split(None, 2)[2].strip('"')
    return ""


def ready_for(
    zone: Zone, code: str, given: Mapping[str, str], rows: Sequence[Mapping[str, Any]]
) -> tuple[list[Record], list[Record]]:
    """The records with a ready-made set put in, and those that went for it; what cannot be read
    among them has to be mended first. Raises RefusedError.
    """
    if code not in {one.code for one in READY}:
        choices = ", ".join(one.code for one in READY)
        raise RefusedError([Problem("set", "unknown_choice", {"value": code, "choices": choices})])
    known, origin = _hosting(), str(zone.owned.name)
    records, problems = read_rows(origin, rows)
    if problems:
        raise RefusedError(problems)
    try:
        new = fill(code, given, origin, known.forwarder if known else "")
    except CoreError as error:
        problems = [Problem(f"given.{p.path}", p.code, p.args) for p in error.problems]
        raise RefusedError(problems) from error
    records, gone = merge(records, new)
    return sorted_records(records), gone


def master_of(zone: Zone) -> str:
    """As a master file."""
    name = str(zone.owned.name)
    return write_master(name, records_of(zone.records), hosts(), max(1, zone.serial))
