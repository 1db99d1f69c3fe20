"""Rules and transactions of watches: what is watched, why, and until when."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, timedelta
from typing import Any, Final

from django.conf import settings
from django.core.cache import cache
from django.db import transaction
from django.db.models import Count, Min, Q, QuerySet
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError, NotFoundError, RefusedError
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.catalogue import catalogue
from vinetag.apps.costs.markets import sellers_for
from vinetag.apps.naming.models import Project
from vinetag.apps.watching.models import Happening, Letter, SpentDay, Watch, Watched
from vinetag.core.checking.pasted import read_name
from vinetag.core.concepts import WATCH_KINDS, WATCH_NAMES, WatchName
from vinetag.core.cost import ACTIONS
from vinetag.core.errors import CoreError, Problem
from vinetag.core.market import parse_hunt
from vinetag.core.names import FullName

__all__ = [
    "MOST_NAMES", "MOST_WATCHES", "USUAL_DAYS", "Standing", "Wish", "change_watch", "end_overdue",
    "forget_old", "own_watch", "own_watches", "remove_watch", "standing_of", "start_watch",
]  # fmt: skip

MOST_NAMES: Final = 10_000
MOST_WATCHES: Final = 500
MOST_TOLD: Final = 20
USUAL_DAYS: Final = 90
MOST_DAYS: Final = 731
BATCH: Final = 1_000
LONGEST_TITLE: Final = 120
KEPT_FOR: Final = timedelta(days=400)
LETTERS_KEPT: Final = timedelta(days=90)
FORGOTTEN: Final = "watching-forgot"
ACTIONS_WATCHED: Final = ("register", "renew")


@dataclass(frozen=True, slots=True)
class Wish:
    """What somebody wants watched: `names` as typed, full names or, with `extensions`, names; a
    `question` of the hunt as its address has it; a `seller` by code with an `extension` and an
    `action`. `ends_on`: None for the usual time.
    """

    kind: WatchName
    title: str = ""
    reason: str = ""
    ends_on: date | None = None
    names: Sequence[str] = ()
    extensions: Sequence[str] = ()
    question: Mapping[str, str] = field(default_factory=dict)
    seller: str = ""
    extension: str = ""
    action: str = "renew"


@dataclass(frozen=True, slots=True)
class Standing:
    """How much a person watches, and what of today's look-ups is used."""

    names: int
    most_names: int
    watches: int
    spent: int
    budget: int


def own_watches(person: User) -> QuerySet[Watch]:
    """A person's watches, those that go on first, with how many names each has and when the next of
    them is asked about.
    """
    mine = Watch.objects.filter(project__owner=person, project__removed_at=None)
    return _counted(mine).order_by("ended_at", "-id")


def _counted(watches: QuerySet[Watch]) -> QuerySet[Watch]:
    counts = watches.annotate(
        count=Count("names"),
        next_at=Min("names__next_at"),
        label=Min("names__label"),
        extension=Min("names__extension"),
    )
    return counts.select_related("project")


def own_watch(person: User, watch_id: int) -> Watch:
    """One of them. Raises NotFoundError, also for someone else's."""
    found = own_watches(person).filter(pk=watch_id).first()
    if found is None:
        raise NotFoundError
    return found


def standing_of(person: User) -> Standing:
    """How much is watched for the person."""
    going = Q(watch__project__owner=person, watch__project__removed_at=None, watch__ended_at=None)
    spent = SpentDay.objects.filter(owner=person, day=timezone.now().date())
    return Standing(
        Watched.objects.filter(going).count(),
        MOST_NAMES,
        own_watches(person).filter(ended_at=None).count(),
        sum(spent.values_list("lookups", flat=True)),
        settings.WATCH_LOOKUPS,
    )


def start_watch(project: Project, wish: Wish) -> Watch:
    """Watch something. Raises RefusedError where it makes no sense, every problem with its place,
    and ConflictError where it is too much, or watched already; nothing is watched then.
    """
    if wish.kind not in WATCH_NAMES:
        args = {"value": str(wish.kind)[:40], "choices": ", ".join(WATCH_NAMES)}
        raise RefusedError([Problem("kind", "unknown_choice", args)])
    problems = [*_end_problems(wish.ends_on)]
    names: list[FullName] = []
    asked: dict[str, Any] = {}
    if WATCH_KINDS[wish.kind].of_names:
        names, wrong = _read_names(project, wish)
        problems += wrong
    elif wish.kind == "hunt":
        asked = {"question": _question(wish.question)}
    else:
        asked, wrong = _read_price(project.owner, wish)
        problems += wrong
    if problems:
        raise RefusedError(problems)
    title = " ".join(wish.title.split()) or _title(wish, names, asked)
    with transaction.atomic():
        owner = User.objects.select_for_update().get(pk=project.owner_id)
        _check_room(owner, project, wish, names, asked)
        watch = Watch.objects.create(
            project=project,
            kind=wish.kind,
            title=title[:LONGEST_TITLE],
            reason=" ".join(wish.reason.split())[:200],
            asked=asked,
            ends_on=wish.ends_on or timezone.localdate() + timedelta(days=USUAL_DAYS),
        )
        now = timezone.now()
        Watched.objects.bulk_create(
            [Watched(watch=watch, label=a, extension=b, next_at=now) for a, b in names],
            BATCH,
        )
    return _counted(Watch.objects.filter(pk=watch.pk)).get()


def _end_problems(ends_on: date | None) -> Iterable[Problem]:
    today = timezone.localdate()
    if ends_on is not None and not today < ends_on <= today + timedelta(days=MOST_DAYS):
        yield Problem("ends_on", "watch_end", {"days": MOST_DAYS})


def _read_names(project: Project, wish: Wish) -> tuple[list[FullName], list[Problem]]:
    """Full names of what was typed; a name without extension is meant under those chosen, or the
    first of the brief, and of one watched under extensions the label counts.
    """
    if not wish.names:
        return [], [Problem("names", "blank")]
    known = {entry.extension for entry in catalogue()}
    chosen = [e.strip().lower().removeprefix(".") for e in wish.extensions]
    problems = [
        Problem(f"extensions.{place}", "extension_unknown", {"value": extension[:40]})
        for place, extension in enumerate(chosen)
        if extension not in known
    ]
    usual = [e for e in chosen if e in known] or list(project.brief["extensions"])
    if wish.kind != "label" and not chosen:
        usual = usual[:1]
    most = MOST_NAMES // max(1, len(usual) if wish.kind == "label" else 1)
    if len(wish.names) > most:
        counts = {"limit": most, "count": len(wish.names)}
        return [], [Problem("names", "too_many_watched", counts)]
    found: dict[FullName, None] = {}
    for place, typed in enumerate(wish.names):
        try:
            label, extension = read_name(typed)
        except CoreError as error:
            problems += [Problem(f"names.{place}", p.code, p.args) for p in error.problems]
            continue
        for one in [extension] if extension and not (wish.kind == "label" and chosen) else usual:
            if one not in known:
                problems.append(Problem(f"names.{place}", "extension_unknown", {"value": one}))
                continue
            found[FullName(label, one)] = None
    return list(found), problems[:MOST_TOLD]


def _question(given: Mapping[str, str]) -> dict[str, str]:
    """The question as it is kept; raises QuestionError where it makes none."""
    fields = {str(name)[:40]: str(value)[:400] for name, value in list(given.items())[:60]}
    parse_hunt(fields)
    return {name: value for name, value in fields.items() if value}


def _read_price(owner: User, wish: Wish) -> tuple[dict[str, Any], list[Problem]]:
    problems = []
    extension = wish.extension.strip().lower().removeprefix(".")
    if extension not in {entry.extension for entry in catalogue()}:
        problems.append(Problem("extension", "extension_unknown", {"value": extension[:40]}))
    if wish.action not in ACTIONS_WATCHED:
        args = {"value": wish.action[:40], "choices": ", ".join(ACTIONS_WATCHED)}
        problems.append(Problem("action", "unknown_choice", args))
    sellers = dict(sellers_for(owner).values_list("code", "terms"))
    if wish.seller not in sellers:
        args = {"value": wish.seller[:40], "choices": "the sellers there are"}
        problems.append(Problem("seller", "unknown_choice", args))
    asked = {"seller": wish.seller, "extension": extension, "action": wish.action}
    return asked, problems


def _title(wish: Wish, names: Sequence[FullName], asked: Mapping[str, Any]) -> str:
    if wish.kind == "hunt":
        return "A search of the hunt"
    if wish.kind == "price":
        return f".{asked['extension']}, {ACTIONS[asked['action']]}: {asked['seller']}"
    if wish.kind == "label" and len({name.label for name in names}) == 1:
        return f"{names[0].shown.partition('.')[0]} under {len(names)} extensions"
    return names[0].shown if len(names) == 1 else f"{names[0].shown} and {len(names) - 1:,} more"


def _check_room(
    owner: User, project: Project, wish: Wish, names: Sequence[FullName], asked: Mapping[str, Any]
) -> None:
    going = own_watches(owner).filter(ended_at=None)
    if going.count() >= MOST_WATCHES:
        message = f"At most {MOST_WATCHES} watches at once. End one first."
        raise ConflictError("too_many", message)
    there = standing_of(owner).names
    if there + len(names) > MOST_NAMES:
        message = (
            f"At most {MOST_NAMES:,} full names are watched for one person: you watch {there:,}, "
            f"and these are {len(names):,} more. Nothing was added."
        )
        raise ConflictError("too_many", message)
    alike = going.filter(project=project, kind=wish.kind)
    if names:
        watched = Watched.objects.filter(
            watch__in=alike.values("pk"), label__in={n.label for n in names}
        )
        known = {FullName(*row) for row in watched.values_list("label", "extension")}
        if known.issuperset(names):
            which = f"{names[0].shown} is" if len(names) == 1 else "All of these are"
            raise ConflictError("watched", f"{which} watched already.")
    elif any(one.asked == asked for one in alike):
        raise ConflictError("watched", "This is watched already.")


@transaction.atomic
def change_watch(
    watch: Watch, *, title: str | None = None, reason: str | None = None,
    ends_on: date | None = None, ended: bool | None = None,
) -> Watch:  # fmt: skip
    """Another title, reason or end; to end it, and to go on with one that was ended. Raises
    RefusedError, and ConflictError where there is no room to go on.
    """
    row = Watch.objects.select_for_update().get(pk=watch.pk)
    owner = row.project.owner
    if title is not None and title.strip():
        row.title = " ".join(title.split())[:LONGEST_TITLE]
    if reason is not None:
        row.reason = " ".join(reason.split())[:200]
    if ends_on is not None:
        if problems := list(_end_problems(ends_on)):
            raise RefusedError(problems)
        row.ends_on = ends_on
    if ended is True and row.ended_at is None:
        _end(row)
    elif ended is False and row.ended_at is not None:
        _go_on(row, owner)
    row.save()
    return _counted(Watch.objects.filter(pk=row.pk)).get()


def _end(row: Watch) -> None:
    row.ended_at = timezone.now()
    row.names.update(next_at=None, remind_at=None, urgent=False)


def _go_on(row: Watch, owner: User) -> None:
    count = row.names.count()
    if standing_of(owner).names + count > MOST_NAMES:
        message = f"At most {MOST_NAMES:,} full names are watched for one person."
        raise ConflictError("too_many", message)
    row.ended_at = None
    if row.ends_on <= timezone.localdate():
        row.ends_on = timezone.localdate() + timedelta(days=USUAL_DAYS)
    row.names.update(next_at=timezone.now())


def remove_watch(watch: Watch) -> None:
    """Take it away, with what it told."""
    watch.delete()


def forget_old() -> int:
    """Once a day: what happened long ago, letters, and counts of look-ups."""
    if not cache.add(FORGOTTEN, 1, 86_400):
        return 0
    now = timezone.now()
    count, _ = Happening.objects.filter(at__lt=now - KEPT_FOR).delete()
    over = (Letter.State.WAITING, Letter.State.SENDING)
    Letter.objects.filter(made_at__lt=now - LETTERS_KEPT).exclude(state__in=over).delete()
    SpentDay.objects.filter(day__lt=(now - LETTERS_KEPT).date()).delete()
    return count


def end_overdue() -> int:
    """End what is to end; how many."""
    over = Watch.objects.filter(ended_at=None, ends_on__lte=timezone.localdate())
    for watch in list(over):
        with transaction.atomic():
            row = Watch.objects.select_for_update().filter(pk=watch.pk).first()
            if row is not None and row.ended_at is None and row.ends_on <= timezone.localdate():
                _end(row)
                row.save(update_fields=["ended_at"])
    return len(over)
