"""People, their projects, and clients that speak JSON."""

from __future__ import annotations

from functools import cache
from typing import Any

import pytest
from rest_framework.test import APIClient

from vinetag.apps.accounts.models import User
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import create_project
from vinetag.core.make import make_names

BRIEF = {
    "name": "Pressroom",
    "keywords": [{"text": "ink", "weight": 5}, {"text": "post", "weight": 3}],
    "extensions": ["com", "net"],
    "limits": {"letters_max": 8},
    # Few recipes: what recipes do is tested in the core, and names are made for every test here.
    "making": {"off": "affix form blend clip respell mirror invent initials acrossdot".split()},
}


@pytest.fixture(autouse=True)
def _database(db: Any) -> None:
    """Every test here may use the database."""


remembered = cache(make_names)


@pytest.fixture(autouse=True)
def _made_once(monkeypatch: pytest.MonkeyPatch) -> None:
    """The same brief gives the same names (the core's tests see to that): they are made once."""
    monkeypatch.setattr("vinetag.apps.naming.services.make_names", remembered)


def client_of(person: User) -> APIClient:
    client = APIClient()
    client.force_login(person)
    return client


@pytest.fixture
def person() -> User:
    return User.objects.create_user("edda", password="quiet-ink-post")


@pytest.fixture
def other() -> User:
    return User.objects.create_user("bram", password="quiet-ink-post")


@pytest.fixture
def api(person: User) -> APIClient:
    return client_of(person)


@pytest.fixture
def project(person: User) -> Project:
    return create_project(owner=person, name="Pressroom", brief=BRIEF)
