"""Rules and transactions of checks: what is asked, who carries it on, stopping and going on."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Sequence
from datetime import datetime, timedelta
from typing import Literal, cast

from django.conf import settings
from django.db import transaction
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError, NotFoundError
from vinetag.apps.availability.leases import long_ago
from vinetag.apps.availability.models import Check, Lookup
from vinetag.apps.naming.deadlocks import again_when_deadlocked
from vinetag.apps.naming.models import Project
from vinetag.core.checking import Aim, Status, is_fresh
from vinetag.core.names import FullName, parse_label

__all__ = [
    "MOST_NAMES", "Again", "awaited", "finish_if_done", "in_turn", "latest_check", "names_left",
    "resume_check", "start_check", "stop_check", "tell_away",
]  # fmt: skip

Again = Literal["stale", "unsure", "all"]
MOST_NAMES = 100_000
# So many names are asked under the first extension before the next one's turn: about a screenful.
SCREENFUL = 25
BATCH = 500


@again_when_deadlocked
def start_check(
    *,
    project: Project,
    labels: Sequence[str] | None = None,
    names: Sequence[FullName] | None = None,
    extensions: Sequence[str] | None = None,
    again: Again = "stale",
    older_than: timedelta | None = None,
    aim: Aim = "scan",
) -> Check:
    """Ask about names: `names` as they are, or `labels`, in that order, across `extensions` (the
    brief's when left out); the best by rank when neither is given.

    `again`: "stale" asks what is not known or not fresh, "unsure" only what was unsure, "all"
    everything; with `older_than` only what was asked before and longer ago. Raises ConflictError
    while a check is active ("check_active"), when nothing is left to ask ("fresh") or there are too
    many.
    """
    count = len(names or ())
    if names is None:
        chosen = list(extensions or project.brief["extensions"])
        if labels is None:
            top = project.candidates.exclude(label__in=project.dismissed.values("label")).order_by(
                "rank"
            )[: settings.CHECK_TOP_NAMES]
            labels = list(top.values_list("label", flat=True))
        else:
            labels = list(dict.fromkeys(parse_label(label) for label in labels))
        count = len(labels) * len(chosen)
    if count > MOST_NAMES:
        message = f"At most {MOST_NAMES:,} full names at once; these are {count:,}."
        raise ConflictError("too_many", message)
    if names is None:
        names = list(in_turn(labels or (), chosen))
    now = timezone.now()
    with transaction.atomic():
        Project.objects.select_for_update().get(pk=project.pk)
        if project.checks.filter(state__in=Check.ACTIVE).exists():
            raise ConflictError("check_active", "A check is running. Wait for it, or stop it.")
        wanted = _wanted(project, names, again, older_than, aim, now)
        if not wanted:
            raise ConflictError("fresh", _nothing_left(names, again, older_than))
        not_before = now - older_than if older_than else now if again == "all" else None
        return Check.objects.create(
            project=project,
            aim=aim,
            plan=[str(name) for name in wanted],
            total=len(wanted),
            not_before=not_before,
            heartbeat_at=long_ago(),
        )


def in_turn(labels: Sequence[str], extensions: Sequence[str]) -> Iterable[FullName]:
    """The most useful first: a screenful under the first extension, then under the next."""
    for start in range(0, len(labels), SCREENFUL):
        for extension in extensions:
            for label in labels[start : start + SCREENFUL]:
                yield FullName(label, extension)


def _wanted(
    project: Project,
    names: Sequence[FullName],
    again: Again,
    older_than: timedelta | None,
    aim: Aim,
    now: datetime,
) -> list[FullName]:
    if again == "all" and older_than is None:
        return list(dict.fromkeys(names))
    # By the names asked about: a project may have answers to many more.
    known: dict[FullName, tuple[Status, datetime, str]] = {}
    labels = list({name.label for name in names})
    for start in range(0, len(labels), BATCH):
        rows = project.lookups.filter(label__in=labels[start : start + BATCH])
        # What came with a file nobody here has asked: it is as if it were not known.
        for label, extension, status, asked_at, asked_for in rows.filter(
            imported=False
        ).values_list("label", "extension", "status", "asked_at", "aim"):
            if asked_at is not None:
                known[FullName(label, extension)] = (cast(Status, status), asked_at, asked_for)
    asked_only = again == "unsure" or older_than is not None
    if not known:
        return [] if asked_only else list(dict.fromkeys(names))

    def ask(name: FullName) -> bool:
        if name not in known:
            return not asked_only
        status, asked_at, asked_for = known[name]
        if older_than is not None:
            return bool(asked_at <= now - older_than)
        if status in ("unsure", "barred"):
            return status == "unsure" or again != "unsure"
        if again == "unsure":
            return False
        if aim == "buying" and asked_for != "buying":
            return True
        return not is_fresh(status, asked_at, now)

    return [name for name in dict.fromkeys(names) if ask(name)]


def _nothing_left(names: Sequence[FullName], again: Again, older_than: timedelta | None) -> str:
    if not names:
        return "There are no names to check yet. Add a keyword first."
    if again == "unsure":
        return "Nothing is unsure here."
    if older_than is not None:
        return "Nothing here was asked longer ago than that."
    which = "This answer is" if len(names) == 1 else f"All {len(names):,} answers are"
    return f"{which} fresh: open names were asked in the last 15 minutes, taken ones in 3 days."


def tell_away(check_id: int, token: str, extensions: Sequence[str]) -> None:
    """Say which extensions' registries do not answer just now."""
    Check.objects.filter(pk=check_id, lease=token).update(away=list(extensions))


def names_left(check: Check) -> list[str]:
    """The full names of the plan that are not answered, in its order, as texts: a plan may hold
    fifty thousand.
    """
    rows = Lookup.objects.filter(check_run=check).values_list("label", "extension")
    answered = {f"{label}.{extension}" for label, extension in rows}
    return [text for text in check.plan if text not in answered]


def full_name(text: str) -> FullName:
    """A full name of a plan."""
    label, _, extension = text.partition(".")
    return FullName(label, extension)


def awaited(project: Project, among: Collection[FullName]) -> set[FullName]:
    """Those of some full names that an active check is still to answer."""
    check = project.checks.filter(state__in=Check.ACTIVE).first()
    if check is None:
        return set()
    planned = {full_name(text) for text in {str(n) for n in among}.intersection(check.plan)}
    rows = Lookup.objects.filter(check_run=check, label__in={name.label for name in planned})
    return planned - {FullName(*row) for row in rows.values_list("label", "extension")}


def finish_if_done(check_id: int) -> bool:
    """End the check when its whole plan is answered."""
    check = Check.objects.get(pk=check_id)
    if check.is_active and names_left(check):
        return False
    Check.objects.filter(pk=check_id, state__in=Check.ACTIVE).update(
        state=Check.State.DONE, lease="", ended_at=timezone.now(), plan=[], away=[], faults=0
    )
    return True


@again_when_deadlocked
def stop_check(project: Project, check_id: int) -> Check:
    """Stop a check: answers stay, and it can be gone on with. Raises NotFoundError."""
    with transaction.atomic():
        check = project.checks.select_for_update().filter(pk=check_id).first()
        if check is None:
            raise NotFoundError
        if check.is_active:
            check.state, check.ended_at, check.lease = Check.State.STOPPED, timezone.now(), ""
            check.away = []
            check.save(update_fields=["state", "ended_at", "lease", "away"])
    return check


@again_when_deadlocked
def resume_check(project: Project, check_id: int) -> Check:
    """Go on with a stopped check. Raises NotFoundError, or ConflictError when another one is active
    or nothing is left of this.
    """
    with transaction.atomic():
        Project.objects.select_for_update().get(pk=project.pk)
        check = project.checks.select_for_update().filter(pk=check_id).first()
        if check is None:
            raise NotFoundError
        if project.checks.filter(state__in=Check.ACTIVE).exists():
            raise ConflictError("check_active", "A check is running. Wait for it, or stop it.")
        if check.state != Check.State.STOPPED or not check.plan:
            raise ConflictError("nothing_left", "Nothing is left of that check.")
        check.state, check.ended_at, check.faults = Check.State.QUEUED, None, 0
        check.began_at, check.heartbeat_at = timezone.now(), long_ago()
        check.save(update_fields=["state", "ended_at", "began_at", "heartbeat_at", "faults"])
    return check


def latest_check(project: Project) -> Check | None:
    """The project's last check."""
    return project.checks.order_by("-id").first()
