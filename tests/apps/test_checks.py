"""Checks: what is asked, who carries it on, and that nothing is lost."""

import threading
import time
from datetime import timedelta
from typing import Any

import pytest
from django.db import OperationalError as BrokenOff
from django.utils import timezone
from kombu.exceptions import OperationalError
from rest_framework.test import APIClient

from tests.apps.conftest import BRIEF
from tests.conftest import Registry
from vinetag.apps.accounts.errors import ConflictError
from vinetag.apps.accounts.models import User
from vinetag.apps.accounts.waking import wake
from vinetag.apps.availability import checks, leases, tasks
from vinetag.apps.availability.answer_store import claim_names, give_up_names, save_answers
from vinetag.apps.availability.models import Check, LastAnswer, Lookup
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import create_project
from vinetag.core.names import FullName
from vinetag.lookup import Answer, Engine, LookupSettings

pytestmark = pytest.mark.usefixtures("simulated_world")


ASKED = (("com", "taken"), ("net", "unsure"))


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
    check = checks.start_check(project=project)
    assert check.total == 400
    tasks.run_check(check.pk)
    found = statuses(project)
    assert set(found) <= {"open", "taken", "reserved", "dropping"}
    assert sum(found.values()) == 400
    # Name servers told of most of the taken ones; the registries were asked of the rest, once.
    assert 400 - found["taken"] <= registry.served - before < 400
    assert of(check).state == "done"
    assert delivered == []
    best = set(project.candidates.filter(rank__lte=200).values_list("label", flat=True))
    assert set(project.lookups.values_list("label", flat=True)) == best
    taken = project.lookups.filter(status="taken").first()
    assert taken is not None
    assert taken.evidence[0]["source"] == "dns"
    numbers = list(project.lookups.order_by("number").values_list("number", flat=True))
    assert numbers == list(range(1, 401))


def test_fresh_answers_are_not_asked_again_unless_told(
    project: Project, registry: Registry, delivered: list[int]
) -> None:
    tasks.run_check(checks.start_check(project=project, labels=["inkpost", "inkwell"]).pk)
    with pytest.raises(ConflictError, match="fresh"):
        checks.start_check(project=project, labels=["inkpost"])
    assert checks.start_check(project=project, labels=["inkpost"], again="all").total == 2


def test_older_answers_are_asked_again_and_unsure_ones_alone(
    project: Project, delivered: list[int]
) -> None:
    moment = timezone.now() - timedelta(minutes=30)
    answers = [Answer(FullName("inkpost", e), s, moment) for e, s in ASKED]
    save_answers(project.pk, answers)
    with pytest.raises(ConflictError, match="longer ago"):
        checks.start_check(project=project, labels=["inkpost"], older_than=timedelta(hours=1))
    older = checks.start_check(project=project, labels=["inkpost"], older_than=timedelta(minutes=9))
    assert older.total == 2
    minutes = timedelta(minutes=9)
    checks.stop_check(project, older.pk)
    with pytest.raises(ConflictError, match="longer ago"):
        checks.start_check(project=project, labels=["inkwell"], older_than=minutes)
    unsure = checks.start_check(project=project, labels=["inkpost"], again="unsure")
    assert unsure.plan == ["inkpost.net"]


def test_only_one_check_at_a_time(project: Project) -> None:
    checks.start_check(project=project, labels=["inkpost"])
    with pytest.raises(ConflictError, match="running"):
        checks.start_check(project=project, labels=["inkwell"])


def test_failures_are_unsure_with_their_reason(
    api: APIClient, project: Project, registry: Registry, delivered: list[int]
) -> None:
    registry.faults(
        {"kind": "500", "extension": "com"},
        {"service": "dns", "kind": "broken", "extension": "com"},
    )
    tasks.run_check(checks.start_check(project=project, labels=["inkpost"]).pk)
    cells = {row.extension: row for row in project.lookups.all()}
    assert (cells["com"].status, cells["com"].trouble) == ("unsure", "server_error")
    assert cells["net"].status in ("open", "taken")
    watched = api.get(f"/api/projects/{project.pk}/checks").json()
    assert watched["check_run"]["unsure"] == 1
    assert watched["check_run"]["troubles"][0]["trouble"] == "server_error"
    registry.faults()
    check = checks.start_check(project=project, labels=["inkpost"])
    assert check.total == 1  # only what stayed unsure


def test_a_registry_that_is_switched_off_leaves_everything_unsure(
    project: Project, settings: Any, delivered: list[int]
) -> None:
    nobody = "http://127.0.0.1:9/dns.json"
    settings.LOOKUP = LookupSettings(nobody, dns="127.0.0.1:9", redis=settings.REDIS_URL)
    check = checks.start_check(project=project, labels=["inkpost"])
    tasks.run_check(check.pk)
    assert statuses(project) == {"unsure": 2}
    assert of(check).state == "done"


def test_a_stopped_check_keeps_its_answers_and_the_rest_is_as_before(
    api: APIClient, project: Project, delivered: list[int]
) -> None:
    tasks.run_check(checks.start_check(project=project, labels=["inkpost"]).pk)
    before = list(project.lookups.order_by("id").values("extension", "status", "asked_at"))
    check = checks.start_check(project=project, labels=["inkpost", "inkwell"], again="all")
    every = [FullName(label, e) for label in ("inkpost", "inkwell") for e in ("com", "net")]
    assert checks.awaited(project, every) == set(every)
    answer = Answer(FullName("inkwell", "com"), "open", timezone.now())
    save_answers(project.pk, [answer], check.pk)
    stopped = api.post(f"/api/projects/{project.pk}/checks/{check.pk}/stop").json()
    assert (stopped["state"], stopped["done"], stopped["left"]) == ("stopped", 1, 3)
    assert project.lookups.get(label="inkwell").status == "open"
    rows = project.lookups.filter(label="inkpost").order_by("id")
    assert list(rows.values("extension", "status", "asked_at")) == before
    assert not checks.awaited(project, every)
    tasks.run_check(check.pk)
    assert of(check).state == "stopped"
    address = f"/api/projects/{project.pk}/checks/{check.pk}/resume"
    assert api.post(address).json()["state"] == "queued"
    tasks.run_check(check.pk)
    assert of(check).state == "done"
    assert not project.lookups.exclude(label="inkpost").filter(asked_at=None).exists()
    assert api.post(address).status_code == 409


def recording(put: Any, asked: list[FullName]) -> Any:
    async def recorded(engine: Engine, step: Any, name: FullName) -> Any:
        asked.append(name)
        return await put(engine, step, name)

    return recorded


def test_what_a_dead_worker_left_is_taken_up_by_another(
    project: Project, delivered: list[int], monkeypatch: pytest.MonkeyPatch
) -> None:
    labels = ["inkpost", "inkwell", "inkclub"]
    check = checks.start_check(project=project, labels=labels)
    token = leases.claim(Check, check.pk)
    assert token
    answers = [Answer(FullName("inkpost", e), "taken", timezone.now()) for e in ("com", "net")]
    save_answers(project.pk, answers, check.pk)
    # The worker dies here. While its heartbeat is fresh nobody else takes the check.
    assert leases.claim(Check, check.pk) is None
    tasks.resume_checks()
    assert delivered == []
    Check.objects.filter(pk=check.pk).update(heartbeat_at=timezone.now() - timedelta(seconds=9))
    tasks.resume_checks()
    assert delivered == [check.pk]
    asked = []
    monkeypatch.setattr(Engine, "_put", recording(Engine._put, asked))
    tasks.run_check(check.pk)
    assert {str(name) for name in asked} == {
        f"{label}.{e}" for label in ("inkwell", "inkclub") for e in ("com", "net")
    }
    assert project.lookups.get(label="inkpost", extension="com").status == "taken"
    assert of(check).state == "done"
    assert not leases.beat(Check, check.pk, token)


def test_a_long_check_is_passed_on_in_slices(
    project: Project, registry: Registry, delivered: list[int], monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("vinetag.apps.availability.runner.SLICE_SECONDS", 0.0)
    registry.faults({"kind": "slow", "seconds": 0.3}, {"kind": "slow", "service": "dns"})
    check = checks.start_check(project=project, labels=["inkpost", "inkwell"])
    tasks.run_check(check.pk)
    assert delivered == [check.pk]
    assert of(check).state == "running"
    registry.faults()
    monkeypatch.setattr("vinetag.apps.availability.runner.SLICE_SECONDS", 20.0)
    tasks.run_check(check.pk)
    assert of(check).state == "done"


def test_what_others_found_out_is_not_asked_again(
    project: Project, other: User, registry: Registry, delivered: list[int]
) -> None:
    theirs = create_project(owner=other, name="Theirs", brief=BRIEF)
    tasks.run_check(checks.start_check(project=theirs, labels=["inkpost"]).pk)
    before = registry.served
    tasks.run_check(checks.start_check(project=project, labels=["inkpost"]).pk)
    assert registry.served == before
    assert statuses(project) == statuses(theirs)
    # Before buying the registry and the seller are wanted, which nobody has asked.
    tasks.run_check(checks.start_check(project=project, labels=["inkpost"], aim="buying").pk)
    sources = [[e["source"] for e in row.evidence] for row in project.lookups.all()]
    assert sources == [["dns", "rdap", "quote"]] * 2


def test_a_reused_answer_never_takes_the_place_of_a_newer_one(project: Project) -> None:
    name, moment = FullName("inkpost", "com"), timezone.now()
    save_answers(project.pk, [Answer(name, "taken", moment)])
    old = Answer(name, "open", moment - timedelta(minutes=5), reused=True)
    save_answers(project.pk, [old])
    assert LastAnswer.objects.get().status == "taken"
    assert project.lookups.get().status == "open"


def test_a_name_somebody_else_is_asking_is_waited_for(
    project: Project, delivered: list[int]
) -> None:
    name = FullName("inkpost", "com")
    assert claim_names([name], "somebody") == [name]
    check = checks.start_check(project=project, labels=["inkpost"])
    tasks.run_check(check.pk)
    assert delivered == [check.pk]
    assert checks.awaited(project, [name, FullName("inkpost", "net")]) == {name}
    LastAnswer.objects.create(
        label="inkpost", extension="com", status="taken", asked_at=timezone.now()
    )
    give_up_names([name])
    tasks.run_check(check.pk)
    assert project.lookups.get(extension="com").status == "taken"
    assert of(check).state == "done"


def test_the_first_screen_is_asked_first() -> None:
    names = list(checks.in_turn([f"n{n}" for n in range(30)], ["com", "net"]))
    assert [str(n) for n in names[:2]] == ["n0.com", "n1.com"]
    assert str(names[25]) == "n0.net"
    assert str(names[50]) == "n25.com"
    assert len(set(names)) == 60


def test_one_row_under_every_extension_known(
    api: APIClient, project: Project, delivered: list[int]
) -> None:
    address = f"/api/projects/{project.pk}/checks"
    body = {"what": "labels", "labels": ["qwzxvkjhqp"], "everywhere": True}
    started = api.post(address, body).json()
    assert started["total"] >= 150
    tasks.run_check(started["id"])
    found = statuses(project)
    assert found.pop("open") > 100
    assert set(found) <= {"reserved", "taken", "premium", "unsure"}
    told = api.get(f"/api/projects/{project.pk}/names/qwzxvkjhqp").json()
    assert len(told["cells"]) >= 150
    assert {e["source"] for e in told["evidence"]} <= {"dns", "rdap", "whois"}


def test_owners_who_may_not_register_are_told_without_asking(
    api: APIClient, project: Project, registry: Registry, delivered: list[int]
) -> None:
    owner = {"country": "IE", "kind": "person", "work": "any", "budget": None}
    brief = {**project.brief, "owner": owner, "extensions": ["co.jp", "ie"]}
    api.patch(f"/api/projects/{project.pk}", {"brief": brief})
    project.refresh_from_db()
    before = registry.served
    tasks.run_check(checks.start_check(project=project, labels=["qwzxvkjhqp"]).pk)
    rows = {row.extension: row for row in project.lookups.all()}
    assert rows["co.jp"].status == "barred"
    assert "Japan" in rows["co.jp"].evidence[0]["detail"]
    assert rows["ie"].status == "open"
    assert registry.served == before + 1
    assert not LastAnswer.objects.filter(extension="co.jp").exists()


@pytest.mark.django_db(transaction=True)
@pytest.mark.parametrize(("broken_off", "stopped"), [(2, True), (9, False)])
def test_stopping_is_tried_again_when_a_worker_was_in_the_way(
    project: Project, monkeypatch: pytest.MonkeyPatch, broken_off: int, stopped: bool
) -> None:
    check = checks.start_check(project=project)
    faults = [BrokenOff(1213, "Deadlock found")] * broken_off
    save = Check.save

    def breaks_off(self: Check, *args: Any, **kwargs: Any) -> None:
        if faults:
            raise faults.pop()
        save(self, *args, **kwargs)

    monkeypatch.setattr(Check, "save", breaks_off)
    if stopped:
        assert checks.stop_check(project, check.pk).state == Check.State.STOPPED
    else:
        with pytest.raises(BrokenOff):
            checks.stop_check(project, check.pk)
    check.refresh_from_db()
    assert (check.state == Check.State.STOPPED) is stopped


@pytest.mark.django_db(transaction=True)
def test_stopping_ends_a_running_slice(registry: Registry, delivered: list[int]) -> None:
    owner = User.objects.create_user("clio")
    project = create_project(owner=owner, name="Slow", brief=BRIEF)
    registry.faults(kind="slow", service="dns", seconds=0.5)
    check = checks.start_check(project=project)

    def stop_later() -> None:
        from django.db import connection

        time.sleep(1.5)
        checks.stop_check(project, check.pk)
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
    assert of(check).plan


def test_a_missing_queue_only_delays_the_check(project: Project) -> None:
    def send() -> None:
        raise OperationalError("no queue")

    check = checks.start_check(project=project, labels=["inkpost"])
    wake(send)
    assert leases.stale(Check) == [check.pk]


def test_watching_tells_what_is_new(api: APIClient, project: Project, delivered: list[int]) -> None:
    address = f"/api/projects/{project.pk}/checks"
    assert api.get(address).json()["check_run"] is None
    started = api.post(address, {"what": "labels", "labels": ["inkpost"]})
    assert started.status_code == 201
    assert delivered == [started.json()["id"]]
    after = api.get(address).json()["number"]
    tasks.run_check(started.json()["id"])
    seen = api.get(address, {"after": after}).json()
    assert {(c["extension"], c["pending"]) for c in seen["cells"]} == {
        ("com", False),
        ("net", False),
    }
    assert api.get(address, {"after": seen["number"]}).json()["cells"] == []
    assert api.get(address, {"after": "yesterday"}).status_code == 400


@pytest.mark.parametrize("labels", [["ink post"], [""], ["x" * 64]])
def test_labels_that_are_none(api: APIClient, project: Project, labels: list[str]) -> None:
    response = api.post(f"/api/projects/{project.pk}/checks", {"what": "labels", "labels": labels})
    assert response.status_code == 400


def test_nothing_to_check_is_said(api: APIClient, project: Project) -> None:
    project.candidates.all().delete()
    response = api.post(f"/api/projects/{project.pk}/checks", {})
    assert response.status_code == 409
    assert "no names to check" in response.json()["message"]


def test_an_answer_stored_twice_is_one(project: Project) -> None:
    answer = Answer(FullName("inkpost", "com"), "open", timezone.now())
    check = checks.start_check(project=project, labels=["inkpost"])
    save_answers(project.pk, [answer], check.pk)
    save_answers(project.pk, [answer], check.pk)
    project.lookups.exclude(extension="com").delete()
    assert Lookup.objects.filter(project=project).count() == 1
