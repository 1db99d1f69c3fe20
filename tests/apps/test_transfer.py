"""A project as a file and back, its copy, where projects stand, and names set in type."""

import json
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
from vinetag.apps.bench import transfer
from vinetag.apps.naming.marks import dismiss, look
from vinetag.apps.naming.models import Look, Project
from vinetag.apps.shortlists.dueling import duel
from vinetag.apps.shortlists.services import keep, note, tag
from vinetag.core.brief import brief_document, parse_brief

SCHEMA = json.loads(Path("docs/project.schema.json").read_text("utf-8"))


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
    assert made.status_code == 201
    copy = Project.objects.get(pk=made.json()["id"])
    assert copy.owner == other
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
        ({"shortlist": 3, "duels": [{"winner": "ink"}]}, ["shortlist", "duels.0"]),
        ({"dismissed": ["no name", "inkpost"]}, ["dismissed.0"]),
        ({"answers": [{"label": "ink", "extension": "com", "status": "blue"}]}, ["answers.0"]),
        ({"brief": {"extensions": []}}, ["brief.extensions"]),
    ],
)
def test_a_file_that_makes_no_sense_makes_nothing(
    api: APIClient, full: Project, change: Any, paths: list[str]
) -> None:
    document = change if isinstance(change, bytes) else {**file_of(api, full), **change}
    refused = post(api, document)
    assert refused.status_code == 400
    assert [p["path"] for p in refused.json()["problems"]] == paths
    assert Project.objects.count() == 1


def test_a_file_too_large_is_refused(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(transfer, "MOST_BYTES", 100)
    assert post(api, {"format": transfer.FORMAT, "x": "y" * 200}).status_code == 400


def test_a_copy_has_everything_but_is_another(api: APIClient, full: Project) -> None:
    copy = api.post(f"/api/projects/{full.pk}/duplicate").json()
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
    assert one["listed"] == full.candidates.count()
    assert not one["checking"]
    archived = api.put(f"/api/projects/{full.pk}/archive", {"archived": True}).json()
    assert archived["archived_at"]
    again = api.put(f"/api/projects/{full.pk}/archive", {"archived": False}).json()
    assert again["archived_at"] is None
    Project.objects.create(owner=full.owner, name="Two", brief=brief_document(parse_brief({})))
    with django_assert_num_queries(7):  # session, person and five
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
