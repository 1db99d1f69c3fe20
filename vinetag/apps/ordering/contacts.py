"""Rules of contacts, and of the sets names are registered for."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import asdict
from typing import Any, Final

from django.db import transaction

from vinetag.apps.accounts.errors import ConflictError, NotFoundError, RefusedError
from vinetag.apps.accounts.models import User
from vinetag.apps.ordering.models import BasketItem, Contact, ContactSet
from vinetag.apps.ordering.sealing import opened, sealed
from vinetag.core.errors import Problem
from vinetag.core.ordering import ROLES, Person, check_person

__all__ = [
    "contacts_of", "drop_contact", "drop_set", "own_contact", "own_set", "person_of_contact",
    "save_contact", "save_set", "sets_of", "usual_set",
]  # fmt: skip

MOST_CONTACTS: Final = 50
LONGEST_NAME: Final = 60


def contacts_of(person: User) -> Sequence[Contact]:
    """A person's, the oldest first."""
    return list(person.contacts.order_by("pk"))


def own_contact(person: User, contact_id: int) -> Contact:
    """One of them. Raises NotFoundError, also for someone else's."""
    found = person.contacts.filter(pk=contact_id).first()
    if found is None:
        raise NotFoundError
    return found


def person_of_contact(contact: Contact) -> Person:
    """Who it is. Raises SealError."""
    return Person(**opened(contact.owner_id, contact.sealed))


def save_contact(person: User, given: Mapping[str, Any], contact: Contact | None = None) -> Contact:
    """Keep somebody, new or changed; the first one is in a set of their own, which is the usual.
    Raises RefusedError with every problem at its field, and ConflictError where it is too much.
    """
    found, problems = check_person(given)
    if problems:
        raise RefusedError(problems)
    with transaction.atomic():
        User.objects.select_for_update().get(pk=person.pk)
        if contact is None and person.contacts.count() >= MOST_CONTACTS:
            raise ConflictError("too_many", f"At most {MOST_CONTACTS} contacts are kept.")
        row = contact or Contact(owner=person)
        row.sealed = sealed(person.pk, asdict(found))
        row.save()
        if not person.contact_sets.exists():
            ContactSet.objects.create(
                owner=person, name=found.shown[:LONGEST_NAME] or "Mine", registrant=row, usual=True
            )
        _look_again(person)
    return row


def _look_again(person: User) -> None:
    """Whether sellers accept whom names are for is to be found out anew."""
    mine = BasketItem.objects.filter(project__owner=person, removed_at=None)
    mine.exclude(seen={}).update(seen={})


def drop_contact(contact: Contact) -> None:
    """Delete somebody, and the sets in which they hold names: nothing of it is kept here."""
    with transaction.atomic():
        contact.delete()
        _keep_one_usual(contact.owner)
        _look_again(contact.owner)


def sets_of(person: User) -> Sequence[ContactSet]:
    """A person's sets, the usual one first."""
    rows = person.contact_sets.select_related(*ROLES)
    return list(rows.order_by("-usual", "name"))


def own_set(person: User, set_id: int) -> ContactSet:
    """One of them. Raises NotFoundError, also for someone else's."""
    found = person.contact_sets.select_related(*ROLES).filter(pk=set_id).first()
    if found is None:
        raise NotFoundError
    return found


def usual_set(person: User) -> ContactSet | None:
    """The set that is taken where none is chosen, None where there is none."""
    return next(iter(sets_of(person)), None)


def save_set(
    person: User, part: Mapping[str, Any], kept: ContactSet | None = None
) -> ContactSet:  # fmt: skip
    """Keep a set: `name`, `usual`, and contacts by role, None for whoever holds the name. Raises
    RefusedError.
    """
    problems: list[Problem] = []
    row = kept or ContactSet(owner=person)
    if "name" in part:
        row.name = str(part["name"]).strip()[:LONGEST_NAME]
    if not row.name:
        problems.append(Problem("name", "blank"))
    if person.contact_sets.filter(name=row.name).exclude(pk=row.pk).exists():
        problems.append(Problem("name", "repeated", {"value": row.name}))
    for role in ROLES:
        if role not in part:
            continue
        number = part[role]
        found = None if number is None else person.contacts.filter(pk=number).first()
        if found is None and (number is not None or role == "registrant"):
            problems.append(Problem(role, "blank"))
        setattr(row, role, found)
    if row.registrant_id is None and not any(p.path == "registrant" for p in problems):
        problems.append(Problem("registrant", "blank"))
    if problems:
        raise RefusedError(problems)
    with transaction.atomic():
        if part.get("usual"):
            person.contact_sets.update(usual=False)
            row.usual = True
        row.save()
        _keep_one_usual(person)
        _look_again(person)
    return row


def drop_set(kept: ContactSet) -> None:
    """Delete a set; its contacts stay."""
    with transaction.atomic():
        kept.delete()
        _keep_one_usual(kept.owner)


def _keep_one_usual(person: User) -> None:
    rows = person.contact_sets.order_by("pk")
    first = rows.first()
    if first is not None and not rows.filter(usual=True).exists():
        rows.filter(pk=first.pk).update(usual=True)
