"""Sessions with the gateways of the settings."""

from __future__ import annotations

import hashlib
import hmac
import json
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from dataclasses import asdict, replace

from django.conf import settings

from vinetag.core.ordering import Person
from vinetag.lookup.epp import Done, EppGateway, Gateway

__all__ = ["contact_number", "has_gateway", "make_people", "session"]


def has_gateway(seller: str) -> bool:
    """Whether orders can be placed with a seller here."""
    return seller in settings.GATEWAYS


@contextmanager
def session(seller: str, seconds: float | None = None) -> Iterator[tuple[Gateway, Done]]:
    """A session, and what became of signing in; `seconds` for an answer, those of the settings if
    none. It is hung up afterwards.
    """
    where = settings.GATEWAYS[seller]
    gateway = EppGateway(replace(where, answering=seconds) if seconds else where)
    try:
        yield gateway, gateway.open()
    finally:
        gateway.close()


def contact_number(owner_id: int, person: Person, *, withheld: bool) -> str:
    """By which number sellers know somebody (RFC 5733: up to 16 characters): the same person has
    the same one, and nobody can tell from it who it is.
    """
    about = json.dumps([owner_id, withheld, asdict(person)], sort_keys=True)
    key = f"contact numbers {settings.SECRET_KEY}".encode()
    return "VT" + hmac.new(key, about.encode(), hashlib.sha256).hexdigest()[:14].upper()


def make_people(
    gateway: Gateway, owner_id: int, people: Mapping[str, Person], *, withheld: bool
) -> tuple[dict[str, str], Done]:
    """Let the seller know whom a name is for: their numbers by role, and what became of the last
    that was asked; the first that goes wrong ends it.
    """
    numbers: dict[str, str] = {}
    known: dict[str, Done] = {}
    done = Done(code=1000)
    for role, person in people.items():
        number = contact_number(owner_id, person, withheld=withheld)
        if number not in known:
            done = gateway.make_contact(number, person, withheld=withheld)
            if not done.good:
                return numbers, done
            known[number] = done
        numbers[role] = number
    return numbers, done
