"""Work in the background that is a row in the database: who has it, and whether they are alive.

A worker holds it by a lease with a heartbeat, and may die at any moment: whoever claims it next
does what is left. The queue only wakes workers.
"""

from __future__ import annotations

import logging
import time
import uuid
from collections.abc import Callable
from datetime import datetime, timedelta
from typing import ClassVar, TypeVar

from django.conf import settings
from django.db import InterfaceError, OperationalError, close_old_connections, connection, models
from django.db.models import F, Q
from django.utils import timezone

__all__ = [
    "LEASE", "MOST_FAULTS", "Carried", "beat", "carry", "claim", "is_asleep", "long_ago",
    "note_fault", "patiently", "release", "stale",
]  # fmt: skip

LEASE = timedelta(seconds=settings.CHECK_LEASE)
# Slices in a row that may end by a fault of ours before the work is stopped, and told to be.
MOST_FAULTS = 3
# Work nobody has taken for so long is told to wait for a worker.
TAKEN_WITHIN = timedelta(seconds=6)
# A database that is starting again is waited for so long; then the work is left to the schedule.
PATIENCE = 60.0

Came = TypeVar("Came")

log = logging.getLogger(__name__)


class Carried(models.Model):
    """A project's; a worker holds it while its `lease` stands and its `heartbeat_at` is fresh."""

    class State(models.TextChoices):
        QUEUED = "queued"
        RUNNING = "running"
        DONE = "done"
        STOPPED = "stopped"

    ACTIVE: ClassVar[tuple[str, ...]] = (State.QUEUED, State.RUNNING)

    state = models.CharField(max_length=8, choices=State.choices, default=State.QUEUED)
    lease = models.CharField(max_length=32, blank=True, default="")
    heartbeat_at = models.DateTimeField()
    created_at = models.DateTimeField(auto_now_add=True)
    began_at = models.DateTimeField(default=timezone.now)
    ended_at = models.DateTimeField(null=True, blank=True)
    faults = models.PositiveSmallIntegerField(default=0)

    class Meta:
        abstract = True

    @property
    def is_active(self) -> bool:
        """Whether a worker has it or will."""
        return self.state in self.ACTIVE


def long_ago() -> datetime:
    """The heartbeat of work nobody has."""
    return timezone.now() - 10 * LEASE


def claim(model: type[Carried], pk: int) -> str | None:
    """Take the work for this worker: the lease's token, or None when it is over or another's."""
    token, now = uuid.uuid4().hex, timezone.now()
    free = Q(lease="") | Q(heartbeat_at__lt=now - LEASE)
    taken = model._default_manager.filter(free, pk=pk, state__in=model.ACTIVE).update(
        lease=token, heartbeat_at=now, state=model.State.RUNNING
    )
    return token if taken else None


def beat(model: type[Carried], pk: int, token: str) -> bool:
    """Keep the lease. False when the work was stopped, or another worker has it."""
    held = model._default_manager.filter(pk=pk, lease=token, state=model.State.RUNNING)
    return bool(held.update(heartbeat_at=timezone.now()))


def release(model: type[Carried], pk: int, token: str) -> None:
    """Give the lease up, so that the next slice can start at once."""
    held = model._default_manager.filter(pk=pk, lease=token)
    held.update(lease="", heartbeat_at=long_ago())


def note_fault(model: type[Carried], pk: int, token: str, *, failed: bool) -> None:
    """Count a slice that ended by a fault of ours; one that did not takes the count back. After
    MOST_FAULTS in a row the work is stopped: it would only fail again.
    """
    held = model._default_manager.filter(pk=pk, lease=token)
    if not failed:
        held.exclude(faults=0).update(faults=0)
        return
    held.update(faults=F("faults") + 1)
    held.filter(faults__gte=MOST_FAULTS, state__in=model.ACTIVE).update(
        state=model.State.STOPPED, ended_at=timezone.now()
    )


def carry(
    model: type[Carried], pk: int, do: Callable[[str], Came], finish: Callable[[], bool]
) -> tuple[Came, bool] | None:
    """Carry the work on by one slice: what `do` came to, told its lease, and whether `finish` ended
    the work; None when it is over or another worker's. A fault of ours is counted and raised.
    """
    token = claim(model, pk)
    if token is None:
        return None
    try:
        came = do(token)
    except Exception:
        note_fault(model, pk, token, failed=True)
        release(model, pk, token)
        raise
    try:
        note_fault(model, pk, token, failed=False)
        finished = finish()
    finally:
        release(model, pk, token)
    return came, finished


def patiently(work: Callable[[], Came]) -> Came:
    """Do it, again and again while the database cannot be reached, up to PATIENCE seconds."""
    deadline = time.monotonic() + PATIENCE
    while True:
        try:
            return work()
        except (OperationalError, InterfaceError):
            if time.monotonic() > deadline or connection.in_atomic_block:
                raise
            log.warning("The database cannot be reached; trying again.")
            close_old_connections()
            time.sleep(0.5)


def is_asleep(one: Carried) -> bool:
    """Whether it waits for a worker: none has taken it, or the one that had it is gone."""
    now = timezone.now()
    gone = now - one.heartbeat_at > LEASE
    return one.is_active and gone and now - one.began_at > TAKEN_WITHIN


def stale(model: type[Carried]) -> list[int]:
    """Active work of projects that no worker holds: just queued, or their worker is gone."""
    alone = Q(state__in=model.ACTIVE, heartbeat_at__lt=timezone.now() - LEASE)
    found = model._default_manager.filter(alone & Q(("project__removed_at", None)))
    return list(found.values_list("pk", flat=True))
