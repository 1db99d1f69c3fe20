"""Duels between kept names, and the ranking they make."""

from __future__ import annotations

from django.db import transaction

from vinetag.apps.accounts.errors import ConflictError, RefusedError
from vinetag.apps.naming.models import Project
from vinetag.apps.shortlists.models import DuelRow
from vinetag.apps.shortlists.services import entries, reorder
from vinetag.core.duels import Duel, Ranking, rank
from vinetag.core.errors import Problem

__all__ = ["MOST_DUELS", "duel", "forget_duels", "order_by_duels", "ranking", "take_back"]

MOST_DUELS = 5_000


def ranking(project: Project) -> Ranking:
    """What the duels come to, for the names kept now."""
    labels = list(entries(project).values_list("label", flat=True))
    rows = project.duels.order_by("id").values_list("winner", "loser", "tie")
    return rank(labels, [Duel(*row) for row in rows])


def duel(*, project: Project, winner: str, loser: str, tie: bool) -> None:
    """Store an answer. Raises RefusedError when a name is not kept, or both are the same."""
    kept = set(entries(project).values_list("label", flat=True))
    problems = [
        Problem(field, "not_kept", {"value": label})
        for field, label in (("winner", winner), ("loser", loser))
        if label not in kept
    ]
    if winner == loser:
        problems.append(Problem("loser", "repeated", {"value": loser}))
    if problems:
        raise RefusedError(problems)
    if project.duels.count() >= MOST_DUELS:
        raise ConflictError("too_many_duels", f"At most {MOST_DUELS:,} duels. Forget them first.")
    DuelRow.objects.create(project=project, winner=winner, loser=loser, tie=tie)


def take_back(project: Project) -> bool:
    """Forget the last answer; whether there was one."""
    last = project.duels.order_by("-id").first()
    if last:
        last.delete()
    return last is not None


def forget_duels(project: Project) -> None:
    """Forget all answers."""
    project.duels.all().delete()


def order_by_duels(project: Project) -> None:
    """Put the shortlist in the order of the ranking."""
    with transaction.atomic():
        reorder(project=project, labels=[s.label for s in ranking(project).standings])
