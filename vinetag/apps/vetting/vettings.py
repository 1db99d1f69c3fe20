"""Rules and transactions of vettings: what is to be found out, stopping, going on, accepting."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Final, Literal

from django.db import transaction
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError, NotFoundError, RefusedError
from vinetag.apps.availability.leases import long_ago
from vinetag.apps.naming.deadlocks import again_when_deadlocked
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import brief_of
from vinetag.apps.shortlists.services import entries
from vinetag.apps.vetting.models import Acceptance, FindingRow, Vetting
from vinetag.apps.vetting.steps import Desk
from vinetag.core.checking.pasted import meant_name
from vinetag.core.concepts import FINDING_KINDS, FINDING_NAMES
from vinetag.core.errors import CoreError, Problem
from vinetag.core.names import FullName

__all__ = [
    "Again", "Progress", "accept", "finish_if_done", "is_old", "latest", "progress", "resume",
    "start_vetting", "steps_left", "stop", "vetted_names",
]  # fmt: skip

Again = Literal["old", "all"]
MOST_NAMES: Final = 60
# What takes no asking comes first, so that there is something to read at once; what is built on
# another comes after it.
ORDER: Final = ("said", "elsewhere", "marks", "handles", "prior_use", "mistyped", "protection")
MOST_NOTE: Final = 500


@dataclass(frozen=True, slots=True)
class Progress:
    """How far a vetting is; `left` can be gone on with when it was stopped."""

    vetting: Vetting
    done: int
    left: int


def vetted_names(project: Project) -> list[FullName]:
    """The names of the shortlist in its order, under their extension or the brief's first."""
    brief = brief_of(project)
    return [
        FullName(
            entry.label, entry.extension or meant_name(entry.label, brief.extensions).extension
        )
        for entry in entries(project)
    ]


def is_old(row: FindingRow, now: datetime, desk: Desk) -> bool:
    """Whether it is to be found out again: after its time, or where the brief speaks of other
    classes or markets by now.
    """
    if row.more.get("basis", "") != desk.basis(row.kind):
        return True
    lasts = timedelta(days=FINDING_KINDS[row.kind].lasts)  # type: ignore[index] # one of them
    return row.imported or row.found_at < now - lasts


@again_when_deadlocked
def start_vetting(
    *,
    project: Project,
    names: Sequence[str] | None = None,
    kinds: Sequence[str] | None = None,
    again: Again = "old",
) -> Vetting:
    """Vet names (those of the shortlist when left out) for kinds of finding (all of them). "old"
    finds out what is not known, is old, or could not be found out; "all" everything. Raises
    RefusedError for what is no name; ConflictError while a vetting is active ("vetting_active"),
    where there is no name ("no_names") or nothing is left ("fresh").
    """
    chosen, desk = _chosen(project, names), Desk(project)
    if not chosen:
        raise ConflictError("no_names", "There is nothing to vet yet. Keep a name first.")
    if names is not None and len(chosen) > MOST_NAMES:
        message = f"At most {MOST_NAMES} names at once; these are {len(chosen)}."
        raise ConflictError("too_many", message)
    wanted = [kind for kind in ORDER if kinds is None or kind in kinds]
    with transaction.atomic():
        Project.objects.select_for_update().get(pk=project.pk)
        if project.vettings.filter(state__in=Vetting.ACTIVE).exists():
            message = "Names are being vetted. Wait for it, or stop it."
            raise ConflictError("vetting_active", message)
        plan = list(_plan(desk, chosen, wanted, again))
        if not plan:
            raise ConflictError("fresh", "All of it was found out lately.")
        return Vetting.objects.create(
            project=project, plan=plan, total=len(plan), heartbeat_at=long_ago()
        )


def _chosen(project: Project, names: Sequence[str] | None) -> list[FullName]:
    if names is None:
        return vetted_names(project)
    brief, found, problems = brief_of(project), [], []
    for i, typed in enumerate(names):
        try:
            found.append(meant_name(typed, brief.extensions))
        except CoreError as error:
            problems += [Problem(f"names.{i}", p.code, p.args) for p in error.problems]
    if problems:
        raise RefusedError(problems)
    # What is found is kept by label: of one typed with several extensions the first is meant.
    return list({name.label: name for name in reversed(found)}.values())[::-1]


def _plan(
    desk: Desk, names: Sequence[FullName], kinds: Sequence[str], again: Again
) -> Iterable[str]:
    """Kind by kind, so that every name has something soon; of a long shortlist the first names of
    which something is left.
    """
    now = timezone.now()
    rows = desk.project.findings.filter(label__in=[name.label for name in names])
    known = {(row.label, row.kind): row for row in rows.defer("findings")}

    def left(name: FullName, kind: str) -> bool:
        row = known.get((name.label, kind))
        if again == "all" or row is None or row.extension != name.extension:
            return True
        return row.weight == "unknown" or is_old(row, now, desk)

    wanted = [name for name in names if any(left(name, kind) for kind in kinds)][:MOST_NAMES]
    for kind in kinds:
        for name in wanted:
            if left(name, kind):
                yield f"{kind} {name}"


def steps_left(vetting: Vetting) -> list[tuple[str, FullName]]:
    """Steps of the plan that are not done, in its order."""
    done = {(row.kind, row.label) for row in vetting.found.only("kind", "label")}
    left = []
    for step in vetting.plan:
        kind, _, text = step.partition(" ")
        label, _, extension = text.partition(".")
        if (kind, label) not in done:
            left.append((kind, FullName(label, extension)))
    return left


def progress(vetting: Vetting) -> Progress:
    """How far it is."""
    if vetting.state == Vetting.State.DONE:
        return Progress(vetting, vetting.total, 0)
    left = len(steps_left(vetting))
    return Progress(vetting, vetting.total - left, left)


def latest(project: Project) -> Vetting | None:
    """The project's last."""
    return project.vettings.order_by("-id").first()


def finish_if_done(vetting_id: int) -> bool:
    """End it when its whole plan is done."""
    vetting = Vetting.objects.get(pk=vetting_id)
    if vetting.is_active and steps_left(vetting):
        return False
    Vetting.objects.filter(pk=vetting_id, state__in=Vetting.ACTIVE).update(
        state=Vetting.State.DONE, lease="", ended_at=timezone.now(), plan=[], faults=0
    )
    return True


@again_when_deadlocked
def stop(project: Project, vetting_id: int) -> Vetting:
    """What was found stays, and it can be gone on with. Raises NotFoundError."""
    with transaction.atomic():
        vetting = project.vettings.select_for_update().filter(pk=vetting_id).first()
        if vetting is None:
            raise NotFoundError
        if vetting.is_active:
            vetting.state, vetting.ended_at, vetting.lease = (
                Vetting.State.STOPPED, timezone.now(), ""
            )  # fmt: skip
            vetting.save(update_fields=["state", "ended_at", "lease"])
    return vetting


@again_when_deadlocked
def resume(project: Project, vetting_id: int) -> Vetting:
    """Go on with one that was stopped. Raises NotFoundError, or ConflictError when another one is
    active or nothing is left of this.
    """
    with transaction.atomic():
        Project.objects.select_for_update().get(pk=project.pk)
        vetting = project.vettings.select_for_update().filter(pk=vetting_id).first()
        if vetting is None:
            raise NotFoundError
        if project.vettings.filter(state__in=Vetting.ACTIVE).exists():
            message = "Names are being vetted. Wait for it, or stop it."
            raise ConflictError("vetting_active", message)
        if vetting.state != Vetting.State.STOPPED or not steps_left(vetting):
            raise ConflictError("nothing_left", "Nothing is left of that.")
        vetting.state, vetting.ended_at, vetting.faults = Vetting.State.QUEUED, None, 0
        vetting.began_at, vetting.heartbeat_at = timezone.now(), long_ago()
        vetting.save(update_fields=["state", "ended_at", "began_at", "heartbeat_at", "faults"])
    return vetting


def accept(
    *, project: Project, label: str, kind: str, accepted: bool, note: str = "", sign: str = ""
) -> None:
    """Mark what was found of a name as seen and accepted, or take that back. Raises NotFoundError
    where nothing was found, RefusedError for a note that is too long, ConflictError
    ("finding_changed") where it says something else by now than what had the `sign` that was seen.
    """
    if kind not in FINDING_NAMES:
        raise NotFoundError
    if not accepted:
        Acceptance.objects.filter(project=project, label=label, kind=kind).delete()
        return
    row = project.findings.filter(label=label, kind=kind).first()
    if row is None:
        raise NotFoundError
    if sign and sign != row.sign:
        message = "It was found out again meanwhile, and says something else. Look at it once more."
        raise ConflictError("finding_changed", message)
    if len(note) > MOST_NOTE:
        args = {"limit": MOST_NOTE, "length": len(note)}
        raise RefusedError([Problem("note", "too_long", args)])
    Acceptance.objects.update_or_create(
        project=project,
        label=label,
        kind=kind,
        defaults={"sign": row.sign, "note": note.strip(), "accepted_at": timezone.now()},
    )
