"""A project as a file and back, its copy, where projects stand, and names set in type."""

import json
import re
from datetime import timedelta
from pathlib import Path
from typing import Any

import pytest
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.conftest import client_of
from tests.apps.test_sheet import answered
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.models import Lookup, PastAnswer
from vinetag.apps.bench import filing, transfer
from vinetag.apps.bench.document import FORMAT
from vinetag.apps.bench.models import Filing
from vinetag.apps.naming.marks import dismiss, look
from vinetag.apps.naming.models import Look, Project
from vinetag.apps.naming.services import keep_views
from vinetag.apps.shortlists.dueling import duel
from vinetag.apps.shortlists.services import keep, note, tag
from vinetag.apps.watching.watches import Wish, start_watch
from vinetag.core.brief import brief_document, parse_brief

SCHEMA = json.loads(Path("docs/project.schema.json").read_text("utf-8"))
PART = {"text": "ink", "kind": "clip", "start": 0}
CUT_OF_NOTHING = {"code": "cut", "args": {"word": "inkling"}}
ANSWER = {"label": "ink", "extension": "com", "status": "open"}
EVIDENCE = {"source": "rdap", "says": "unregistered", "at": "2026-01-02T03:04:05+00:00"}


@pytest.fixture
def full(project: Project) -> Project:
    """A project with something of everything."""
    keep(project=project, labels=["inkpost", "bücher", "postink"])
    note(project=project, label="inkpost", text="the favourite")
    tag(project=project, label="inkpost", tags=["short"])
    duel(project=project, winner="inkpost", loser="postink", tie=False)
    dismiss(project=project, labels=["inkclub"])
    look(project=project, labels=["inkwell"], verdict=Look.Verdict.LATER)
    answered(project, "inkpost", "com", "taken")
    answered(project, "inkpost", "net", "unsure")
    PastAnswer.objects.create(
        project=project, label="inkpost", extension="com", status="open", asked_at=timezone.now()
    )
    start_watch(project, Wish("label", names=["inkpost"], extensions=["com", "net"], reason="ours"))
    start_watch(project, Wish("hunt", title="short", question={"letters_max": "6"}))
    keep_views(
        project=project, view="kinds=auction", views=[{"name": "soon", "search": "within=24"}],
        place="hunt",
    )  # fmt: skip
    project.views = [{"name": "short ones", "search": "letters_max=6"}]
    project.view = "sort=name"
    project.save()
    return project


def file_of(api: APIClient, project: Project) -> Any:
    response = api.get(f"/api/projects/{project.pk}/file")
    assert 'filename="pressroom.vinetag.json"' in response["Content-Disposition"]
    return json.loads(response.content)


def post(api: APIClient, document: object) -> Any:
    content = document if isinstance(document, bytes) else json.dumps(document).encode()
    return api.post("/api/projects/file", content, content_type="application/json")


def test_what_was_taken_away_comes_back_the_same(
    api: APIClient, full: Project, other: User
) -> None:
    document = file_of(api, full)
    assert set(document) == set(SCHEMA["properties"]) == set(SCHEMA["required"])
    theirs = client_of(other)
    made = post(theirs, document)
    assert (made.status_code, made.json()["state"]) == (202, "done")
    copy = Project.objects.get(pk=made.json()["project"]["id"])
    assert (copy.owner, copy.removed_at) == (other, None)
    again = file_of(theirs, copy)
    # Times of keeping are the new owner's; everything else is as it was.
    for one in (document, again):
        one.pop("written_at")
        for entry in one["shortlist"]:
            entry.pop("kept_at")
    assert again == document
    names = [c.label for c in full.candidates.order_by("rank")]
    assert [c.label for c in copy.candidates.order_by("rank")] == names
    assert [r["label"] for r in theirs.get(f"/api/projects/{copy.pk}/shortlist").json()] == [
        "inkpost", "xn--bcher-kva", "postink",
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("change", "paths"),
    [
        (b"{", ["file"]),
        (b"[" * 100_000, ["file"]),
        ({"format": "something"}, ["file"]),
        ({"version": 9}, ["version"]),
        ({"name": 7}, ["name"]),
        ({"seed": "x"}, ["seed"]),
        ({"shortlist": 3, "duels": [{"winner": "ink"}]}, ["shortlist", "duels.0.loser"]),
        ({"dismissed": ["no name", "inkpost"]}, ["dismissed.0"]),
        (
            {"answers": [{"label": "ink", "extension": "com", "status": "blue"}]},
            ["answers.0.status"],
        ),
        ({"brief": {"extensions": []}}, ["brief.extensions"]),
    ],
)
def test_a_file_that_makes_no_sense_makes_nothing(
    api: APIClient, full: Project, change: Any, paths: list[str]
) -> None:
    document = change if isinstance(change, bytes) else {**file_of(api, full), **change}
    refused = post(api, document).json()
    assert refused["state"] == "failed"
    assert [p["path"] for p in refused["problems"]] == paths
    assert [p.pk for p in Project.objects.all()] == [full.pk]
    # It is asked for as often as one likes, and is nobody else's.
    assert api.get(f"/api/filings/{refused['id']}").json() == refused


@pytest.mark.parametrize(
    "odd",
    [
        b'"first_year": NaN', b'"first_year": Infinity', b'"first_year": 1e308',
        b'"first_year": -1', b'"asked_at": "9999-12-31T23:59:59-23:59"',
        b'"registered": "0001-01-01T00:00:00+23:59"', b'"evidence": [{"source": "oracle"}]',
        b'"evidence": {}', b'"trouble": "\\ud800"', b'"label": 7', b'"label": null',
        b'"extension": "nosuchthing"', b'"status": "blue"', b'"currency": "%s"' % (b"x" * 400),
        b'"currency": "12x"', b'"currency": "EUR\\n"', b'"first_year": true',
        b'"evidence": [%s]' % (b"[" * 5_000 + b"]" * 5_000),
    ],
)  # fmt: skip
def test_odd_values_of_a_file_are_told_at_their_place_and_store_nothing(
    api: APIClient, full: Project, odd: bytes
) -> None:
    good = json.dumps({**file_of(api, full), "answers": []}).encode()
    entry = json.dumps(ANSWER)[:-1].encode() + b", " + odd + b"}"
    told = post(api, good.replace(b'"answers": []', b'"answers": [' + entry + b"]")).json()
    assert told["state"] == "failed"
    field = re.match(rb'"(\w+)"', odd)
    assert field
    place = f"answers.0.{field[1].decode()}"
    assert re.fullmatch(rf"{place}(\.\d+)?|file", told["problems"][0]["path"])
    assert Project.objects.count() == 1


@pytest.mark.parametrize(
    "change",
    [
        {"shortlist": [{"label": "inkpost", "parts": [["ink"]]}]},
        {"shortlist": [{"label": "inkpost", "parts": [["ink", "keyword", "ink", 40]]}]},
        {"shortlist": [{"label": "inkpost", "parts": [["sea", "keyword", "sea", 0]]}]},
        {"shortlist": [{"label": "inkpost", "parts": [["ink", "wizardry", "ink", 0]]}]},
        {"shortlist": [{"label": "inkpost", "parts": [{**PART, "change": {"code": "cut"}}]}]},
        {"shortlist": [{"label": "inkpost", "parts": [{**PART, "change": CUT_OF_NOTHING}]}]},
        {"view": "x" * 5_000},
        {"looked": {"seen": ["ink"] * 60_000}},
        {"views": [{"name": "a", "search": "b" * 3_000}]},
    ],
)
def test_what_would_break_pages_for_good_is_not_taken(
    api: APIClient, full: Project, change: dict[str, Any]
) -> None:
    told = post(api, {**file_of(api, full), **change}).json()
    assert told["state"] == "failed"
    assert Project.objects.count() == 1


def test_answers_of_a_file_are_marked_and_never_fresh(
    api: APIClient, full: Project, delivered: list[int]
) -> None:
    forged = {**ANSWER, "label": "inkpost", "asked_at": "2931-01-01T00:00:00Z"}
    forged["evidence"] = [{**EVIDENCE, "at": "2931-01-01T00:00:00Z"}]  # type: ignore[assignment]
    made = post(api, {**file_of(api, full), "answers": [forged]}).json()["project"]
    row = Lookup.objects.get(project=made["id"])
    assert row.imported
    assert row.asked_at is not None
    assert row.asked_at <= timezone.now()
    name = api.get(f"/api/projects/{made['id']}/names/inkpost").json()
    assert [c["imported"] for c in name["cells"]] == [True]
    assert [e["imported"] for e in name["evidence"]] == [True]
    asked = {"what": "full_names", "full_names": ["inkpost.com"]}
    begun = api.post(f"/api/projects/{made['id']}/checks", asked)
    assert (begun.status_code, begun.json()["total"]) == (201, 1)
    # A copy of one's own project keeps what it knows as it is.
    copy = api.post(f"/api/projects/{full.pk}/duplicate").json()["project"]
    assert not Lookup.objects.filter(project=copy["id"], imported=True).exists()


def test_a_file_too_large_is_refused_while_it_is_taken(
    api: APIClient, project: Project, settings: Any
) -> None:
    settings.MOST_FILE_BYTES = 100
    refused = post(api, {"format": FORMAT, "x": "y" * 200})
    assert refused.status_code == 400
    assert refused.json()["problems"][0]["code"] == "file_large"
    assert post(api, b"").json()["problems"][0]["code"] == "not_json"


def test_a_job_whose_worker_died_is_taken_up_and_given_up_in_the_end(
    person: User, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    job = filing.start_copy(owner=person, project=project)

    def dies(**_more: Any) -> Any:
        raise KeyboardInterrupt

    monkeypatch.setattr(transfer, "duplicate", dies)
    for _ in range(filing.MOST_TRIES):
        assert filing.stale_filings() == [job.pk]
        with pytest.raises(KeyboardInterrupt):
            filing.work_on(job.pk)
        assert filing.stale_filings() == []
        filing.work_on(job.pk)  # somebody has it
        Filing.objects.update(heartbeat_at=timezone.now() - 2 * filing.LEASE)
    filing.work_on(job.pk)
    job.refresh_from_db()
    assert (job.state, Project.objects.count()) == ("failed", 1)


def test_one_person_has_only_so_many_files_under_way(
    api: APIClient, person: User, project: Project
) -> None:
    for _ in range(filing.AT_ONCE):
        filing.start_copy(owner=person, project=project)
    refused = api.post(f"/api/projects/{project.pk}/duplicate")
    assert (refused.status_code, refused.json()["code"]) == (409, "filing_active")


def test_a_copy_has_everything_but_is_another(api: APIClient, full: Project) -> None:
    copy = api.post(f"/api/projects/{full.pk}/duplicate").json()["project"]
    assert copy["name"] == "Pressroom (copy)"
    assert [r["note"] for r in api.get(f"/api/projects/{copy['id']}/shortlist").json()] == [
        "the favourite", "", "",
    ]  # fmt: skip
    api.post(f"/api/projects/{copy['id']}/shortlist/off", {"labels": ["inkpost"]})
    assert len(api.get(f"/api/projects/{full.pk}/shortlist").json()) == 3


def test_where_projects_stand(
    api: APIClient, full: Project, django_assert_num_queries: Any
) -> None:
    Lookup.objects.filter(extension="com").update(asked_at=timezone.now() - timedelta(days=30))
    [one] = api.get("/api/overview").json()
    assert one["project"]["id"] == full.pk
    assert (one["kept"], one["asked"], one["stale"], one["open"]) == (3, 2, 1, 0)
    # The projects' page and the bench count alike: a dismissed name is not listed.
    steps = api.get(f"/api/projects/{full.pk}/funnel").json()
    assert {k: one[k] for k in ("listed", "good", "open", "kept")} == {
        k: steps[k] for k in ("listed", "good", "open", "kept")
    }
    assert not one["checking"]
    archived = api.put(f"/api/projects/{full.pk}/archive", {"archived": True}).json()
    assert archived["archived_at"]
    again = api.put(f"/api/projects/{full.pk}/archive", {"archived": False}).json()
    assert again["archived_at"] is None
    Project.objects.create(owner=full.owner, name="Two", brief=brief_document(parse_brief({})))
    with django_assert_num_queries(9):  # session, person and seven
        assert len(api.get("/api/overview").json()) == 2


def test_names_are_set_in_type_and_drawn(api: APIClient) -> None:
    asked = {"text": "inkpost", "spacing": 40, "case": "upper"}
    settings = api.get("/api/wordmarks", asked).json()
    assert len(settings) == 12
    assert all(s["text"] == "INKPOST" and len(s["glyphs"]) == 7 for s in settings)
    drawn = api.get("/api/wordmark", {**asked, "face": "literata", "ink": "#24625b"})
    assert drawn["Content-Type"].startswith("image/svg+xml")
    assert drawn.content.startswith(b"<svg")
    refused = api.get("/api/wordmark", {"text": "ink", "face": "x", "ink": "#24625b"}).json()
    assert refused["problems"][0]["path"] == "face"
