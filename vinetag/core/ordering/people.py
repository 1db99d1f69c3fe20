"""Whom a name is registered for, and how they can be reached."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from typing import Any, Final

import phonenumbers

from vinetag.core.errors import Problem
from vinetag.core.ordering.addresses import country_named
from vinetag.core.ordering.identifiers import IDENTIFIERS

__all__ = ["KINDS", "LONGEST", "ROLES", "Person", "check_person"]

ROLES: Final = ("registrant", "admin", "tech", "billing")
KINDS: Final = ("person", "organisation")
# How long a field may be (the schema of RFC 5733: postalLineType and its like).
LONGEST: Final[Mapping[str, int]] = {
    "name": 255, "organisation": 255, "street": 255, "street2": 255, "city": 255, "region": 255,
    "postcode": 16, "country": 2, "phone": 24, "email": 254,
}  # fmt: skip
EMAIL: Final = re.compile(r"[^@\s]{1,64}@[A-Za-z0-9.-]+\.[A-Za-z]{2,63}")
# Letters that have no plain one inside them by Unicode.
_PLAIN: Final = str.maketrans(
    {
        "ß": "ss", "æ": "ae", "Æ": "Ae", "ø": "o", "Ø": "O", "œ": "oe", "Œ": "Oe", "ł": "l",
        "Ł": "L", "đ": "d", "Đ": "D", "ð": "d", "Ð": "D", "þ": "th", "Þ": "Th", "ı": "i", "’": "'",
    }
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Person:
    """A person or an organisation. `country` is of ISO 3166-1, `phone` of E.164 with its plus sign;
    `identifiers` are numbers by their code (vinetag.core.ordering.identifiers).
    """

    kind: str = "person"
    name: str = ""
    organisation: str = ""
    street: str = ""
    street2: str = ""
    city: str = ""
    region: str = ""
    postcode: str = ""
    country: str = ""
    phone: str = ""
    email: str = ""
    identifiers: Mapping[str, str] = field(default_factory=dict)

    @property
    def shown(self) -> str:
        """Whom it is."""
        return self.organisation if self.kind == "organisation" else self.name

    @property
    def epp_phone(self) -> str:
        """As EPP writes it (RFC 5733, section 2.5): +353.871234567."""
        number = phonenumbers.parse(self.phone)
        return f"+{number.country_code}.{phonenumbers.national_significant_number(number)}"

    def plain(self) -> Person:
        """In the letters registries take of international addresses (RFC 5733: US-ASCII): marks
        are left off. What has no plain letter stays as it is; `check_person` tells of it.
        """
        texts: dict[str, Any] = {
            name: _plain(getattr(self, name))
            for name in LONGEST if name not in ("country", "phone", "email")
        }  # fmt: skip
        return replace(self, **texts)


def check_person(given: Mapping[str, Any]) -> tuple[Person, list[Problem]]:
    """Read what was filled in: the person, neatly written, and every problem at its field."""
    texts = {name: str(given.get(name) or "").strip() for name in LONGEST}
    kind = given.get("kind") if given.get("kind") in KINDS else "person"
    numbers = given.get("identifiers") or {}
    identifiers = {
        code: str(value).strip()
        for code, value in numbers.items()
        if code in IDENTIFIERS and str(value).strip()
    }
    texts["country"] = texts["country"].upper()
    person = Person(kind=str(kind), identifiers=identifiers, **texts)
    problems = list(_problems(person))
    if not any(problem.path == "phone" for problem in problems):
        person = replace(person, phone=_e164(person.phone, person.country))
    return person, problems


def _problems(person: Person) -> Iterator[Problem]:
    needed = ["name", "street", "city", "country", "phone", "email"]
    needed += ["organisation"] if person.kind == "organisation" else []
    for name, limit in LONGEST.items():
        text = getattr(person, name)
        if len(text) > limit:
            yield Problem(name, "too_long", {"limit": limit, "length": len(text)})
        elif not text and name in needed:
            yield Problem(name, "blank")
        elif any(unicodedata.category(letter) == "Cc" for letter in text):
            yield Problem(name, "as_told", {"text": "This has characters that cannot be printed."})
        elif name not in ("country", "phone", "email") and not _plain(text).isascii():
            strange = "".join(dict.fromkeys(c for c in _plain(text) if not c.isascii()))[:12]
            words = f"Registries take the letters a to z here; please write “{strange}” in them."
            yield Problem(name, "as_told", {"text": words})
    yield from _place_problems(person)
    if person.phone and not _e164(person.phone, person.country):
        text = "This is no telephone number. Write it with its country: +353 87 123 4567."
        yield Problem("phone", "as_told", {"text": text})
    if person.email and not EMAIL.fullmatch(person.email):
        yield Problem("email", "as_told", {"text": "This is no address for mail."})
    for code, value in person.identifiers.items():
        wrong = IDENTIFIERS[code].problem(value)
        if wrong:
            words = f"This is no {IDENTIFIERS[code].name}. {wrong}"
            yield Problem(f"identifiers.{code}", "as_told", {"text": words})


def _place_problems(person: Person) -> Iterator[Problem]:
    if not person.country:
        return
    country = country_named(person.country)
    if country is None:
        yield Problem("country", "unknown_choice", {"value": person.country, "choices": "ISO 3166"})
        return
    if country.needs_region and not person.region:
        text = f"Addresses in {country.name} have a {country.region.lower()}."
        yield Problem("region", "as_told", {"text": text})
    if not person.postcode:
        if country.needs_postcode:
            yield Problem("postcode", "blank")
    elif len(person.postcode) <= LONGEST["postcode"] and not country.writes(person.postcode):
        like = f", such as {country.example}" if country.example else ""
        text = f"This is no {country.postcode} of {country.name}{like}."
        yield Problem("postcode", "as_told", {"text": text})


def _e164(text: str, country: str) -> str:
    """A telephone number as ITU-T E.164 writes it, "" where it is none. One without its country's
    code is taken for one of `country`.
    """
    try:
        number = phonenumbers.parse(text, country or None)
    except phonenumbers.NumberParseException:
        return ""
    if not phonenumbers.is_valid_number(number):
        return ""
    return phonenumbers.format_number(number, phonenumbers.PhoneNumberFormat.E164)


def _plain(text: str) -> str:
    apart = unicodedata.normalize("NFKD", text.translate(_PLAIN))
    return "".join(letter for letter in apart if not unicodedata.combining(letter))
