"""Storing answers, so that each is there once, in order, for everyone who may use it."""

from __future__ import annotations

import logging
from collections.abc import Iterable, Sequence
from dataclasses import replace
from datetime import datetime
from typing import cast

import redis
from django.conf import settings
from django.db import transaction
from django.db.models import F, Q
from django.utils import timezone

from vinetag.apps.availability.models import Check, LastAnswer, Lookup, PastAnswer
from vinetag.apps.availability.offered import changed_by_lists, markets_to_spread, with_offers
from vinetag.apps.market.models import MarketRow
from vinetag.apps.naming.models import Project
from vinetag.core.checking import (
    Aim,
    Status,
    Trouble,
    is_fresh,
    read_evidence,
    standing_quote,
    verdict,
    write_evidence,
)
from vinetag.core.names import FullName
from vinetag.lookup import Answer

__all__ = [
    "channel_of", "claim_names", "fresh_answers", "give_up_names", "save_answers", "spread_offers",
]  # fmt: skip

BATCH = 500
KNOWN_FIELDS = ("likely", "trouble", "aim", "evidence", "asked_at", "status")
ANSWER_FIELDS = (
    *KNOWN_FIELDS, "registered", "expires", "drops_from", "drops_to", "currency", "first_year",
    "renewal", "holder_asks", "open_since", "open_until", "number", "check_run",
)  # fmt: skip
GONE = ("taken", "offered")
# A worker that died lets go of its names after so many seconds.
CLAIM_SECONDS = 45

log = logging.getLogger(__name__)


def channel_of(project_id: int) -> str:
    """Where the project's streams listen."""
    return f"vinetag:project:{project_id}"


def save_answers(project_id: int, answers: Sequence[Answer], check_id: int | None = None) -> None:
    """Store answers as they come; storing one twice changes nothing but its number.

    The check's row is locked first, as stop_check does, then the project's, which gives the answers
    their numbers in the order they are seen.
    """
    if not answers:
        return
    answers = with_offers(_with_standing_prices(answers))
    with transaction.atomic():
        if check_id is not None:
            Check.objects.select_for_update().filter(pk=check_id).first()
        project = Project.objects.select_for_update().filter(pk=project_id).first()
        if project is None:
            return  # removed while it was asked about
        Project.objects.filter(pk=project_id).update(answers=F("answers") + len(answers))
        rows = [
            _lookup(project_id, check_id, project.answers + n, a) for n, a in enumerate(answers, 1)
        ]
        _remember(project, answers, rows)
        Lookup.objects.bulk_create(
            rows, batch_size=BATCH, update_conflicts=True, update_fields=list(ANSWER_FIELDS)
        )
        # What was reused may be older than what is there now; what rules say depends on the owner.
        found = [a for a in answers if not a.reused and "rules" not in _sources(a)]
        LastAnswer.objects.bulk_create(
            [LastAnswer(**_known(a)) for a in sorted(found, key=lambda a: a.name)],
            batch_size=BATCH,
            update_conflicts=True,
            update_fields=list(KNOWN_FIELDS),
        )
    give_up_names([a.name for a in answers])
    _tell(project_id)


def spread_offers() -> int:
    """Bring what is known of names up to the lists of markets that are new; safe to be killed at
    any line, and done twice it changes nothing more. How many answers are otherwise.
    """
    changed = 0
    for market in markets_to_spread():
        for project_id, check_id, answers in changed_by_lists(market):
            save_answers(project_id, answers, check_id)
            changed += len(answers)
        MarketRow.objects.filter(pk=market.pk).update(spread=market.edition)
    return changed


def _with_standing_prices(answers: Sequence[Answer]) -> list[Answer]:
    """The answers, those in which no seller was asked with what one said lately, where it holds."""
    asked = {a.name: a for a in answers if not a.reused and not {"quote", "rules"} & _sources(a)}
    known = LastAnswer.objects.filter(
        label__in={name.label for name in asked},
        extension__in={name.extension for name in asked},
    ).exclude(status__in=("taken", "barred", "dropping"))
    standing = {}
    for row in known if asked else ():
        answer = asked.get(FullName(row.label, row.extension))
        if answer is None:
            continue
        before = [read_evidence(document) for document in row.evidence]
        if quote := standing_quote(before, answer.evidence, answer.asked_at):
            evidence = (*answer.evidence, quote)
            changed = replace(answer, evidence=evidence)
            if answer.status != "unsure":
                found = verdict({e.source: e for e in evidence}, {e.source for e in evidence})
                changed = replace(changed, status=found.status, likely=found.likely)
            standing[answer.name] = changed
    return [standing.get(a.name, a) for a in answers]


def _remember(project: Project, answers: Sequence[Answer], rows: Sequence[Lookup]) -> None:
    """Put by what was known of those names that turned out otherwise; and tell the new `rows` since
    when, and until when, their names were open.
    """
    new = {FullName(row.label, row.extension): row for row in rows}
    for row in new.values():
        _spell(row, None, None)
    now = {a.name: a.status for a in answers}
    before = project.lookups.filter(
        label__in={name.label for name in now}, extension__in={name.extension for name in now}
    )
    fields = ("label", "extension", "status", "likely", "trouble", "asked_at")
    past = []
    for row in before.values(*fields, "open_since", "open_until"):
        name = FullName(row["label"], row["extension"])
        if name in new:
            _spell(new[name], row.pop("open_since"), row.pop("open_until"))
        status = now.get(name)
        if status and status != row["status"] and row["asked_at"]:
            past.append(PastAnswer(project=project, **row))
    PastAnswer.objects.bulk_create(past, batch_size=BATCH)


def _spell(row: Lookup, since: datetime | None, until: datetime | None) -> None:
    """For how long a name was open by now, from what was known of that before. A registry says when
    it was registered; else it was gone when that was found.
    """
    if row.status in Lookup.OPEN and not row.likely:
        again = since is None or until is not None
        row.open_since, row.open_until = row.asked_at if again else since, None
        return
    if row.status in GONE and since is not None and until is None and row.asked_at:
        told = row.registered
        until = told if told and since < told <= row.asked_at else row.asked_at
    row.open_since, row.open_until = since, until


def _tell(project_id: int) -> None:
    """Wake the streams; without Redis they look every few seconds."""
    try:
        _redis().publish(channel_of(project_id), "answers")
    except redis.RedisError:
        log.warning("Redis cannot be reached; streams will see the answers a little later.")


def fresh_answers(
    names: Iterable[FullName], aim: Aim, not_before: datetime | None
) -> dict[FullName, Answer]:
    """What is known of the names and fresh enough for the aim, and not from before
    `not_before`.
    """
    by_extension: dict[str, list[str]] = {}
    for name in names:
        by_extension.setdefault(name.extension, []).append(name.label)
    wanted = Q()
    for extension, labels in by_extension.items():
        wanted |= Q(extension=extension, label__in=labels)
    if not by_extension:
        return {}
    rows = LastAnswer.objects.filter(wanted)
    if not_before:
        rows = rows.filter(asked_at__gte=not_before)
    now, found = timezone.now(), {}
    for row in rows:
        status = cast(Status, row.status)
        enough = aim == "scan" or row.aim == aim
        if enough and row.asked_at and is_fresh(status, row.asked_at, now):
            name = FullName(row.label, row.extension)
            found[name] = Answer(
                name,
                status,
                row.asked_at,
                row.likely,
                cast(Trouble, row.trouble),
                cast(Aim, row.aim),
                tuple(read_evidence(e) for e in row.evidence),
                reused=True,
            )
    return found


def claim_names(names: Sequence[FullName], claimant: str) -> list[FullName]:
    """Those of the names nobody else is asking just now; they are `claimant`'s until answered."""
    if not names:
        return []
    try:
        pipe = _redis().pipeline(transaction=False)
        for name in names:
            pipe.set(_claim(name), claimant, nx=True, ex=CLAIM_SECONDS, get=True)
        held = pipe.execute()
    except redis.RedisError:
        return list(names)
    mine = (None, claimant.encode())
    return [name for name, holder in zip(names, held, strict=True) if holder in mine]


def give_up_names(names: Sequence[FullName]) -> None:
    """Let others ask them again."""
    if not names:
        return
    try:
        _redis().delete(*map(_claim, names))
    except redis.RedisError:
        log.warning("Redis cannot be reached; names stay claimed for %d s.", CLAIM_SECONDS)


def _claim(name: FullName) -> str:
    return f"vinetag:asking:{name}"


def _redis() -> redis.Redis:
    global _client
    if _client is None:
        _client = redis.Redis.from_url(
            settings.REDIS_URL, socket_timeout=2, socket_connect_timeout=1
        )
    return _client


_client: redis.Redis | None = None


def _sources(answer: Answer) -> set[str]:
    return {e.source for e in answer.evidence}


def _known(answer: Answer) -> dict[str, object]:
    return {
        "label": answer.name.label,
        "extension": answer.name.extension,
        "status": answer.status,
        "likely": answer.likely,
        "trouble": answer.trouble,
        "aim": answer.aim,
        "evidence": [write_evidence(e) for e in answer.evidence],
        "asked_at": answer.asked_at,
    }


def _lookup(project_id: int, check_id: int | None, number: int, answer: Answer) -> Lookup:
    """The row with the columns that are sorted, filtered or shown in the sheet."""
    row = Lookup(project_id=project_id, check_run_id=check_id, number=number, **_known(answer))
    for e in answer.evidence:
        row.registered = e.registered or row.registered
        row.expires = e.expires or row.expires
        if e.drops:
            row.drops_from, row.drops_to = e.drops
        if e.quote:
            row.currency = e.quote.currency
            row.first_year, row.renewal = e.quote.first_year, e.quote.renewal
            row.holder_asks = e.quote.asked
    return row
