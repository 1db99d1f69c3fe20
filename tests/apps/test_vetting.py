"""Vetting: begun, carried out step by step, stopped, gone on with, read, accepted, exported."""

from __future__ import annotations

import io
import json
from dataclasses import replace
from datetime import timedelta
from typing import Any

import pytest
from django.utils import timezone
from openpyxl import load_workbook
from rest_framework.test import APIClient

from tests.conftest import Registry
from vinetag.apps.availability import leases
from vinetag.apps.naming.models import Project
from vinetag.apps.shortlists.services import keep
from vinetag.apps.vetting import runner, tasks, vettings
from vinetag.apps.vetting.models import FindingRow, MarkRow, Vetting
from vinetag.apps.vetting.platforms import load_platforms
from vinetag.apps.vetting.registers import bring_marks
from vinetag.core.concepts import FINDING_NAMES, WEIGHTS
from vinetag.lookup.retry import RetryPolicy

MARKS = b"""number,word,owner,classes,status,registered
1,Inkpost,Hexley Press,16 35,registered,2019-03-01
2,Orchard Lane,Garlock Foods,29,registered,2015-01-02
"""


@pytest.fixture
def shortlist(project: Project) -> Project:
    keep(project=project, labels=["inkpost", "qwzxvkly"])
    return project


@pytest.fixture
def carried(monkeypatch: pytest.MonkeyPatch) -> None:
    """The queue is this thread."""
    monkeypatch.setattr(tasks.run_vetting, "delay", tasks.run_vetting)
    # A heartbeat beside it would wait for the test's own transaction until the lock times out.
    monkeypatch.setattr(runner, "BEAT_EVERY", 3600)


@pytest.fixture
def equipped(simulated_world: Registry) -> Registry:
    load_platforms()
    bring_marks(io.BytesIO(MARKS))
    return simulated_world


def address(project: Project, *rest: object) -> str:
    return "/".join([f"/api/projects/{project.pk}/vetting", *map(str, rest)])


def kinds_of(api: APIClient, project: Project, label: str) -> dict[str, Any]:
    told = api.get(address(project)).json()["names"]
    (one,) = [name for name in told if name["label"] == label]
    return {kind["kind"]: kind for kind in one["kinds"]}


@pytest.mark.usefixtures("carried", "equipped")
def test_a_shortlist_is_vetted_for_everything(api: APIClient, shortlist: Project) -> None:
    begun = api.post(address(shortlist), {})
    assert begun.status_code == 201, begun.json()
    assert begun.json()["total"] == 14
    told = api.get(address(shortlist)).json()
    assert told["run"]["state"] == "done"
    assert (told["marks"], told["platforms"], told["search"]) == (2, 24, True)
    assert 16 in told["classes"]
    assert told["classes_proposed"]
    # The worse of the two first.
    assert [name["label"] for name in told["names"]] == ["inkpost", "qwzxvkly"]
    for name in told["names"]:
        assert [kind["kind"] for kind in name["kinds"]] == list(FINDING_NAMES)
        for kind in name["kinds"]:
            assert kind["weight"] in WEIGHTS
            assert kind["text"].endswith((".", "?")), kind
            assert not kind["old"]
    # Platforms by names, in the names' order.
    assert len(told["handles"]) == 24
    assert {len(row["says"]) for row in told["handles"]} == {2}
    silent = {row["platform"]: row["says"] for row in told["handles"]}["Copperline"]
    assert silent == ["unknown", "unknown"]
    marks = kinds_of(api, shortlist, "inkpost")["marks"]
    assert marks["weight"] == "stop"
    assert "Hexley Press" in marks["text"]
    assert kinds_of(api, shortlist, "qwzxvkly")["marks"]["weight"] == "clear"


@pytest.mark.usefixtures("carried", "equipped")
def test_a_name_is_told_with_its_evidence(api: APIClient, shortlist: Project) -> None:
    api.post(address(shortlist), {"names": ["inkpost.net"]})
    told = api.get(f"/api/projects/{shortlist.pk}/names/inkpost/vetting").json()
    assert told["full_name"] == "inkpost.net"
    kinds = {kind["kind"]: kind for kind in told["kinds"]}
    (mark,) = kinds["marks"]["findings"][0]["evidence"]
    assert (mark["word"], mark["classes"], mark["nearness"]) == ("Inkpost", "16 35", "same")
    assert (mark["likeness"], mark["said"]) == (1, "ingk-pohst")
    handles = kinds["handles"]["findings"][0]["evidence"]
    assert {row["platform"] for row in handles} >= {"Larkwire", "Copperline"}
    (silent,) = [r for r in handles if r["platform"] == "Copperline" and r["handle"] == "inkpost"]
    assert (silent["says"], silent["why"]) == ("unknown", "the platform does not tell")
    mistyped = kinds["mistyped"]["findings"][0]["evidence"]
    assert mistyped[0]["share"] >= mistyped[1]["share"]
    assert "inkpost.com" in [row["full_name"] for row in mistyped]
    assert all(row["status"] for row in mistyped)
    curve = kinds["protection"]["more"]["curve"]
    assert [point["yearly"] for point in curve] == sorted(point["yearly"] for point in curve)
    assert told["presented"]["email"] == "hello@inkpost.net"
    assert told["presented"]["alphabet"][0] == {"letter": "I", "word": "India"}
    # The name's own page has it in short.
    page = api.get(f"/api/projects/{shortlist.pk}/names/inkpost").json()
    assert {kind["kind"]: kind["weight"] for kind in page["vetted"]}["marks"] == "stop"


@pytest.mark.usefixtures("carried", "equipped")
def test_what_is_fresh_is_not_found_out_again(api: APIClient, shortlist: Project) -> None:
    api.post(address(shortlist), {"kinds": ["said", "marks"]})
    again = api.post(address(shortlist), {"kinds": ["said", "marks"]})
    assert (again.status_code, again.json()["code"]) == (409, "fresh")
    FindingRow.objects.filter(label="inkpost", kind="marks").update(
        found_at=timezone.now() - timedelta(days=31)
    )
    assert kinds_of(api, shortlist, "inkpost")["marks"]["old"]
    third = api.post(address(shortlist), {"kinds": ["said", "marks"]}).json()
    assert third["total"] == 1
    assert not kinds_of(api, shortlist, "inkpost")["marks"]["old"]
    # A brief that speaks of other classes wants the marks looked up again, and nothing else.
    brief = {**shortlist.brief, "classes": [9]}
    assert api.patch(f"/api/projects/{shortlist.pk}", {"brief": brief}).status_code == 200
    kinds = kinds_of(api, shortlist, "inkpost")
    assert (kinds["marks"]["old"], kinds["said"]["old"]) == (True, False)
    # Kept under another extension since, all of it is old.
    kept = f"/api/projects/{shortlist.pk}/shortlist/names/inkpost"
    assert api.patch(kept, {"extension": "net"}).status_code == 200
    assert kinds_of(api, shortlist, "inkpost")["said"]["old"]
    everything = api.post(address(shortlist), {"kinds": ["said"], "again": "all"})
    assert everything.json()["total"] == 2


@pytest.mark.usefixtures("carried")
def test_without_anybody_to_ask_it_is_unknown_and_never_clear(
    api: APIClient, shortlist: Project, settings: Any
) -> None:
    from vinetag.lookup import LookupSettings

    settings.LOOKUP = LookupSettings(bootstrap="http://127.0.0.1:9/dns.json", timeout=0.2)
    assert api.post(address(shortlist), {"names": ["qwzxvkly"]}).status_code == 201
    kinds = kinds_of(api, shortlist, "qwzxvkly")
    for kind in ("marks", "handles", "prior_use", "mistyped", "protection"):
        assert kinds[kind]["weight"] == "unknown", kinds[kind]


@pytest.mark.usefixtures("carried")
@pytest.mark.parametrize("fault", ["500", "webpage", "nonsense", "429", "hangup"])
def test_services_that_misbehave_are_unknown(
    api: APIClient, shortlist: Project, equipped: Registry, settings: Any, fault: str
) -> None:
    soon = RetryPolicy(attempts=2, first_wait=0.1, rounds=1, give_up=3)
    settings.LOOKUP = replace(settings.LOOKUP, retry=soon)
    equipped.faults(
        {"service": "search", "kind": fault, "seconds": 30},
        {"service": "platforms", "kind": fault, "seconds": 30},
    )
    api.post(address(shortlist), {"names": ["inkpost"], "kinds": ["prior_use", "handles"]})
    kinds = kinds_of(api, shortlist, "inkpost")
    assert kinds["prior_use"]["weight"] == "unknown"
    if fault not in ("webpage", "nonsense"):  # platforms answer with pages
        assert kinds["handles"]["weight"] == "unknown"


def test_it_stops_and_goes_on(
    api: APIClient, shortlist: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    sent: list[int] = []
    monkeypatch.setattr(tasks.run_vetting, "delay", sent.append)
    begun = api.post(address(shortlist), {"kinds": ["said", "elsewhere"]}).json()
    assert (begun["state"], begun["left"]) == ("queued", 4)
    second = api.post(address(shortlist), {})
    assert (second.status_code, second.json()["code"]) == (409, "vetting_active")
    done = 0

    def stops_after_one(*args: Any) -> Any:
        nonlocal done
        done += 1
        if done == 2:
            vettings.stop(shortlist, begun["id"])
        return real(*args)

    real = runner.find
    monkeypatch.setattr(runner, "find", stops_after_one)
    tasks.run_vetting(begun["id"])
    told = api.get(address(shortlist)).json()["run"]
    assert (told["state"], told["done"], told["left"]) == ("stopped", 2, 2)
    resumed = api.post(address(shortlist, begun["id"], "resume"))
    assert resumed.json()["state"] == "queued"
    tasks.run_vetting(begun["id"])
    told = api.get(address(shortlist)).json()["run"]
    assert (told["state"], told["left"]) == ("done", 0)
    assert done == 4
    nothing = api.post(address(shortlist, begun["id"], "resume"))
    assert (nothing.status_code, nothing.json()["code"]) == (409, "nothing_left")


def test_a_worker_that_dies_is_followed_by_another(
    shortlist: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    vetting = vettings.start_vetting(project=shortlist, kinds=["said"])

    def dies(*_args: Any) -> None:
        raise RuntimeError("gone")

    with monkeypatch.context() as patched:
        patched.setattr(runner, "find", dies)
        for _ in range(leases.MOST_FAULTS):
            with pytest.raises(RuntimeError, match="gone"):
                tasks.run_vetting(vetting.pk)
    vetting.refresh_from_db()
    assert vetting.state == "stopped"
    vettings.resume(shortlist, vetting.pk)
    assert leases.stale(Vetting) == [vetting.pk]
    sent: list[int] = []
    monkeypatch.setattr(tasks.run_vetting, "delay", sent.append)
    tasks.resume_vettings()
    assert sent == [vetting.pk]
    tasks.run_vetting(vetting.pk)
    assert shortlist.findings.count() == 2


@pytest.mark.parametrize(
    ("body", "status", "code"),
    [
        ({"names": ["ink post!"]}, 400, "refused"),
        ({"names": ["inkpost.nowhere"]}, 400, "refused"),
        ({"kinds": ["fate"]}, 400, "refused"),
        ({"again": "never"}, 400, "refused"),
        ({"names": ["a" * 64]}, 400, "refused"),
    ],
)
def test_what_makes_no_sense_is_refused(
    api: APIClient, shortlist: Project, body: dict[str, Any], status: int, code: str
) -> None:
    answer = api.post(address(shortlist), body)
    assert answer.status_code == status, (code, answer.json())
    assert answer.json()["problems"]


@pytest.mark.usefixtures("carried", "equipped")
@pytest.mark.parametrize("typed", ["a", "q" * 63, "bücher", "9", "ink-post"])
def test_odd_names_are_vetted_too(api: APIClient, project: Project, typed: str) -> None:
    begun = api.post(address(project), {"names": [typed]})
    assert begun.status_code == 201, begun.json()
    assert api.get(address(project)).json()["run"]["state"] == "done"
    assert project.findings.count() == len(FINDING_NAMES)


@pytest.mark.usefixtures("carried")
def test_a_long_shortlist_is_vetted_in_parts(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(vettings, "MOST_NAMES", 2)
    keep(project=project, labels=["inkpost", "quill", "reed"])
    told = [api.post(address(project), {"kinds": ["said"]}) for _ in range(3)]
    assert [one.json().get("total") for one in told] == [2, 1, None]
    typed = api.post(address(project), {"names": ["oak", "elm", "ash"]})
    assert (typed.status_code, typed.json()["code"]) == (409, "too_many")


def test_without_names_it_says_what_to_do(api: APIClient, project: Project) -> None:
    assert api.get(address(project)).json()["names"] == []
    answer = api.post(address(project), {})
    assert (answer.status_code, answer.json()["code"]) == (409, "no_names")


@pytest.mark.usefixtures("carried", "equipped")
def test_what_is_accepted_stays_so_while_it_says_the_same(
    api: APIClient, shortlist: Project
) -> None:
    api.post(address(shortlist), {"kinds": ["marks"]})
    where = f"/api/projects/{shortlist.pk}/names/inkpost/vetting/marks"
    told = api.put(where, {"accepted": True, "note": "They sell jam."}).json()
    # Nothing open weighs on it any more: it is no worse than the other.
    marks = {n["label"]: n["kinds"][0] for n in told["names"]}["inkpost"]
    assert (marks["accepted"], marks["note"], marks["changed"]) == (True, "They sell jam.", False)
    api.post(address(shortlist), {"kinds": ["marks"], "again": "all"})
    assert kinds_of(api, shortlist, "inkpost")["marks"]["accepted"]
    MarkRow.objects.filter(word="Inkpost").update(owner="Somebody Else", word="Inkpoast")
    api.post(address(shortlist), {"kinds": ["marks"], "again": "all"})
    changed = kinds_of(api, shortlist, "inkpost")["marks"]
    assert (changed["accepted"], changed["changed"]) == (False, True)
    api.put(where, {"accepted": False})
    assert not kinds_of(api, shortlist, "inkpost")["marks"]["changed"]
    long = api.put(where, {"accepted": True, "note": "x" * 501})
    assert (long.status_code, long.json()["problems"][0]["path"]) == (400, "note")
    none = api.put(f"/api/projects/{shortlist.pk}/names/nobody/vetting/marks", {"accepted": True})
    assert none.status_code == 404
    assert api.put(where.replace("marks", "fate"), {"accepted": True}).status_code == 404


@pytest.mark.usefixtures("carried", "equipped")
def test_a_report_goes_to_files(api: APIClient, shortlist: Project) -> None:
    api.post(address(shortlist), {"kinds": ["marks", "said"]})
    rows = api.get(address(shortlist, "file?form=csv")).content.decode("utf-8-sig").splitlines()
    assert rows[0].startswith('"full name","kind","weight"')
    assert any("Hexley Press" in row and '"Stop"' in row for row in rows)
    book = load_workbook(io.BytesIO(api.get(address(shortlist, "file?form=xlsx")).content))
    assert book.active["A2"].value in ("inkpost.com", "qwzxvkly.com")
    whole = json.loads(api.get(address(shortlist, "file?form=json")).content)
    assert "legal advice" in whole["about"]
    assert whole["names"][0]["kinds"]["marks"]["findings"][0]["evidence"]
    assert api.get(address(shortlist, "file?form=pdf")).status_code == 400


@pytest.mark.usefixtures("carried", "equipped")
def test_a_project_takes_its_findings_along(api: APIClient, shortlist: Project) -> None:
    api.post(address(shortlist), {"kinds": ["marks"]})
    api.put(
        f"/api/projects/{shortlist.pk}/names/inkpost/vetting/marks",
        {"accepted": True, "note": "Seen."},
    )
    file = api.get(f"/api/projects/{shortlist.pk}/file").json()
    assert file["vetting"][0]["findings"][0]["evidence"]
    brought = api.post("/api/projects/file", file)
    copy = Project.objects.get(
        pk=api.get(f"/api/filings/{brought.json()['id']}").json()["project"]["id"]
    )
    told = kinds_of(api, copy, "inkpost")["marks"]
    # Who brought it says so; nobody here has found it.
    assert (told["old"], told["accepted"], told["weight"]) == (True, True, "stop")
    file["vetting"][0]["kind"] = "fate"
    refused = api.post("/api/projects/file", file).json()
    failed = api.get(f"/api/filings/{refused['id']}").json()
    assert failed["problems"][0]["path"] == "vetting.0.kind"
