"""What a check does while the database or Redis is away."""

import threading
from typing import Any

import pytest
from django.db import OperationalError

from vinetag.apps.availability import checks, runner, storing, tasks
from vinetag.apps.availability.models import Check
from vinetag.apps.naming.models import Project

pytestmark = pytest.mark.usefixtures("simulated_world", "delivered")


def test_work_is_tried_again_while_the_database_is_away(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(runner, "close_old_connections", lambda: None)
    monkeypatch.setattr(runner.time, "sleep", lambda _seconds: None)

    class NotInABlock:
        in_atomic_block = False

    monkeypatch.setattr(runner, "connection", NotInABlock)
    tries = []

    def work() -> str:
        tries.append(1)
        if len(tries) < 4:
            raise OperationalError("gone away")
        return "stored"

    assert runner.patiently(work) == "stored"
    assert len(tries) == 4
    monkeypatch.setattr(runner, "PATIENCE", -1.0)
    tries.clear()
    with pytest.raises(OperationalError):
        runner.patiently(work)


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
    monkeypatch.setattr(runner, "connection", NotInABlock)
    monkeypatch.setattr(runner, "close_old_connections", lambda: None)
    check = checks.start_check(project=project, labels=["inkpost", "inkwell"])
    tasks.run_check(check.pk)
    assert failed
    assert project.lookups.count() == 4
    assert Check.objects.get().state == "done"


def test_while_redis_is_away_names_are_not_claimed_and_streams_are_not_told(
    project: Project, settings: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    settings.REDIS_URL = "redis://127.0.0.1:9/0"
    monkeypatch.setattr(storing, "_client", None)
    name = [checks.full_name("inkpost.com")]
    assert storing.claim_names(name, "somebody") == name
    storing.give_up_names(name)
    storing._tell(project.pk)


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
    assert checks.claim(check.pk)
