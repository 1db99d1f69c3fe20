"""People, their projects, and clients that speak JSON."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import closing
from dataclasses import replace
from functools import cache
from pathlib import Path
from typing import Any

import pytest
from asgiref.sync import sync_to_async
from django.core.cache import cache as django_cache
from django.utils import timezone
from redis import Redis
from rest_framework.test import APIClient

from tests.conftest import Registry
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.api import streaming
from vinetag.apps.availability.tasks import run_check
from vinetag.apps.bench.filing import work_on
from vinetag.apps.bench.tasks import do_filing
from vinetag.apps.costs.models import SellerRow
from vinetag.apps.costs.sellers import new_version
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import create_project
from vinetag.apps.ordering import errands, paying
from vinetag.apps.owning import renewing
from vinetag.apps.watching.models import Watch
from vinetag.apps.watching.watches import Wish, start_watch
from vinetag.core.make import make_names
from vinetag.lookup import LookupSettings, RetryPolicy
from vinetag.lookup.epp import gateways_from_env
from vinetag.lookup.hosting import hosting_from_env
from vinetag.lookup.till import till_from_env

STEP = 300
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


@pytest.fixture(autouse=True)
def _lake(settings: Any, tmp_path: Path) -> None:
    """Large tables of a test are its own."""
    settings.LAKE = str(tmp_path / "lake")


remembered = cache(make_names)


@pytest.fixture(autouse=True)
def _made_once(monkeypatch: pytest.MonkeyPatch, settings: Any) -> None:
    """The same brief gives the same names (the core's tests see to that): they are made once, and
    lists are short, as storing them is most of what a test here costs.
    """
    monkeypatch.setattr("vinetag.apps.naming.services.make_names", remembered)
    settings.NAMES_A_STEP = STEP


@pytest.fixture(autouse=True)
def _in_this_thread(monkeypatch: pytest.MonkeyPatch) -> None:
    """Streams and the worker for files see this test's transaction."""

    async def here(work: Callable[[], Any]) -> Any:
        return await sync_to_async(work)()

    monkeypatch.setattr(streaming, "in_thread", here)
    monkeypatch.setattr(do_filing, "delay", work_on)


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


@pytest.fixture
def administrator(person: User) -> User:
    person.is_staff = True
    person.save()
    return person


@pytest.fixture
def simulated_world(registry: Registry, settings: Any) -> Registry:
    """Look-ups ask the stand-ins."""
    asked = LookupSettings.from_env({**registry.environment, "VINETAG_RDAP_TIMEOUT": "1"})
    settings.LOOKUP = replace(asked, redis=settings.REDIS_URL)
    django_cache.clear()
    # What earlier tests taught of these hosts is none of this one's business.
    with closing(Redis.from_url(settings.REDIS_URL)) as gates:
        for key in gates.scan_iter("vinetag:gate:*"):
            gates.delete(key)
    return registry


@pytest.fixture
def delivered(monkeypatch: pytest.MonkeyPatch) -> list[int]:
    """The checks sent to the queue, in place of sending them."""
    sent: list[int] = []
    monkeypatch.setattr(run_check, "delay", sent.append)
    return sent


@pytest.fixture
def simulated_sellers(registry: Registry, settings: Any) -> Iterator[Registry]:
    """The sellers of the simulation, on the day the clock says."""
    retry = RetryPolicy(attempts=2, first_wait=0.01, patience=1)
    address = f"{registry.origin}/sellers.json"
    django_cache.clear()
    settings.LOOKUP = LookupSettings(sellers=address, timeout=2.0, retry=retry)
    yield registry
    registry.faults()
    registry.clock(0)


@pytest.fixture
def selling(simulated_world: Registry, settings: Any, monkeypatch: pytest.MonkeyPatch) -> None:
    """Two sellers with lists, one of which takes orders; credit is anybody's."""
    settings.GATEWAYS = gateways_from_env(
        {**simulated_world.selling, "VINETAG_GATEWAY_TIMEOUT": "3"}
    )
    settings.TILL = till_from_env(simulated_world.selling)
    settings.HOSTING = hosting_from_env(simulated_world.selling)
    monkeypatch.setattr(errands, "wake", lambda _send: None)
    for module in (paying, renewing):
        monkeypatch.setattr(module, "can_use_credit", lambda _person: True)
    django_cache.clear()
    row = SellerRow.objects.create(
        code="lantern", asked_at=timezone.now(),
        terms={"code": "lantern", "name": "Lantern Names", "country": "IE", "currency": "EUR"},
    )  # fmt: skip
    prices = "extension,action,price\ncom,register,12\ncom,renew,20.51\ncom,move,11\n"
    new_version(row, prices, timezone.localdate())
    cheap = SellerRow.objects.create(
        code="corner", asked_at=timezone.now(),
        terms={"code": "corner", "name": "Corner Shop", "country": "IE", "currency": "EUR"},
    )  # fmt: skip
    new_version(cheap, prices.replace("20.51", "9.00"), timezone.localdate())


@pytest.fixture
def watched(project: Project) -> Watch:
    return start_watch(project, Wish("name", names=["inkpost.com"], reason="the <favourite>"))
