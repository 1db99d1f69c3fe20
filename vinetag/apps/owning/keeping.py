"""Names one owns, put on the list, changed, and taken off it."""

from __future__ import annotations

import uuid
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime
from decimal import Decimal
from typing import Any, Final

from django.db import transaction
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError, RefusedError
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.catalogue import catalogue
from vinetag.apps.costs.markets import sellers_for
from vinetag.apps.ordering.models import OrderName
from vinetag.apps.owning.listing import mine
from vinetag.apps.owning.models import OwnedName
from vinetag.apps.owning.reminding import tell
from vinetag.core.checking.pasted import read_name
from vinetag.core.errors import CoreError, Problem
from vinetag.core.names import FullName
from vinetag.core.owning import ReadNames, read_names
from vinetag.core.owning.files import ListedName, tags_of

__all__ = [
    "MOST_OWNED",
    "Brought",
    "add_typed",
    "adopt_ordered",
    "bring_back",
    "bring_table",
    "change_names",
    "own_names",
    "tags_text",
    "take_off",
]  # fmt: skip

MOST_OWNED: Final = 20_000
MOST_TOLD: Final = 50
CHUNK: Final = 2_000
FIELDS: Final = (
    "source", "seller", "seller_name", "registered_at", "expires_at", "renewal", "locked",
    "privacy", "servers", "tags", "ask_at", "left_at", "batch", "priced_on",
)  # fmt: skip


@dataclass(frozen=True)
class Brought:
    """How many names are new, how many were there and were changed; what was wrong, line by line,
    and in how many places.
    """

    new: int
    changed: int
    problems: Sequence[Problem]
    wrong: int


def own_names(person: User, ids: Iterable[int]) -> list[OwnedName]:
    """Those of these that are the person's, in the order of the alphabet."""
    rows = mine(person).filter(pk__in=list(ids))
    return list(rows.order_by("label", "extension").select_related("project"))


def add_typed(person: User, text: str) -> Brought:
    """Put names on the list as they are typed, one a line or with spaces between: what else there
    is to know is read from the registry.
    """
    known = {entry.extension for entry in catalogue()}
    found: dict[FullName, ListedName] = {}
    problems: list[Problem] = []
    for place, typed in enumerate(text.replace(",", " ").split()[: MOST_OWNED + 1], 1):
        try:
            label, extension = read_name(typed)
        except CoreError as error:
            problems += [Problem(f"name {place}", p.code, p.args) for p in error.problems]
            continue
        if extension not in known:
            args = {"value": extension or "?"}
            problems.append(Problem(f"name {place}", "extension_unknown", args))
            continue
        name = FullName(label, extension)
        found[name] = ListedName(name)
    if not found and not problems:
        raise RefusedError([Problem("text", "blank")])
    return _keep(person, list(found.values()), problems, len(problems), OwnedName.Source.TYPED)


def bring_table(person: User, text: str) -> Brought:
    """Put a table of names on the list. What is on it already is changed by what the table says."""
    read: ReadNames = read_names(text, {entry.extension for entry in catalogue()})
    imported = OwnedName.Source.IMPORTED
    return _keep(person, read.names, read.problems, read.wrong, imported)


def _keep(
    person: User, listed: Sequence[ListedName], problems: Sequence[Problem], wrong: int, source: str
) -> Brought:
    codes = {str(row.terms.get("name", "")).lower(): row.code for row in sellers_for(person)}
    now = timezone.now()
    with transaction.atomic():
        User.objects.select_for_update().get(pk=person.pk)
        every = OwnedName.objects.filter(owner=person)
        there = {(row.label, row.extension): row for row in every}
        count = sum(row.left_at is None for row in there.values())
        new, changed = [], []
        for one in listed:
            key = one.name.label, one.name.extension
            row = there.get(key) or OwnedName(owner=person, label=key[0], extension=key[1])
            if row.pk is None or row.left_at is not None:
                row.source = source
                new.append(row)
            else:
                changed.append(row)
            _take_in(row, one, codes)
            row.left_at, row.batch, row.ask_at = None, "", now
        if count + len(new) > MOST_OWNED:
            message = (
                f"At most {MOST_OWNED:,} names are kept: there are {count:,}, and these are "
                f"{len(new):,} more. Nothing was put on the list."
            )
            raise ConflictError("too_many", message)
        OwnedName.objects.bulk_create([r for r in new if r.pk is None], CHUNK)
        again = [row for row in [*new, *changed] if row.pk is not None]
        OwnedName.objects.bulk_create(
            [row for row in again if (row.label, row.extension) in there],
            CHUNK, update_conflicts=True, update_fields=list(FIELDS),
        )  # fmt: skip
    return Brought(len(new), len(changed), list(problems)[:MOST_TOLD], wrong)


def _take_in(row: OwnedName, one: ListedName, codes: Mapping[str, str]) -> None:
    """What a line says; what it does not say stays."""
    if one.seller:
        row.seller_name, row.seller = one.seller, codes.get(one.seller.lower(), "")
        row.priced_on = None
    row.registered_at = _moment(one.registered) or row.registered_at
    row.expires_at = _moment(one.expires) or row.expires_at
    row.renewal = one.renewal
    row.locked = row.locked if one.locked is None else one.locked
    row.privacy = row.privacy if one.privacy is None else one.privacy
    row.servers = list(one.servers) or row.servers
    row.tags = tags_text(one.tags) or row.tags


def _moment(day: date | None) -> datetime | None:
    return None if day is None else datetime(day.year, day.month, day.day, tzinfo=UTC)


def tags_text(tags: Iterable[str]) -> str:
    """As they are stored."""
    listed = tags_of(";".join(tags))
    return f"|{'|'.join(listed)}|" if listed else ""


def adopt_ordered(person: User | None = None) -> int:
    """Names that were registered or renewed here are on the list, and known until when."""
    rows = OrderName.objects.filter(state="registered", owned=None, action="register")
    if person is not None:
        rows = rows.filter(order__owner=person)
    count = 0
    for row in rows.select_related("order")[:CHUNK]:
        defaults = {
            "project": row.project, "source": OwnedName.Source.ORDERED,
            "seller": row.order.seller, "seller_name": row.order.seller_name,
            "registered_at": row.registered_at, "expires_at": row.expires_at,
            # By itself only up to a ceiling, which nobody was asked for yet.
            "renewal": "ask", "privacy": row.privacy, "locked": True,
            "servers": row.servers, "ordered": row, "left_at": None, "batch": "",
            "ask_at": timezone.now(), "priced_on": None,
        }  # fmt: skip
        owned, _ = OwnedName.objects.update_or_create(
            owner=row.order.owner, label=row.label, extension=row.extension, defaults=defaults
        )
        if row.renewal == "itself":
            tell(owned, "ceiling", "ceiling", {})
        count += 1
    return count


def change_names(person: User, ids: Sequence[int], part: Mapping[str, Any]) -> int:
    """Change these at once: `tag` and `untag`, `project` (its number, None for none), `renewal` and
    the `ceiling` with its currency up to which that is by itself. Raises RefusedError.
    """
    rows = own_names(person, ids)
    problems = []
    ceiling = part.get("ceiling")
    if part.get("renewal") == "itself" and ceiling is None:
        problems.append(Problem("ceiling", "blank"))
    if ceiling is not None and not 0 < Decimal(ceiling) < Decimal(10**9):
        problems.append(Problem("ceiling", "not_price", {"value": str(ceiling)[:20]}))
    project = part.get("project")
    if project is not None and not person.projects.filter(pk=project, removed_at=None).exists():
        problems.append(
            Problem("project", "unknown_choice", {"value": project, "choices": "yours"})
        )
    if problems:
        raise RefusedError(problems)
    for row in rows:
        tags = list(filter(None, row.tags.split("|")))
        if part.get("tag"):
            tags += tags_of(part["tag"])
        if part.get("untag"):
            tags = [tag for tag in tags if tag not in tags_of(part["untag"])]
        row.tags = tags_text(tags)
        if "project" in part:
            row.project_id = project
        if "renewal" in part:
            row.renewal = part["renewal"]
            itself = row.renewal == "itself"
            row.ceiling = Decimal(ceiling) if itself and ceiling is not None else None
            row.ceiling_currency = str(part.get("currency", ""))[:3] if itself else ""
    changed = ["tags", "project", "renewal", "ceiling", "ceiling_currency"]
    OwnedName.objects.bulk_update(rows, changed, CHUNK)
    return len(rows)


def take_off(person: User, ids: Sequence[int]) -> str:
    """Off the list, with a way back; the registrations stay as they are."""
    batch = uuid.uuid4().hex
    mine(person).filter(pk__in=list(ids)).update(left_at=timezone.now(), batch=batch)
    return batch


def bring_back(person: User, batch: str) -> int:
    """What was taken off together is on the list again; how many."""
    gone = OwnedName.objects.filter(owner=person, batch=batch, left_at__isnull=False)
    return gone.update(left_at=None, batch="") if batch else 0
