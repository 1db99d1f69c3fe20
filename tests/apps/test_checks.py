"""Checks: what is asked, who carries it on, and that nothing is lost."""

import threading
import time
from datetime import timedelta
from typing import Any

import pytest
from django.utils import timezone
from kombu.exceptions import OperationalError
from rest_framework.test import APIClient

from tests.conftest import Registry
from vinetag.apps.accounts.errors import ConflictError
from vinetag.apps.availability import services, tasks
from vinetag.apps.availability.models import Check, Lookup
from vinetag.apps.naming.models import Project
from vinetag.core.names import FullName
from vinetag.lookup import Answer


@pytest.fixture(autouse=True)
def _asking_the_simulated_world(registry: Registry, settings: Any) -> None:
    settings.RDAP_BOOTSTRAP_URL = registry.bootstrap
    settings.RDAP_AT_ONCE_A_HOST = 20
    settings.RDAP_TIMEOUT_SECONDS = 1.0


@pytest.fixture
def delivered(monkeypatch: pytest.MonkeyPatch) -> list[int]:
    """The checks sent to the queue, in place of sending them."""
    sent: list[int] = []
    monkeypatch.setattr(tasks.run_check, "delay", sent.append)
    return sent


def of(check: Check) -> Check:
    return Check.objects.get(pk=check.pk)


def statuses(project: Project) -> dict[str, int]:
    found: dict[str, int] = {}
    for status in project.lookups.values_list("status", flat=True):
        found[status] = found.get(status, 0) + 1
    return found


def test_the_best_names_are_asked_across_the_extensions(
    project: Project, registry: Registry, delivered: list[int]
) -> None:
    before = registry.served
    check = services.start_check(project=project)
    assert check.total == 400
    tasks.run_check(check.pk)
    found = statuses(project)
    assert set(found) <= {"open", "taken"}
    assert sum(found.values()) == 400
    assert registry.served - before == 400
    assert of(check).state == "done"
    assert delivered == []
    best = set(project.candidates.filter(rank__lte=200).values_list("label", flat=True))
    assert set(project.lookups.values_list("label", flat=True)) == best
    taken = project.lookups.filter(status="taken").first()
    assert taken is not None
    assert taken.registered < timezone.now() < taken.expires
    assert taken.source.startswith(registry.origin)


def test_fresh_answers_are_not_asked_again_unless_told(
    project: Project, registry: Registry, delivered: list[int]
) -> None:
    tasks.run_check(services.start_check(project=project, labels=["inkpost", "inkwell"]).pk)
    with pytest.raises(ConflictError, match="within the last"):
        services.start_check(project=project, labels=["inkpost"])
    assert services.start_check(project=project, labels=["inkpost"], again=True).total == 2


def test_only_one_check_at_a_time(project: Project) -> None:
    services.start_check(project=project, labels=["inkpost"])
    with pytest.raises(ConflictError, match="running"):
        services.start_check(project=project, labels=["inkwell"])


def test_failures_are_unsure_with_their_reason(
    api: APIClient, project: Project, registry: Registry, delivered: list[int]
) -> None:
    registry.faults(kind="500", extension="com")
    tasks.run_check(services.start_check(project=project, labels=["inkpost"]).pk)
    cells = {row.extension: row for row in project.lookups.all()}
    assert (cells["com"].status, cells["com"].trouble) == ("unsure", "server_error")
    assert cells["net"].status in ("open", "taken")
    watched = api.get(f"/api/projects/{project.pk}/checks").json()
    assert watched["check_run"]["unsure"] == 1
    registry.faults()
    check = services.start_check(project=project, labels=["inkpost"])
    assert check.total == 1  # only what stayed unsure


def test_a_registry_that_is_switched_off_leaves_everything_unsure(
    project: Project, settings: Any, delivered: list[int]
) -> None:
    settings.RDAP_BOOTSTRAP_URL = "http://127.0.0.1:9/dns.json"
    check = services.start_check(project=project, labels=["inkpost"])
    tasks.run_check(check.pk)
    assert statuses(project) == {"unsure": 2}
    assert of(check).state == "done"


def test_a_stopped_check_keeps_its_answers_and_the_rest_is_as_before(
    api: APIClient, project: Project, delivered: list[int]
) -> None:
    tasks.run_check(services.start_check(project=project, labels=["inkpost"]).pk)
    before = list(project.lookups.order_by("id").values("extension", "status", "asked_at"))
    check = services.start_check(project=project, labels=["inkpost", "inkwell"], again=True)
    answer = Answer(FullName("inkwell", "com"), "open", timezone.now())
    services.save_answers(check.pk, [answer])
    stopped = api.post(f"/api/projects/{project.pk}/checks/{check.pk}/stop").json()
    assert (stopped["state"], stopped["done"], stopped["total"]) == ("stopped", 1, 1)
    assert project.lookups.get(label="inkwell").status == "open"
    rows = project.lookups.filter(label="inkpost").order_by("id")
    assert list(rows.values("extension", "status", "asked_at")) == before
    assert not project.lookups.filter(status="waiting").exists()
    tasks.run_check(check.pk)
    assert of(check).state == "stopped"


def test_what_a_dead_worker_left_is_taken_up_by_another(
    project: Project, registry: Registry, delivered: list[int]
) -> None:
    labels = ["inkpost", "inkwell", "inkclub"]
    check = services.start_check(project=project, labels=labels)
    token = services.claim(check.pk)
    assert token
    answers = [Answer(FullName("inkpost", e), "taken", timezone.now()) for e in ("com", "net")]
    services.save_answers(check.pk, answers)
    # The worker dies here. While its heartbeat is fresh nobody else takes the check.
    assert services.claim(check.pk) is None
    tasks.resume_checks()
    assert delivered == []
    Check.objects.filter(pk=check.pk).update(heartbeat_at=timezone.now() - timedelta(seconds=9))
    tasks.resume_checks()
    assert delivered == [check.pk]
    before = registry.served
    tasks.run_check(check.pk)
    assert registry.served - before == 4
    assert project.lookups.get(label="inkpost", extension="com").status == "taken"
    assert of(check).state == "done"
    assert not services.beat(check.pk, token)


def test_a_long_check_is_passed_on_in_slices(
    project: Project, delivered: list[int], monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("vinetag.apps.availability.runner.SLICE_NAMES", 3)
    check = services.start_check(project=project, labels=["inkpost", "inkwell"])
    for _ in range(2):
        tasks.run_check(check.pk)
    assert delivered == [check.pk]
    assert of(check).state == "done"


@pytest.mark.django_db(transaction=True)
def test_stopping_ends_a_running_slice(registry: Registry, delivered: list[int]) -> None:
    from tests.apps.conftest import BRIEF
    from vinetag.apps.accounts.models import User
    from vinetag.apps.naming.services import create_project

    owner = User.objects.create_user("clio")
    project = create_project(owner=owner, name="Slow", brief=BRIEF)
    registry.faults(kind="slow", seconds=0.5)
    check = services.start_check(project=project)

    def stop_later() -> None:
        from django.db import connection

        time.sleep(1.2)
        services.stop_check(project, check.pk)
        connection.close()

    stopper = threading.Thread(target=stop_later)
    stopper.start()
    began = time.monotonic()
    tasks.run_check(check.pk)
    seconds = time.monotonic() - began
    stopper.join()
    assert of(check).state == "stopped"
    assert seconds < 6
    assert 0 < project.lookups.count() < 400
    assert not project.lookups.filter(status="waiting").exists()


def test_a_missing_queue_only_delays_the_check(project: Project) -> None:
    def send() -> None:
        raise OperationalError("no queue")

    check = services.start_check(project=project, labels=["inkpost"])
    services.wake(send)
    assert services.stale_checks() == [check.pk]


def test_watching_tells_what_is_new(api: APIClient, project: Project, delivered: list[int]) -> None:
    address = f"/api/projects/{project.pk}/checks"
    assert api.get(address).json()["check_run"] is None
    started = api.post(address, {"labels": ["inkpost"]})
    assert started.status_code == 201
    assert delivered == [started.json()["id"]]
    since = api.get(address).json()["now"]
    tasks.run_check(started.json()["id"])
    seen = api.get(address, {"since": since}).json()
    assert {(c["extension"], c["pending"]) for c in seen["cells"]} == {
        ("com", False),
        ("net", False),
    }
    later = (timezone.now() + timedelta(seconds=30)).isoformat()
    assert api.get(address, {"since": later}).json()["cells"] == []
    assert api.get(address, {"since": "yesterday"}).status_code == 400


@pytest.mark.parametrize("labels", [["ink post"], [""], ["x" * 64]])
def test_labels_that_are_none(api: APIClient, project: Project, labels: list[str]) -> None:
    response = api.post(f"/api/projects/{project.pk}/checks", {"labels": labels})
    assert response.status_code == 400


def test_nothing_to_check_is_said(api: APIClient, project: Project) -> None:
    project.candidates.all().delete()
    response = api.post(f"/api/projects/{project.pk}/checks", {})
    assert response.status_code == 409
    assert "no names to check" in response.json()["message"]


def test_an_answer_stored_twice_is_one(project: Project) -> None:
    answer = Answer(FullName("inkpost", "com"), "open", timezone.now())
    check = services.start_check(project=project, labels=["inkpost"])
    services.save_answers(check.pk, [answer])
    services.save_answers(check.pk, [answer])
    project.lookups.exclude(extension="com").delete()
    assert Lookup.objects.filter(project=project).count() == 1
