"""What happens while the database, Redis, the queue or a registry is away."""

import threading
from dataclasses import replace
from datetime import timedelta
from typing import Any

import pytest
import redis
from django.core.cache import cache
from django.db import OperationalError
from django.utils import timezone
from rest_framework.test import APIClient

from tests.conftest import Registry
from vinetag.apps.accounts.caching import JsonSerializer
from vinetag.apps.availability import answer_store, checks, leases, runner, tasks
from vinetag.apps.availability.models import Check
from vinetag.apps.naming.models import Project
from vinetag.apps.sharing.services import share_names
from vinetag.apps.shortlists.services import keep

pytestmark = pytest.mark.usefixtures("simulated_world", "delivered")


def test_work_is_tried_again_while_the_database_is_away(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(leases, "close_old_connections", lambda: None)
    monkeypatch.setattr(leases.time, "sleep", lambda _seconds: None)

    class NotInABlock:
        in_atomic_block = False

    monkeypatch.setattr(leases, "connection", NotInABlock)
    tries = []

    def work() -> str:
        tries.append(1)
        if len(tries) < 4:
            raise OperationalError("gone away")
        return "stored"

    assert leases.patiently(work) == "stored"
    assert len(tries) == 4
    monkeypatch.setattr(leases, "PATIENCE", -1.0)
    tries.clear()
    with pytest.raises(OperationalError):
        leases.patiently(work)


def test_answers_are_held_until_they_can_be_stored(
    project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    store, failed = runner.save_answers, []

    def once_away(*args: Any) -> None:
        if args[1] and not failed:
            failed.append(len(args[1]))
            raise OperationalError("gone away")
        store(*args)

    class NotInABlock:
        in_atomic_block = False

    monkeypatch.setattr(runner, "save_answers", once_away)
    monkeypatch.setattr(leases, "connection", NotInABlock)
    monkeypatch.setattr(leases, "close_old_connections", lambda: None)
    check = checks.start_check(project=project, labels=["inkpost", "inkwell"])
    tasks.run_check(check.pk)
    assert failed
    assert project.lookups.count() == 4
    assert Check.objects.get().state == "done"


def test_while_redis_is_away_names_are_not_claimed_and_streams_are_not_told(
    project: Project, settings: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    settings.REDIS_URL = "redis://127.0.0.1:9/0"
    monkeypatch.setattr(answer_store, "_client", None)
    name = [checks.full_name("inkpost.com")]
    assert answer_store.claim_names(name, "somebody") == name
    answer_store.give_up_names(name)
    answer_store._tell(project.pk)


def test_the_asking_thread_waits_for_names_that_are_looked_up(
    project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    known = runner.fresh_answers

    def slowly(*args: Any) -> Any:
        threading.Event().wait(0.3)
        return known(*args)

    monkeypatch.setattr(runner, "fresh_answers", slowly)
    check = checks.start_check(project=project, labels=["inkpost", "inkwell"])
    tasks.run_check(check.pk)
    assert Check.objects.get().state == "done"
    assert project.lookups.count() == 4


def test_a_fault_in_the_asking_thread_is_not_lost(
    project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    def broken(*_args: Any, **_more: Any) -> Any:
        raise RuntimeError("no engine")

    monkeypatch.setattr(runner, "open_engine", broken)
    check = checks.start_check(project=project, labels=["inkpost"])
    with pytest.raises(RuntimeError, match="no engine"):
        tasks.run_check(check.pk)
    # The lease is given up, so that the next try can begin at once.
    assert leases.claim(Check, check.pk)


def test_a_check_that_fails_again_and_again_is_stopped_and_said_to_be(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    def broken(*_args: Any, **_more: Any) -> Any:
        raise RuntimeError("no engine")

    monkeypatch.setattr(runner, "open_engine", broken)
    check = checks.start_check(project=project, labels=["inkpost"])
    for _ in range(leases.MOST_FAULTS):
        with pytest.raises(RuntimeError):
            tasks.run_check(check.pk)
    assert leases.stale(Check) == []
    told = api.get(f"/api/projects/{project.pk}/checks").json()["check_run"]
    assert (told["state"], told["broken"], told["left"]) == ("stopped", True, 2)
    monkeypatch.undo()
    assert not checks.resume_check(project, check.pk).faults


@pytest.mark.parametrize("fault", [ImportError("packaging"), OSError("gone"), KeyError("x")])
def test_whatever_keeps_the_queue_from_being_told_the_check_waits_and_says_so(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch, fault: Exception
) -> None:
    def asleep(_check: int) -> None:
        raise fault

    monkeypatch.setattr(tasks.run_check, "delay", asleep)
    body = {"what": "labels", "labels": ["inkpost"]}
    begun = api.post(f"/api/projects/{project.pk}/checks", body)
    assert (begun.status_code, begun.json()["state"]) == (201, "queued")
    Check.objects.update(began_at=timezone.now() - 2 * leases.TAKEN_WITHIN)
    told = api.get(f"/api/projects/{project.pk}/checks").json()["check_run"]
    assert told["asleep"]
    assert leases.stale(Check) == [begun.json()["id"]]


def test_a_slice_in_which_only_away_registries_are_waited_for_gives_way(
    api: APIClient, project: Project, simulated_world: Registry, settings: Any,
    monkeypatch: pytest.MonkeyPatch,
) -> None:  # fmt: skip
    """Nothing is given up: what waits is told, and is answered once the registry is back."""
    monkeypatch.setattr(runner, "IDLE", 0.3)
    settings.LOOKUP = replace(settings.LOOKUP, timeout=0.3)
    fresh_limits(settings)
    simulated_world.faults(kind="500", registry="alderway")
    labels = [f"qwzxvk{n}" for n in range(30)]
    check = checks.start_check(project=project, labels=labels, extensions=["com"])
    sent: list[int] = []
    monkeypatch.setattr(tasks.run_check, "delay", sent.append)
    tasks.run_check(check.pk)
    told = api.get(f"/api/projects/{project.pk}/checks").json()["check_run"]
    assert (told["state"], told["away"], told["unsure"]) == ("running", ["com"], 0)
    assert (told["asleep"], sent) == (False, [])  # the schedule goes on with it
    simulated_world.faults()
    fresh_limits(settings)
    tasks.run_check(check.pk)
    assert Check.objects.get(pk=check.pk).state == "done"
    assert not project.lookups.filter(status="unsure").exists()
    assert project.lookups.count() == 30


def fresh_limits(settings: Any) -> None:
    redis.Redis.from_url(settings.REDIS_URL).flushdb()


def test_without_redis_people_sign_in_open_names_and_links_and_look_names_up(
    api: APIClient, person: Any, project: Project, settings: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    nowhere = "redis://127.0.0.1:9/0"
    settings.REDIS_URL = nowhere
    settings.CACHES = {"default": {**settings.CACHES["default"], "LOCATION": nowhere}}
    monkeypatch.setattr(answer_store, "_client", None)
    keep(project=project, labels=["inkpost"])
    share = share_names(
        project=project, title="Which?", labels=["inkpost"],
        ends_at=timezone.now() + timedelta(days=3),
    )  # fmt: skip
    guest = APIClient()
    body = {"username": "edda", "password": "quiet-ink-post"}
    asked = {
        "sign in": APIClient().post("/api/session/sign-in", body),
        "link": guest.get(f"/api/shared/{share.token}"),
        "join": guest.post(f"/api/shared/{share.token}/join", {"first_name": "Bo"}),
        "name": api.get(f"/api/projects/{project.pk}/names/inkpost"),
        "extensions": api.get("/api/extensions"),
        "quick": api.post(f"/api/projects/{project.pk}/quick", {"label": "inkpost"}),
        "check": api.post(f"/api/projects/{project.pk}/checks", {"what": "best"}),
    }
    assert {name: a.status_code for name, a in asked.items() if a.status_code >= 400} == {}
    # Limits hold all the same, for each process by itself.
    said = [APIClient().post("/api/session/sign-in", {**body, "password": "no"}) for _ in range(9)]
    assert 429 in {a.status_code for a in said}


def test_a_database_that_is_away_is_said_to_be_for_now(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    def away(*_args: Any, **_more: Any) -> Any:
        raise OperationalError(1040, "Too many connections")

    monkeypatch.setattr("vinetag.apps.naming.services.own_projects", away)
    answer = api.get("/api/projects")
    assert (answer.status_code, answer.json()["code"]) == (503, "unavailable")
    assert int(answer["Retry-After"]) > 0


def test_values_in_the_cache_are_json_and_nothing_is_run() -> None:
    cache.set("kept", {"a": [1, "x", None]}, 5)
    assert cache.get("kept") == {"a": [1, "x", None]}
    with pytest.raises(TypeError):
        cache.set("kept", object(), 5)
    assert JsonSerializer().dumps([1]) == b"[1]"
    with pytest.raises(UnicodeDecodeError):
        JsonSerializer().loads(b"\x80\x04K\x01.")
