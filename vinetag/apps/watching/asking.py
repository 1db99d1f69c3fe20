"""Names under watches asked about again: within a person's budget of the day, one person's in turn
with the next's, and nobody asked whose answer somebody else just had.
"""

from __future__ import annotations

import asyncio
import logging
import uuid
from collections.abc import Collection, Iterable, Mapping, Sequence
from datetime import datetime, timedelta
from typing import Final, NamedTuple

from django.conf import settings
from django.core.cache import cache
from django.db import transaction
from django.db.models import F, QuerySet
from django.utils import timezone

from vinetag.apps.availability.answer_store import (
    claim_names,
    fresh_answers,
    give_up_names,
    save_answers,
)
from vinetag.apps.availability.lookups import lookup_settings, rule_of
from vinetag.apps.availability.models import LastAnswer, Lookup
from vinetag.apps.naming.models import Project
from vinetag.apps.watching.models import SpentDay, Watched
from vinetag.core.names import FullName
from vinetag.core.watching import allowed, fair_turns, retry_turn
from vinetag.lookup import Answer, open_engine
from vinetag.lookup.engine import RuleOf

__all__ = ["adopt_answers", "ask_due"]

# Full names asked about in one round, and for how long one waits for them.
PLACES: Final = 120
SECONDS: Final = 12.0
# Of one person so many of those due are looked at; of all so many people.
MOST_DUE: Final = PLACES
MOST_PEOPLE: Final = 200
# A name asked about by a worker that died is asked about again after so long.
LEASE: Final = timedelta(minutes=3)
SOON: Final = timedelta(minutes=1)
ADOPTED: Final = "watching-adopted"
OVERLAP: Final = timedelta(seconds=30)
BATCH: Final = 500

log = logging.getLogger(__name__)


class Due(NamedTuple):
    """A watched full name whose time has come."""

    pk: int
    name: FullName
    project: int
    owner: int
    urgent: bool
    known: bool


def adopt_answers() -> int:
    """Take over what others found out of watched names since the last round; to how many names."""
    now = timezone.now()
    before = cache.get(ADOPTED)
    since = datetime.fromisoformat(before) if before else now - timedelta(minutes=10)
    found = LastAnswer.objects.filter(asked_at__gt=since - OVERLAP)
    names = [FullName(*row) for row in found.values_list("label", "extension")]
    count = 0
    for first in range(0, len(names), BATCH):
        rows = _going().filter(label__in={name.label for name in names[first : first + BATCH]})
        wanted = {*names[first : first + BATCH]}
        due = [one for one in map(_due_of, rows.values_list(*_FIELDS)) if one.name in wanted]
        count += len(_adopt(due))
    cache.set(ADOPTED, now.isoformat(), 86_400)
    return count


def _adopt(rows: Sequence[Due]) -> set[tuple[int, FullName]]:
    """Give the projects of these rows the answers that are younger than what they know; the names
    there are fresh answers to, by project.
    """
    if not rows:
        return set()
    fresh = fresh_answers({row.name for row in rows}, "scan", None)
    answers = {name: answer for name, answer in fresh.items() if answer.status != "unsure"}
    rules = _rules({row.project for row in rows if row.name in answers})
    by_project: dict[int, set[FullName]] = {}
    for row in rows:
        # What rules say of it for this owner goes before what anybody found out.
        if row.name in answers and rules[row.project](row.name) is None:
            by_project.setdefault(row.project, set()).add(row.name)
    for project, names in by_project.items():
        known = Lookup.objects.filter(project=project, label__in={n.label for n in names})
        asked = {
            FullName(label, extension): at
            for label, extension, at in known.values_list("label", "extension", "asked_at")
        }
        new = [
            answers[name]
            for name in sorted(names)
            if (before := asked.get(name)) is None or answers[name].asked_at > before
        ]
        save_answers(project, new)
    return {(project, name) for project, names in by_project.items() for name in names}


_FIELDS: Final = (
    "pk", "label", "extension", "watch__project", "watch__project__owner", "urgent", "asked_at",
)  # fmt: skip


def _due_of(row: tuple[int, str, str, int, int, bool, datetime | None]) -> Due:
    pk, label, extension, project, owner, urgent, asked = row
    return Due(pk, FullName(label, extension), project, owner, urgent, asked is not None)


def _going() -> QuerySet[Watched]:
    return Watched.objects.filter(next_at__isnull=False, watch__project__removed_at=None)


def ask_due() -> int:
    """Ask about names whose time has come, as many as fit into one round and into what each
    person has left of the day; how many were asked about.
    """
    now = timezone.now()
    waiting = _whose_turn(now)
    # What somebody found out already costs nobody anything.
    had = _adopt([row for rows in waiting.values() for row in rows if not row.known])
    waiting = {
        who: [row for row in rows if row.known or (row.project, row.name) not in had]
        for who, rows in waiting.items()
    }
    spent = _spent(waiting, now)
    queues, left = _queues(waiting, spent, now)
    # One question answers all who watch the name; it counts for whose turn came first.
    turns: dict[FullName, Due] = {}
    for _, row in fair_turns(queues, left, PLACES):
        turns.setdefault(row.name, row)
    mine = set(claim_names(list(turns), f"watch {uuid.uuid4().hex}"))
    _put_off([row.pk for name, row in turns.items() if name not in mine], now + SOON)
    chosen = [row for name, row in turns.items() if name in mine]
    chosen = _reserved(chosen, now)
    if not chosen:
        give_up_names(list(mine))
        return 0
    _put_off([row.pk for row in chosen], now + LEASE)
    try:
        answers = asyncio.run(_ask(chosen, _rule_for(chosen)))
        _keep(chosen, answers, now)
    finally:
        give_up_names(list(mine))
    return len(chosen)


def _whose_turn(now: datetime) -> dict[int, list[Due]]:
    """What is due, by person: who had least today goes first, what is urgent before all else."""
    due = _going().filter(next_at__lte=now)
    people = list(due.order_by().values_list("watch__project__owner", flat=True).distinct())
    had = dict(
        SpentDay.objects.filter(owner__in=people, day=now.date()).values_list("owner", "lookups")
    )
    order = sorted(people, key=lambda who: (had.get(who, 0), who))[:MOST_PEOPLE]
    found = {}
    for who in order:
        rows = due.filter(watch__project__owner=who).order_by("-urgent", "next_at", "pk")
        found[who] = [_due_of(row) for row in rows.values_list(*_FIELDS)[:MOST_DUE]]
    return found


def _spent(people: Iterable[int], now: datetime) -> dict[int, int]:
    rows = SpentDay.objects.filter(owner__in=list(people), day=now.date())
    return dict(rows.values_list("owner", "lookups"))


def _queues(
    waiting: Mapping[int, Sequence[Due]], spent: Mapping[int, int], now: datetime
) -> tuple[dict[int, list[Due]], dict[int, int]]:
    """Each person's names in order, and how many of them the budget has room for."""
    midnight = now.replace(hour=0, minute=0, second=0, microsecond=0)
    passed = (now - midnight) / timedelta(days=1)
    queues, left = {}, {}
    for who, rows in waiting.items():
        had = spent.get(who, 0)
        urgent = [row for row in rows if row.urgent]
        ordinary = [row for row in rows if not row.urgent]
        room = allowed(settings.WATCH_LOOKUPS, passed, urgent=False) - had
        queues[who] = [*urgent, *ordinary[: max(0, room)]]
        left[who] = max(0, allowed(settings.WATCH_LOOKUPS, passed, urgent=True) - had)
    return queues, left


def _reserved(rows: Sequence[Due], now: datetime) -> list[Due]:
    """Count what is about to be asked, before it is; those for which there is room."""
    by_owner: dict[int, list[Due]] = {}
    for row in rows:
        by_owner.setdefault(row.owner, []).append(row)
    found: list[Due] = []
    for owner, mine in by_owner.items():
        SpentDay.objects.get_or_create(owner_id=owner, day=now.date())
        day = SpentDay.objects.filter(owner=owner, day=now.date())
        most = settings.WATCH_LOOKUPS - len(mine)
        if day.filter(lookups__lte=most).update(lookups=F("lookups") + len(mine)):
            found += mine
    return found


def _put_off(pks: Sequence[int], until: datetime) -> None:
    Watched.objects.filter(pk__in=pks, next_at__isnull=False).update(next_at=until)


def _rules(projects: Collection[int]) -> dict[int, RuleOf]:
    """What rules say for the owner each project is for; nothing for one that was removed."""
    found = {pk: rule_of(project) for pk, project in Project.objects.in_bulk(projects).items()}
    return {pk: found.get(pk, lambda _name: None) for pk in projects}


def _rule_for(rows: Sequence[Due]) -> RuleOf:
    """What rules say of each name for the owner its project is for."""
    by_project = _rules({row.project for row in rows})
    rules = {row.name: by_project[row.project] for row in rows}
    return lambda name: rules[name](name)


async def _ask(rows: Sequence[Due], rule: RuleOf) -> list[Answer]:
    async with open_engine(lookup_settings(), rule) as engine:
        asked = (engine.ask(row.name, "buying", SECONDS) for row in rows)
        return list(await asyncio.gather(*asked))


def _keep(rows: Sequence[Due], answers: Sequence[Answer], now: datetime) -> None:
    """Store what was found out with every project in which the name is watched; what was not is
    tried again later, and what was known of it stays.
    """
    asked = {row.name: row for row in rows}
    found = {a.name: a for a in answers if a.status != "unsure" and a.trouble != "late"}
    # What rules say depends on the owner: it answers the project alone that was asked for.
    ruled = {a.name for a in found.values() if any(e.source == "rules" for e in a.evidence)}
    watched = [_due_of(row) for row in _watching(found)]
    rules = _rules({row.project for row in watched})
    by_project: dict[int, set[FullName]] = {}
    for row in watched:
        theirs = row.name not in ruled and rules[row.project](row.name) is None
        if theirs or row.project == asked[row.name].project:
            by_project.setdefault(row.project, set()).add(row.name)
    for project, names in by_project.items():
        save_answers(project, [found[name] for name in sorted(names)])
    for answer in answers:
        if answer.name in found:
            continue
        row = asked[answer.name]
        if answer.trouble == "late" and not answer.evidence:
            # It had no turn: nobody was asked.
            day = SpentDay.objects.filter(owner=row.owner, day=now.date(), lookups__gt=0)
            day.update(lookups=F("lookups") - 1)
            _put_off([row.pk], now + SOON)
            continue
        _put_down_failure(row.pk, answer.trouble)


def _put_down_failure(pk: int, trouble: str) -> None:
    with transaction.atomic():
        going = Watched.objects.select_for_update().filter(pk=pk, next_at__isnull=False)
        failed = going.first()
        if failed is None:
            return  # ended while it was asked about
        failed.failures += 1
        failed.trouble = trouble or "unreachable"
        failed.next_at = retry_turn(timezone.now(), failed.failures).at
        failed.save(update_fields=["failures", "trouble", "next_at"])


def _watching(
    names: Iterable[FullName],
) -> Iterable[tuple[int, str, str, int, int, bool, datetime | None]]:
    """All that watch these names."""
    wanted = {*names}
    rows = _going().filter(label__in={name.label for name in wanted}).values_list(*_FIELDS)
    return (row for row in rows if FullName(row[1], row[2]) in wanted)
