"""Rules and transactions of checks."""

from __future__ import annotations

import logging
import uuid
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from itertools import product

from django.conf import settings
from django.db import transaction
from django.db.models import F, Q
from django.utils import timezone
from kombu.exceptions import OperationalError

from vinetag.apps.accounts.errors import ConflictError, NotFoundError
from vinetag.apps.availability.models import Check, Lookup
from vinetag.apps.naming.models import Candidate, Project
from vinetag.core.names import FullName, parse_label
from vinetag.lookup import Answer

__all__ = [
    "FRESH",
    "LEASE",
    "Progress",
    "awaited_names",
    "beat",
    "claim",
    "finish_if_done",
    "latest_check",
    "progress",
    "release",
    "save_answers",
    "stale_checks",
    "start_check",
    "stop_check",
    "wake",
    "watch",
]

FRESH = timedelta(minutes=15)
LEASE = timedelta(seconds=8)
MAX_LABELS = 500
BATCH = 500
OVERLAP = timedelta(seconds=3)
SEEN_AT_ONCE = 4_000
ANSWER_FIELDS = (
    "status", "trouble", "detail", "source", "asked_at", "registered", "expires", "rdap_status",
    "check_run",
)  # fmt: skip


log = logging.getLogger(__name__)


@dataclass(frozen=True, slots=True)
class Watched:
    """What changed since a moment: the check, if any, the answers, and the moment to ask from."""

    check_run: Progress | None
    cells: Sequence[Lookup]
    now: datetime


@dataclass(frozen=True, slots=True)
class Progress:
    """How far a check is; `rate` is answers a second over its life, None before the first;
    `unsure` counts its answers that are.
    """

    check: Check
    done: int
    unsure: int
    rate: float | None


def start_check(
    *, project: Project, labels: Sequence[str] | None = None, again: bool = False
) -> Check:
    """Ask about names across the brief's extensions: the best by rank, or `labels`.

    Names answered within FRESH are left out unless `again`; unsure ones are always asked. Raises
    ConflictError while a check is active ("check_active") or when nothing is left to ask ("fresh").
    """
    extensions = project.brief["extensions"]
    if labels is None:
        top = project.candidates.order_by("rank")[: settings.CHECK_TOP_NAMES]
        labels = list(top.values_list("label", flat=True))
    else:
        labels = list(dict.fromkeys(parse_label(label) for label in labels[:MAX_LABELS]))
    with transaction.atomic():
        Project.objects.select_for_update().get(pk=project.pk)
        if project.checks.filter(state__in=Check.ACTIVE).exists():
            raise ConflictError("check_active", "A check is running. Wait for it, or stop it.")
        fresh = set() if again else _fresh(project, labels)
        wanted = [pair for pair in product(labels, extensions) if pair not in fresh]
        if not wanted:
            raise ConflictError("fresh", _nothing_left(len(labels)))
        check = Check.objects.create(project=project, total=len(wanted), heartbeat_at=_long_ago())
        Lookup.objects.bulk_create(
            [
                Lookup(project=project, label=label, extension=extension, check_run=check)
                for label, extension in wanted
            ],
            batch_size=BATCH,
            update_conflicts=True,
            update_fields=["check_run"],
        )
    return check


def _fresh(project: Project, labels: Sequence[str]) -> set[tuple[str, str]]:
    rows = project.lookups.filter(
        label__in=labels,
        status__in=[Lookup.Status.OPEN, Lookup.Status.TAKEN],
        asked_at__gt=timezone.now() - FRESH,
    )
    return set(rows.values_list("label", "extension"))


def _nothing_left(names: int) -> str:
    if not names:
        return "There are no names to check yet. Add a keyword first."
    minutes = int(FRESH.total_seconds() // 60)
    which = "This name was" if names == 1 else f"All {names} names were"
    return f"{which} checked within the last {minutes} minutes."


def _long_ago() -> datetime:
    return timezone.now() - 10 * LEASE


def claim(check_id: int) -> str | None:
    """Take the check for this worker: the lease's token, or None when it is over or another's."""
    token = uuid.uuid4().hex
    now = timezone.now()
    taken = Check.objects.filter(
        Q(lease="") | Q(heartbeat_at__lt=now - LEASE), pk=check_id, state__in=Check.ACTIVE
    ).update(lease=token, heartbeat_at=now, state=Check.State.RUNNING)
    return token if taken else None


def beat(check_id: int, token: str) -> bool:
    """Keep the lease. False when the check was stopped, or another worker has it."""
    held = Check.objects.filter(pk=check_id, lease=token, state=Check.State.RUNNING)
    return bool(held.update(heartbeat_at=timezone.now()))


def release(check_id: int, token: str) -> None:
    """Give the lease up, so that the next slice can start at once."""
    Check.objects.filter(pk=check_id, lease=token).update(lease="", heartbeat_at=_long_ago())


def awaited_names(check_id: int, limit: int) -> list[FullName]:
    """Full names still to be asked, those of the first candidates first."""
    check = Check.objects.get(pk=check_id)
    rows = list(Lookup.objects.filter(check_run=check_id).values_list("label", "extension"))
    labels = {label for label, _ in rows}
    ranks = dict(
        Candidate.objects.filter(project=check.project_id, label__in=labels).values_list(
            "label", "rank"
        )
    )
    rows.sort(key=lambda row: (ranks.get(row[0], 10**9), row[0]))
    return [FullName(label, extension) for label, extension in rows[:limit]]


def save_answers(check_id: int, answers: Sequence[Answer]) -> None:
    """Store a check's answers as they come; storing one twice changes nothing.

    The check's row is locked first, as stop_check does: two writers that touched the answers in
    different orders would deadlock.
    """
    if not answers:
        return
    with transaction.atomic():
        check = Check.objects.select_for_update().get(pk=check_id)
        _store(check.project_id, answers)


def _store(project_id: int, answers: Iterable[Answer]) -> None:
    rows = [
        Lookup(
            project_id=project_id,
            label=a.name.label,
            extension=a.name.extension,
            status=a.status,
            trouble=a.trouble,
            detail=a.detail[:200],
            source=a.source[:400],
            asked_at=a.asked_at,
            registered=a.registered,
            expires=a.expires,
            rdap_status=list(a.rdap_status),
            check_run=None,
        )
        for a in answers
    ]
    Lookup.objects.bulk_create(
        rows, batch_size=BATCH, update_conflicts=True, update_fields=list(ANSWER_FIELDS)
    )


def finish_if_done(check_id: int) -> bool:
    """End the check when nothing is awaited any more."""
    if Lookup.objects.filter(check_run=check_id).exists():
        return False
    Check.objects.filter(pk=check_id, state__in=Check.ACTIVE).update(
        state=Check.State.DONE, lease="", ended_at=timezone.now()
    )
    return True


def stop_check(project: Project, check_id: int) -> Check:
    """Stop a check: answers stay, what was not answered is as before. Raises NotFoundError."""
    with transaction.atomic():
        check = project.checks.select_for_update().filter(pk=check_id).first()
        if check is None:
            raise NotFoundError
        if check.is_active:
            left = Lookup.objects.filter(check_run=check)
            check.total = F("total") - left.count()
            check.state, check.ended_at, check.lease = Check.State.STOPPED, timezone.now(), ""
            check.save()
            left.filter(status=Lookup.Status.WAITING).delete()
            left.update(check_run=None)
            check.refresh_from_db()
    return check


def stale_checks() -> list[int]:
    """Active checks no worker holds: just queued, or their worker is gone."""
    stale = Check.objects.filter(
        state__in=Check.ACTIVE, heartbeat_at__lt=timezone.now() - LEASE, project__removed_at=None
    )
    return list(stale.values_list("pk", flat=True))


def latest_check(project: Project) -> Check | None:
    """The project's last check."""
    return project.checks.order_by("-id").first()


def progress(check: Check) -> Progress:
    """How far the check is."""
    done = check.total - Lookup.objects.filter(check_run=check).count()
    end = check.ended_at or timezone.now()
    seconds = (end - check.created_at).total_seconds()
    unsure = Lookup.objects.filter(
        project=check.project_id,
        status=Lookup.Status.UNSURE,
        asked_at__range=(check.created_at, end + OVERLAP),
    ).count()
    return Progress(check, done, unsure, done / seconds if done and seconds > 0 else None)


def watch(project: Project, since: datetime | None) -> Watched:
    """The last check and the answers since `since`, reaching a little further back: two answers may
    be stored in another order than they were asked in, and seeing one twice does no harm. With too
    many for once, the moment to ask from is that of the last one given.
    """
    now = timezone.now()
    check = latest_check(project)
    cells: Sequence[Lookup] = ()
    if since:
        since_then = project.lookups.filter(asked_at__gt=since - OVERLAP).order_by("asked_at")
        cells = list(since_then[:SEEN_AT_ONCE])
        if len(cells) == SEEN_AT_ONCE and cells[-1].asked_at:
            now = cells[-1].asked_at
    return Watched(progress(check) if check else None, cells, now)


def wake(send: Callable[[], object]) -> None:
    """Send a message to the workers. While the queue is down the check waits for resume_checks."""
    try:
        send()
    except OperationalError:
        log.warning("The queue cannot be reached; the check starts when it is back.")
