"""Orders money moved for: each is worked on until every name is registered or paid back."""

from __future__ import annotations

from datetime import timedelta
from typing import Final

from django.utils import timezone

from vinetag.apps.accounts.waking import wake
from vinetag.apps.availability.leases import LEASE, long_ago
from vinetag.apps.ordering.models import Errand, Order
from vinetag.jobs.celery import app

__all__ = ["due_errands", "put_off", "send_on"]

# Between two tries with a seller that does not answer, in seconds.
WAITS: Final = (5, 15, 30, 60, 120, 300, 600)


def send_on(order: Order) -> None:
    """Have an order worked on, now."""
    now = timezone.now()
    errand, made = Errand.objects.get_or_create(
        order=order, defaults={"due_at": now, "heartbeat_at": long_ago()}
    )
    if not made:
        Errand.objects.filter(pk=errand.pk).update(due_at=now)
        over = Errand.objects.filter(pk=errand.pk).exclude(state__in=Errand.ACTIVE)
        over.update(state=Errand.State.QUEUED, faults=0, lease="", heartbeat_at=long_ago())
    wake(lambda: app.send_task("ordering.work_on", args=[errand.pk]))


def due_errands(most: int) -> list[int]:
    """Those nobody works on that are due."""
    now = timezone.now()
    rows = Errand.objects.filter(
        state__in=Errand.ACTIVE, due_at__lte=now, heartbeat_at__lt=now - LEASE
    )
    return list(rows.order_by("due_at").values_list("pk", flat=True)[:most])


def put_off(errand_id: int, *, answered: bool) -> None:
    """When an order is to be worked on again: soon where it waits for a registry, ever later where
    its seller does not answer, or somebody may think over for days whether a name may move.
    """
    errand = Errand.objects.select_related("order").get(pk=errand_id)
    errand.tries = 0 if answered else errand.tries + 1
    wait = WAITS[min(errand.tries, len(WAITS)) - 1] if errand.tries else _patience(errand.order)
    errand.due_at = timezone.now() + timedelta(seconds=wait)
    errand.save(update_fields=["tries", "due_at"])


def _patience(order: Order) -> int:
    """Seconds until an order is looked at again whose seller answers: a tenth of what a move has
    taken, where nothing else is left of it.
    """
    left = order.names.filter(state__in=("paid", "sent", "pending", "failed"))
    moving = left.filter(state="pending", action="move")
    since = moving.order_by("-sent_at").values_list("sent_at", flat=True).first()
    if since is None or left.count() > moving.count():
        return WAITS[0]
    age = (timezone.now() - since).total_seconds()
    return int(min(max(WAITS[0], age / 10), WAITS[-1]))
