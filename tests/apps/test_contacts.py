"""Whom names are for: sealed, told field by field, deleted for good."""

from __future__ import annotations

from typing import Any

import pytest
from rest_framework.test import APIClient

from tests.apps.bought import HOLDER
from tests.apps.conftest import client_of
from vinetag.apps.accounts.models import User
from vinetag.apps.ordering.contacts import save_contact
from vinetag.apps.ordering.models import Contact
from vinetag.apps.ordering.sealing import SealError, opened, sealed


def test_contacts_are_sealed_and_read_by_their_owner_alone(
    api: APIClient, person: User, other: User, settings: Any
) -> None:
    found = api.post("/api/contacts", HOLDER)
    assert found.status_code == 201
    [row] = Contact.objects.all()
    for word in ("Edda", "Quay", "inkpost", "871234567"):
        assert word.encode() not in bytes(row.sealed)
    document = api.get("/api/contacts").json()
    assert document["contacts"][0]["phone"] == "+353871234567"
    assert [(s["name"], s["usual"]) for s in document["sets"]] == [("Edda Birchwell", True)]
    assert client_of(other).get("/api/contacts").json()["contacts"] == []
    # Another key opens nothing, a second one beside it does.
    before = settings.CONTACT_KEYS
    settings.CONTACT_KEYS = ["new"]
    [lost] = api.get("/api/contacts").json()["contacts"]
    assert (lost["readable"], lost["name"]) == (False, "")
    settings.CONTACT_KEYS = ["new", *before]
    assert api.get("/api/contacts").json()["contacts"][0]["readable"]
    assert api.delete(f"/api/contacts/{row.pk}").json()["contacts"] == []
    assert not Contact.objects.exists()
    assert not person.contact_sets.exists()


def test_a_seal_is_bound_to_its_owner_and_cannot_be_changed() -> None:
    seal = sealed(1, {"name": "Edda"})
    assert opened(1, seal) == {"name": "Edda"}
    for owner, what in ((2, seal), (1, seal[:-3] + b"abc"), (1, b"")):
        with pytest.raises(SealError):
            opened(owner, what)


def test_what_is_wrong_with_a_contact_is_told_field_by_field_and_nothing_is_kept(
    api: APIClient,
) -> None:
    found = api.post("/api/contacts", {**HOLDER, "phone": "12", "country": "US"})
    assert found.status_code == 400
    assert {p["path"] for p in found.json()["problems"]} == {"phone", "postcode"}
    assert not Contact.objects.exists()


def test_sets_say_who_holds_a_name_and_who_is_asked(
    api: APIClient, person: User, other: User
) -> None:
    first, second = (save_contact(person, {**HOLDER, "name": n}).pk for n in ("Edda", "Bram"))
    strange = save_contact(other, HOLDER).pk
    made = api.post("/api/contact-sets", {"name": "Club", "registrant": first, "admin": second})
    assert made.status_code == 201
    [usual, club] = made.json()["sets"]
    assert (club["admin"], club["billing"], club["usual"]) == (second, None, False)
    for part in (
        {"registrant": strange},
        {"admin": strange},
        {"name": usual["name"]},
        {"name": ""},
    ):
        assert api.patch(f"/api/contact-sets/{club['id']}", part).status_code == 400, part
    found = api.patch(f"/api/contact-sets/{club['id']}", {"usual": True}).json()["sets"]
    assert [(s["name"], s["usual"]) for s in found] == [("Club", True), ("Edda", False)]
    # What is bought is for sets of one's own.
    refused = api.patch("/api/basket", {"contacts": 10**6})
    assert refused.json()["problems"][0]["path"] == "contacts"
    # Who is asked may go; whoever holds the name is asked then.
    api.delete(f"/api/contacts/{second}")
    assert api.get("/api/contacts").json()["sets"][0]["admin"] is None
    api.delete(f"/api/contact-sets/{club['id']}")
    assert [s["usual"] for s in api.get("/api/contacts").json()["sets"]] == [True]
