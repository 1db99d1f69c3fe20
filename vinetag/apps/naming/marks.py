"""What a person thinks of the names of a list: dismissed, looked at, to be looked at later."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from django.db import transaction

from vinetag.apps.accounts.errors import ConflictError
from vinetag.apps.naming.deadlocks import again_when_deadlocked
from vinetag.apps.naming.models import Dismissed, Look, Project
from vinetag.core.names import parse_label

__all__ = ["MOST_DISMISSED", "bring_back", "dismiss", "look", "next_mark"]

MOST_DISMISSED = 20_000
BATCH = 500


def next_mark(project: Project) -> int:
    """The number of a mark about to be set; the project is locked until the transaction ends."""
    locked = Project.objects.select_for_update().only("marked").get(pk=project.pk)
    locked.marked += 1
    locked.save(update_fields=["marked"])
    return locked.marked


@again_when_deadlocked
def dismiss(*, project: Project, labels: Sequence[str]) -> int:
    """Take names out of sight, now and when names are made anew; how many were not before. Raises
    LabelError, or ConflictError when too many are dismissed.
    """
    labels = _read(labels)
    with transaction.atomic():
        next_mark(project)
        there = set(project.dismissed.values_list("label", flat=True))
        new = [label for label in labels if label not in there]
        if len(there) + len(new) > MOST_DISMISSED:
            message = f"At most {MOST_DISMISSED:,} names can be dismissed. Bring some back first."
            raise ConflictError("too_many_dismissed", message)
        rows = [Dismissed(project=project, label=label) for label in new]
        Dismissed.objects.bulk_create(rows, batch_size=BATCH)
    return len(new)


@again_when_deadlocked
def bring_back(*, project: Project, labels: Sequence[str] | None) -> int:
    """Show dismissed names again, all when `labels` is None; how many there were."""
    rows = project.dismissed.all()
    if labels is not None:
        rows = rows.filter(label__in=labels)
    with transaction.atomic():
        next_mark(project)
        count, _ = rows.delete()
    return count


@again_when_deadlocked
def look(*, project: Project, labels: Sequence[str], verdict: Look.Verdict) -> None:
    """Remember how names were looked at last. Raises LabelError."""
    labels = _read(labels)
    with transaction.atomic():
        number = next_mark(project)
        Look.objects.bulk_create(
            [Look(project=project, label=a, verdict=verdict, number=number) for a in labels],
            batch_size=BATCH,
            update_conflicts=True,
            update_fields=["verdict", "number"],
        )


def _read(labels: Iterable[str]) -> list[str]:
    return list(dict.fromkeys(parse_label(label) for label in labels))
