"""Vetting while the database is away, a lease is lost, two tabs are open, or a file lies."""

from __future__ import annotations

import copy
import io
from decimal import Decimal
from typing import Any

import pytest
from django.db import OperationalError
from django.utils import timezone
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from rest_framework.test import APIClient

from tests.conftest import Registry
from vinetag.apps.availability import leases
from vinetag.apps.availability.models import Lookup
from vinetag.apps.costs.sellers import refresh_sellers
from vinetag.apps.naming.models import Project
from vinetag.apps.shortlists.services import keep
from vinetag.apps.vetting import platforms, runner, steps, tasks, vettings
from vinetag.apps.vetting.documents import told
from vinetag.apps.vetting.models import FindingRow, HandleRow, MarkRow, Vetting
from vinetag.apps.vetting.registers import bring_marks
from vinetag.core.concepts import FINDING_NAMES
from vinetag.core.names import FullName
from vinetag.core.vet import handle_forms
from vinetag.lookup import profiles


@pytest.fixture
def shortlist(project: Project, monkeypatch: pytest.MonkeyPatch) -> Project:
    monkeypatch.setattr(tasks.run_vetting, "delay", tasks.run_vetting)
    keep(project=project, labels=["inkpost"])
    return project


def vet(api: APIClient, project: Project, **wish: Any) -> Any:
    return api.post(f"/api/projects/{project.pk}/vetting", wish)


def found(api: APIClient, project: Project, name: str = "inkpost") -> dict[str, Any]:
    kinds = api.get(f"/api/projects/{project.pk}/names/{name}/vetting").json()["kinds"]
    return {kind["kind"]: kind for kind in kinds}


class NotInABlock:
    in_atomic_block = False


def test_a_finding_is_held_until_it_can_be_stored(
    api: APIClient, shortlist: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    store, failed = FindingRow.objects.update_or_create, []

    def once_away(**fields: Any) -> Any:
        if not failed:
            failed.append(1)
            raise OperationalError("gone away")
        return store(**fields)

    monkeypatch.setattr(FindingRow.objects, "update_or_create", once_away)
    monkeypatch.setattr(leases, "connection", NotInABlock)
    monkeypatch.setattr(leases, "close_old_connections", lambda: None)
    assert vet(api, shortlist, kinds=["said"]).json()["state"] == "queued"
    assert failed
    vetting = Vetting.objects.get()
    assert (vetting.state, vetting.faults, shortlist.findings.count()) == ("done", 0, 1)


def test_a_lease_that_was_lost_stays_lost(
    shortlist: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    keep(project=shortlist, labels=["quillpost"])
    vetting = vettings.start_vetting(project=shortlist, kinds=["said"])
    answers, asked = iter([True, False, True, True, True]), []

    def beat(*_about: Any) -> bool:
        asked.append(1)
        return next(answers)

    monkeypatch.setattr(leases, "beat", beat)
    assert not runner.run_slice(vetting.pk, "token")
    assert (shortlist.findings.count(), len(asked)) == (1, 2)
    beating = runner._Beating(vetting.pk, "token")
    assert [beating.held for _ in range(3)] == [True, True, True]
    monkeypatch.setattr(leases, "beat", lambda *_about: False)
    assert not beating.held
    monkeypatch.setattr(leases, "beat", lambda *_about: True)
    assert not beating.held


def test_work_that_is_carried_is_another_workers_or_is_counted(shortlist: Project) -> None:
    vetting = vettings.start_vetting(project=shortlist, kinds=["said"])

    def breaks(_token: str) -> bool:
        # Meanwhile nobody else has it.
        assert leases.carry(Vetting, vetting.pk, bool, bool) is None
        raise RuntimeError("broken")

    for faults in range(1, leases.MOST_FAULTS):
        with pytest.raises(RuntimeError, match="broken"):
            leases.carry(Vetting, vetting.pk, breaks, bool)
        vetting.refresh_from_db()
        assert (vetting.faults, vetting.lease, vetting.state) == (faults, "", "running")
    # A slice that ends well takes the count back; one whose end fails gives the lease up too.
    assert leases.carry(Vetting, vetting.pk, lambda _token: "came", bool) == ("came", False)
    vetting.refresh_from_db()
    assert (vetting.faults, vetting.lease) == (0, "")
    with pytest.raises(ZeroDivisionError):
        leases.carry(Vetting, vetting.pk, bool, lambda: bool(1 / 0))
    assert leases.stale(Vetting) == [vetting.pk]


def test_what_is_accepted_is_what_was_seen(api: APIClient, shortlist: Project) -> None:
    bring_marks(io.BytesIO(b"number,word,owner,classes\n1,Inkpost,Hexley,16\n"))
    vet(api, shortlist, kinds=["marks"])
    seen = found(api, shortlist)["marks"]["sign"]
    MarkRow.objects.update(owner="Somebody Else", word="Inkpoast")
    vet(api, shortlist, kinds=["marks"], again="all")
    where = f"/api/projects/{shortlist.pk}/names/inkpost/vetting/marks"
    late = api.put(where, {"accepted": True, "note": "Jam.", "sign": seen})
    assert (late.status_code, late.json()["code"]) == (409, "finding_changed")
    now = found(api, shortlist)["marks"]
    assert not now["accepted"]
    assert api.put(where, {"accepted": True, "sign": now["sign"]}).status_code == 200
    assert found(api, shortlist)["marks"]["accepted"]


def test_a_name_typed_with_several_extensions_is_vetted_with_the_first(
    api: APIClient, shortlist: Project
) -> None:
    asked = ["quill.net", "quill.com", "inkpost.com", "quill.net"]
    assert vet(api, shortlist, names=asked, kinds=["said"]).json()["total"] == 2
    assert Vetting.objects.get().state == "done"
    rows = shortlist.findings.values_list("label", "extension")
    assert sorted(rows) == [("inkpost", "com"), ("quill", "net")]


@pytest.mark.usefixtures("simulated_sellers")
def test_a_mistype_with_a_price_of_its_own_is_held_at_that(shortlist: Project) -> None:
    refresh_sellers()
    desk = steps.Desk(shortlist)
    reading = desk.read("inkpost")
    typed = [one for one in steps.likely_mistypes(desk.brief, reading, "com") if one.share > 0.002]
    assert len(typed) > 3
    for one, status in zip(typed, ("premium", "open", "premium", "taken"), strict=False):
        Lookup.objects.create(
            project=shortlist, label=one.label, extension=one.extension, status=status,
            asked_at=timezone.now(),
            **({"first_year": 41, "renewal": 27, "currency": "EUR"} if one is typed[0] else {}),
        )  # fmt: skip
    result = steps.find(desk, FullName("inkpost", "com"), "protection")
    rows = {row["full_name"]: row for row in result.findings[0].evidence}
    own, usual, unpriced, held = (str(one.full_name) for one in typed[:4])
    assert 5 < Decimal(str(rows[usual]["yearly"])) < 25
    # With the tax that comes on it.
    assert 27 <= Decimal(str(rows[own]["yearly"])) < 36
    assert unpriced not in rows
    assert held not in rows
    assert result.more["held"]


def test_a_handle_is_not_asked_about_again_while_it_is_fresh(
    simulated_world: Registry, monkeypatch: pytest.MonkeyPatch
) -> None:
    platforms.load_platforms()
    wanted: list[str] = []
    fetch = profiles.fetch_handles

    def counted(settings_: Any, asked: Any) -> Any:
        wanted.extend(one.handle for one in asked)
        return fetch(settings_, asked)

    monkeypatch.setattr(platforms, "fetch_handles", counted)
    forms = handle_forms("zuqvarendo", [])
    first = platforms.asked_about(forms)
    number = len(wanted)
    assert number
    again = platforms.asked_about(forms)
    assert len(wanted) == number
    assert [one._replace(asked_at="") for one in again] == [
        one._replace(asked_at="") for one in first
    ]
    # A day later, all of it; after half an hour what was not found out.
    HandleRow.objects.filter(says="").update(asked_at=timezone.now() - platforms.AGAIN)
    platforms.asked_about(forms)
    silent = HandleRow.objects.filter(says="").count()
    assert 0 < silent == len(wanted) - number
    HandleRow.objects.update(asked_at=timezone.now() - platforms.LASTS)
    platforms.asked_about(forms)
    assert len(wanted) == 2 * number + silent


# Files of projects

JUNK = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats() | st.text(max_size=20),
    lambda one: st.lists(one, max_size=3) | st.dictionaries(st.text(max_size=8), one, max_size=3),
    max_leaves=8,
)
PLACES = [
    ("findings",), ("findings", 0), ("findings", 0, "args"), ("findings", 0, "evidence"),
    ("findings", 0, "evidence", 0), ("findings", 0, "weight"), ("findings", 0, "source"),
    ("more",), ("more", "curve"), ("more", "held"), ("more", "currency"), ("weight",), ("sign",),
    ("found_at",), ("extension",), ("note",),
]  # fmt: skip


def finding() -> dict[str, Any]:
    said = {
        "weight": "note", "code": "hold_some", "source": "", "args": {"label": "inkpost"},
        "evidence": [{"full_name": "incpost.com", "share": 0.1, "held": True}],
    }  # fmt: skip
    curve = [{"yearly": 0, "caught": 0.0, "names": 0}, {"yearly": 12_000, "caught": 1, "names": 1}]
    more = {"basis": "IE", "currency": "EUR", "budget": 9, "held": ["incpost.com"], "curve": curve}
    return {
        "label": "inkpost", "extension": "com", "kind": "protection", "weight": "note",
        "findings": [said], "more": more, "sign": "a", "found_at": "2026-01-02T03:04:05Z",
    }  # fmt: skip


@pytest.fixture
def file(api: APIClient, shortlist: Project) -> dict[str, Any]:
    return dict(api.get(f"/api/projects/{shortlist.pk}/file").json())


def brought(api: APIClient, file: dict[str, Any], item: Any) -> tuple[Project | None, list[Any]]:
    made = api.post("/api/projects/file", {**file, "vetting": [item]})
    if made.status_code == 400:
        return None, made.json()["problems"]
    filing = api.get(f"/api/filings/{made.json()['id']}").json()
    if not filing["project"]:
        return None, filing["problems"]
    return Project.objects.get(pk=filing["project"]["id"]), []


def test_findings_come_back_as_they_were(api: APIClient, file: dict[str, Any]) -> None:
    project, problems = brought(api, file, finding())
    assert project, problems
    row = project.findings.get()
    assert row.findings == finding()["findings"]
    assert row.more == finding()["more"]
    assert row.imported
    again = api.get(f"/api/projects/{project.pk}/file").json()["vetting"][0]
    assert again["findings"] == finding()["findings"]


@settings(
    max_examples=60, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture]
)
@given(st.sampled_from(PLACES), JUNK)
def test_whatever_a_file_says_was_found_it_is_refused_or_can_be_read(
    api: APIClient, file: dict[str, Any], place: tuple[Any, ...], junk: Any
) -> None:
    """By the pages that show it, and by the exports."""
    item = copy.deepcopy(finding())
    target: Any = item
    for step in place[:-1]:
        target = target[step]
    target[place[-1]] = junk
    try:
        project, problems = brought(api, file, item)
    except ValueError:  # a number JSON has no word for
        return
    if project is None:
        assert problems[0]["path"].startswith("vetting")
        return
    base = f"/api/projects/{project.pk}"
    for page in ("vetting", "names/inkpost/vetting", "names/inkpost", "vetting/file?form=csv"):
        assert api.get(f"{base}/{page}").status_code == 200, page


@pytest.mark.parametrize(
    ("place", "value", "path"),
    [
        (("findings", 0, "evidence"), "abc", "vetting.0.findings.0.evidence"),
        (("findings", 0, "evidence", 0), {"deep": {"er": 1}}, "vetting.0.findings.0.evidence.0"),
        (("findings", 0, "args"), {"label": "x" * 2_001}, "vetting.0.findings.0.args"),
        (("findings", 0, "args"), {str(n): n for n in range(41)}, "vetting.0.findings.0.args"),
        (("findings", 0, "args"), {"count": 10**400}, "vetting.0.findings.0.args"),
        (("findings", 0, "weight"), "awful", "vetting.0.findings.0.weight"),
        (("more", "currency"), "euro", "vetting.0.more.currency"),
        (("more", "curve", 1, "caught"), 7, "vetting.0.more.curve.1.caught"),
        (("more", "budget"), -1, "vetting.0.more.budget"),
    ],
)
def test_what_cannot_have_been_found_is_refused_at_its_place(
    api: APIClient, file: dict[str, Any], place: tuple[Any, ...], value: Any, path: str
) -> None:
    item = finding()
    target: Any = item
    for step in place[:-1]:
        target = target[step]
    target[place[-1]] = value
    project, problems = brought(api, file, item)
    assert project is None
    assert [problem["path"] for problem in problems] == [path]


def test_a_finding_of_a_later_version_is_told_by_its_code() -> None:
    document = {"weight": "note", "code": "moon_phase", "args": {}, "evidence": [], "source": "x"}
    assert told("said", document)["text"] == "moon_phase"
    assert told("said", {**document, "code": "said_clear"})["text"] == "said_clear"  # no args
    assert told("said", {})["weight"] == "unknown"


def test_a_long_report_names_every_kind_of_every_name(api: APIClient, shortlist: Project) -> None:
    """Rows of a shortlist as long as a vetting takes; asked for again and again while it runs."""
    names = [f"name{n}" for n in range(vettings.MOST_NAMES)]
    keep(project=shortlist, labels=names)
    FindingRow.objects.bulk_create(
        FindingRow(
            project=shortlist, label=name, extension="com", kind=kind, weight="clear",
            findings=[{**finding()["findings"][0]}], more={}, sign="s", found_at=timezone.now(),
        )
        for name in names
        for kind in FINDING_NAMES
    )  # fmt: skip
    report = api.get(f"/api/projects/{shortlist.pk}/vetting").json()
    assert len(report["names"]) == vettings.MOST_NAMES + 1
    assert sum(len(name["kinds"]) for name in report["names"]) == len(names) * len(FINDING_NAMES)
    assert report["names"][-1]["label"] == "inkpost"  # what nobody vetted comes last
