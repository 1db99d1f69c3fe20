"""Whom the names in a basket are for, and what stands against them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from vinetag.apps.accounts.models import User
from vinetag.apps.availability.catalogue import catalogue
from vinetag.apps.ordering.contacts import person_of_contact, sets_of
from vinetag.apps.ordering.models import BasketItem, ContactSet
from vinetag.core.extensions import eligible
from vinetag.core.ordering import Person, needed_for

__all__ = ["Owners", "owners_of"]

KINDS = {"person": "person", "organisation": "company"}


@dataclass(frozen=True)
class Owners:
    """A person's sets, opened: by number, and the usual one."""

    sets: Mapping[int, ContactSet]
    people: Mapping[int, Mapping[str, Person]]
    usual: int | None

    @property
    def payer(self) -> Person | None:
        """Who is asked about money in the usual set."""
        return None if self.usual is None else self.people[self.usual]["billing"]

    def set_of(self, item: BasketItem) -> int | None:
        """The number of the set an item is for, None where there is none."""
        return item.contacts_id if item.contacts_id in self.sets else self.usual

    def people_of(self, item: BasketItem) -> Mapping[str, Person]:
        """Whom an item is for, by role; nobody where there is no set."""
        number = self.set_of(item)
        return {} if number is None else self.people[number]

    def says(self, item: BasketItem) -> tuple[list[str], list[str]]:
        """What rules out whoever an item is for, and what the registry may ask of them: by the
        contact that holds it, or by the project's brief while there is none.
        """
        rule = catalogue()[item.extension].eligibility
        holder = self.people_of(item).get("registrant")
        if holder is None:
            owner = item.project.brief.get("owner", {})
            found = eligible(rule, owner.get("country", ""), owner.get("kind", ""))
        else:
            found = eligible(rule, holder.country, KINDS[holder.kind])
        missing = [found.sentence] if found.may == "no" else []
        asks = [found.sentence] if found.may == "ask" else []
        if holder is not None:
            missing += _numbers_missing(item, rule, holder)
        return missing, asks


def _numbers_missing(item: BasketItem, rule: str, holder: Person) -> Sequence[str]:
    wanted = needed_for(rule, holder.kind)
    if not wanted or any(one.code in holder.identifiers for one in wanted):
        return []
    names = " or a ".join(one.name for one in wanted)
    return [f"Under .{item.extension} the owner needs a {names}; {holder.shown} has none here."]


def owners_of(person: User) -> Owners:
    """All of them."""
    rows = sets_of(person)
    opened = {c.pk: person_of_contact(c) for c in {c for r in rows for c in r.by_role().values()}}
    people = {
        row.pk: {role: opened[contact.pk] for role, contact in row.by_role().items()}
        for row in rows
    }
    return Owners({row.pk: row for row in rows}, people, rows[0].pk if rows else None)
