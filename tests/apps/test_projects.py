"""Projects, briefs and the making of their names."""

from datetime import timedelta
from io import StringIO
from typing import Any

import pytest
from django.core.management import call_command
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.conftest import BRIEF, STEP
from vinetag.apps.accounts.models import User
from vinetag.apps.bench.demo import load_demo
from vinetag.apps.bench.demo_briefs import DEMO
from vinetag.apps.naming.models import Candidate, Project
from vinetag.apps.naming.services import (
    change_project,
    create_project,
    delete_for_good,
    list_more,
)
from vinetag.apps.shortlists.models import Entry
from vinetag.apps.shortlists.services import keep
from vinetag.core.grade import weigh


def create(api: APIClient, **fields: Any) -> Any:
    return api.post("/api/projects", {"name": "New", "brief": {**BRIEF, **fields}})


def test_a_new_project_has_its_names_at_once(api: APIClient) -> None:
    made = create(api).json()
    assert made["brief"]["keywords"][0] == {
        "text": "ink", "weight": 5, "senses": [], "drop": [],
    }  # fmt: skip
    assert made["considered"] >= made["within"] >= made["good"] > 0
    rows = Candidate.objects.filter(project=made["id"])
    assert list(rows.order_by("rank").values_list("rank", flat=True)) == list(
        range(1, rows.count() + 1)
    )


@pytest.mark.parametrize(
    ("fields", "path"),
    [
        ({"keywords": [{"text": "   "}]}, "brief.keywords.0.text"),
        ({"keywords": ["x" * 300]}, "brief.keywords.0.text"),
        ({"keywords": ["чернила"]}, "brief.keywords.0.text"),
        ({"keywords": ["ink 🖋"]}, "brief.keywords.0.text"),
        ({"keywords": ["<script>alert(1)</script>"]}, "brief.keywords.0.text"),
        ({"keywords": [f"w{i}" for i in range(500)]}, "brief.keywords"),
        ({"limits": {"letters_max": 0}}, "brief.limits.letters_max"),
        ({"limits": {"words": None}}, "brief.limits.words"),
        ({"extensions": ["com", "nosuch"]}, "brief.extensions.1"),
        ({"extensions": []}, "brief.extensions"),
        ({"purpose": "fun"}, "brief.purpose"),
        ({"making": {"daring": 101}}, "brief.making.daring"),
        ({"making": {"off": ["luck"]}}, "brief.making.off.0"),
        ({"making": {"shapes": ["CVX"]}}, "brief.making.shapes.0"),
        ({"places": ["Ирландия"]}, "brief.places.0"),
        ({"keywords": [{"text": "ink", "drop": [7]}]}, "brief.keywords.0.drop.0"),
        ({"keywords": [{"text": "ink", "senses": ["x"]}]}, "brief.keywords.0.senses.0"),
    ],
)
def test_bad_input_is_told_at_its_field_and_changes_nothing(
    api: APIClient, project: Project, fields: dict[str, Any], path: str
) -> None:
    before = Project.objects.values().get(pk=project.pk)
    for response in (
        create(api, **fields),
        api.patch(f"/api/projects/{project.pk}", {"brief": {**BRIEF, **fields}}),
    ):
        assert response.status_code == 400
        told = {p["path"]: p["message"] for p in response.json()["problems"]}
        assert told[path]
    assert Project.objects.values().get(pk=project.pk) == before


@pytest.mark.parametrize("body", [[], {"name": 7}, {"name": "  ", "brief": {}}, {"name": "n" * 81}])
def test_bodies_that_are_no_project(api: APIClient, body: object) -> None:
    assert api.post("/api/projects", body).status_code == 400


def test_json_that_is_none_is_refused(api: APIClient) -> None:
    response = api.post("/api/projects", "{not json", content_type="application/json")
    assert (response.status_code, response.json()["code"]) == (400, "parse_error")


def test_a_changed_brief_makes_names_anew(api: APIClient, project: Project) -> None:
    address = f"/api/projects/{project.pk}"
    rows = project.candidates.order_by("rank").values_list("label", flat=True)
    before = list(rows)
    api.patch(address, {"name": "Renamed"})
    assert list(rows.all()) == before
    api.patch(address, {"brief": {**BRIEF, "keywords": ["paper"]}})
    assert sum("paper" in label for label in rows.all()) > 4
    api.patch(address, {"brief": BRIEF})
    assert list(rows.all()) == before


def test_changed_weights_order_the_same_names_anew(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    before = {c.label: c for c in project.candidates.all()}
    monkeypatch.setattr("vinetag.apps.naming.services.make_names", None)  # nothing is made anew
    brief = {**project.brief, "weights": {"length": 10, "spelling": 0, "memory": 1}}
    said = api.patch(f"/api/projects/{project.pk}", {"brief": brief}).json()
    assert said["brief"]["weights"] == brief["weights"]
    after = list(project.candidates.order_by("rank"))
    assert {c.label for c in after} == set(before)
    assert [c.rank for c in after] == list(range(1, len(after) + 1))
    assert [c.label for c in after[:50]] != [
        c.label for c in sorted(before.values(), key=lambda c: c.rank)[:50]
    ]
    for row in after[:40]:
        scores = {name: row.scores[name] for name in ("length", "memory")}
        assert row.grade == pytest.approx(weigh(scores, {"length": 10, "memory": 1}), abs=0.1)
        assert row.scores == before[row.label].scores
    usual = api.patch(f"/api/projects/{project.pk}", {"brief": {**brief, "weights": {}}}).json()
    assert usual["brief"]["weights"] == {}
    again = {c.label: c.grade for c in project.candidates.all()}
    assert all(grade == pytest.approx(before[n].grade, abs=0.2) for n, grade in again.items())


def test_a_removed_project_can_be_brought_back(api: APIClient, project: Project) -> None:
    address = f"/api/projects/{project.pk}"
    assert api.delete(address).status_code == 204
    assert api.get(address).status_code == 404
    assert api.get("/api/projects").json() == []
    assert api.post(f"{address}/restore").json()["id"] == project.pk
    assert api.get(address).status_code == 200


def test_projects_of_an_earlier_version_are_brought_up_to_date(
    api: APIClient, person: User, project: Project
) -> None:
    create_project(owner=person, name="As it is", brief={**BRIEF, "places": ["harrowmere"]})
    others = Candidate.objects.exclude(project=project)
    untouched = list(others.values_list("id", flat=True))
    earlier = {key: project.brief[key] for key in ("name", "keywords", "limits", "extensions")}
    Project.objects.filter(pk=project.pk).update(brief=earlier)
    project.candidates.update(scores={"length": 100.0})
    call_command("prepare", stdout=(said := StringIO()))
    assert "1 projects of an earlier version" in said.getvalue()
    shown = api.get(f"/api/projects/{project.pk}").json()
    assert shown["brief"]["weights"] == {}
    assert shown["brief"]["keywords"][0]["text"] == "ink"
    assert all(len(row.scores) == 7 for row in project.candidates.all())
    assert (
        list(Candidate.objects.exclude(project=project).values_list("id", flat=True)) == untouched
    )
    call_command("prepare", stdout=(again := StringIO()))
    assert again.getvalue() == ""


def test_demo_data_is_loaded_once_and_put_back_on_request() -> None:
    assert load_demo()
    assert not load_demo()
    projects = Project.objects.filter(owner__username="demo")
    assert sorted(p.name for p in projects) == sorted(item["name"] for item in DEMO)
    assert all(p.candidates.count() >= STEP for p in projects)
    projects.filter(name="Pressroom").delete()
    assert load_demo(reset=True)
    assert projects.all().count() == len(DEMO)
    assert Entry.objects.filter(project__name="Pressroom").count() == 4


def test_keywords_are_opened_up(api: APIClient, project: Project) -> None:
    ink, post = api.get(f"/api/projects/{project.pk}/words").json()
    assert (ink["keyword"], post["keyword"]) == ("ink", "post")
    assert ink["senses"]
    assert set(ink["taken"]) <= {s["id"] for s in ink["senses"]}
    assert len(ink["offers"]) > 20
    catalogue = api.get("/api/vocabulary").json()
    assert {o["group"] for o in ink["offers"]} <= set(catalogue["groups"])
    assert all(s["licence"] for s in catalogue["sources"])


def test_dismissed_names_stay_away_until_they_are_brought_back(
    api: APIClient, project: Project
) -> None:
    address = f"/api/projects/{project.pk}"

    def listed() -> list[str]:
        rows = api.get(f"{address}/names", {"limit": 500}).json()["rows"]
        return [row["label"] for row in rows]

    before = listed()
    gone = before[:2]
    assert api.post(f"{address}/dismissed", {"labels": gone}).status_code == 204
    assert listed()[:3] == before[2:5]
    api.patch(address, {"brief": {**BRIEF, "avoid": ["zebra"]}})
    assert listed()[:3] == before[2:5]
    near = api.get(f"{address}/names/{before[3]}/near").json()["rows"]
    assert before[0] not in {row["label"] for row in near}
    assert set(api.get(f"{address}/dismissed").json()["labels"]) == set(gone)
    shown = api.get(f"{address}/names", {"mark": "dismissed"}).json()["rows"]
    assert [row["label"] for row in shown] == gone
    for _ in range(2):  # bringing back what is back already is no error
        assert api.post(f"{address}/dismissed/back", {"labels": gone}).status_code == 204
    assert listed()[:200] == before[:200]
    assert api.post(f"{address}/dismissed", {"labels": ["no name"]}).status_code == 400


def test_more_goes_on_without_repeating(
    api: APIClient, person: User, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("vinetag.apps.naming.services.DEEPEST", 2 * STEP)
    project = create_project(owner=person, name="Long", brief={"keywords": ["paper", "night"]})
    rows = project.candidates.order_by("rank").values_list("label", flat=True)
    first = list(rows)
    assert len(first) == STEP
    assert api.post(f"/api/projects/{project.pk}/more").status_code == 200
    more = list(rows.all())
    assert more[:STEP] == first
    assert len(set(more)) == len(more) > STEP
    last = api.post(f"/api/projects/{project.pk}/more")
    assert (last.status_code, last.json()["code"]) == (409, "no_more")


def test_a_change_lists_the_first_names_and_more_the_usual_number(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("vinetag.apps.naming.services.FIRST", 40)
    address = f"/api/projects/{project.pk}"
    rows = project.candidates.order_by("rank").values_list("label", "rank", "grade", "parts")
    changed = api.patch(address, {"brief": {**BRIEF, "keywords": ["ink", "quill"]}}).json()
    first = list(rows.all())
    assert (changed["only_first"], len(first)) == (True, 40)
    whole = api.post(f"{address}/more").json()
    assert (whole["only_first"], project.candidates.count()) == (False, STEP)
    # What is there stays as it is, row for row, and so does the list whichever way it was made.
    assert list(rows.all())[:40] == first
    monkeypatch.setattr("vinetag.apps.naming.services.FIRST", STEP)
    at_once = create(api, keywords=["ink", "quill"]).json()["id"]
    labels = (
        Candidate.objects.filter(project=at_once).order_by("rank").values_list("label", flat=True)
    )
    assert [row[0] for row in rows.all()] == list(labels)


def test_a_list_made_anew_is_not_gone_on_with(
    project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("vinetag.apps.naming.services.FIRST", 40)
    change_project(project=project, name=None, brief={**BRIEF, "keywords": ["ink", "quill"]})
    late = Project.objects.get(pk=project.pk)
    change_project(project=project, name=None, brief={**BRIEF, "keywords": ["ink", "seal"]})
    before = list(project.candidates.order_by("rank").values_list("label", flat=True))
    assert list_more(late).brief["keywords"][1]["text"] == "seal"
    assert list(project.candidates.order_by("rank").values_list("label", flat=True)) == before


def test_near_names_come_with_what_is_known_of_them(api: APIClient, project: Project) -> None:
    keep(project=project, labels=["postink"])
    near = api.get(f"/api/projects/{project.pk}/names/inkpost/near").json()
    assert near["total"] >= 60
    [turned] = [row for row in near["rows"] if row["label"] == "postink"]
    assert turned["kept"]
    assert api.get(f"/api/projects/{project.pk}/names/-x/near").status_code == 400


def test_two_windows_do_not_write_over_each_other(api: APIClient, project: Project) -> None:
    address, seen = f"/api/projects/{project.pk}", {"version": project.version}
    first = api.patch(address, {"brief": {**BRIEF, "keywords": ["quill"]}, "seen": seen})
    assert (first.status_code, first.json()["version"]) == (200, project.version + 1)
    late = api.patch(address, {"brief": {**BRIEF, "keywords": ["seal"]}, "seen": seen})
    assert (late.status_code, late.json()["code"]) == (409, "changed_elsewhere")
    current = late.json()["current"]
    assert [k["text"] for k in current["brief"]["keywords"]] == ["quill"]
    kept = {"brief": {**BRIEF, "keywords": ["seal"]}, "seen": {"version": current["version"]}}
    assert api.patch(address, kept).json()["brief"]["keywords"][0]["text"] == "seal"
    refused = api.patch(address, {"name": "x" * 90, "seen": "now"})
    assert refused.json()["problems"] == [
        {
            "path": "seen",
            "code": "not_object",
            "args": {},
            "message": "This should be an object with named fields.",
        }
    ]
    [long] = api.patch(address, {"name": "x" * 90}).json()["problems"]
    assert (long["code"], long["args"]) == ("too_long", {"limit": 80, "length": 90})


def test_one_bad_entry_does_not_keep_a_change_from_being_saved(
    api: APIClient, project: Project
) -> None:
    brief = {**BRIEF, "keywords": ["quill", "🎈"], "places": ["Dún Laoghaire"]}
    address = f"/api/projects/{project.pk}"
    assert api.patch(address, {"brief": brief}).status_code == 400
    saved = api.patch(address, {"brief": brief, "partly": True}).json()
    assert [k["text"] for k in saved["brief"]["keywords"]] == ["quill"]
    assert saved["brief"]["places"] == ["dun laoghaire"]
    assert [p["path"] for p in saved["not_taken"]] == ["brief.keywords.1.text"]


def test_removed_projects_are_deleted_after_a_time_and_count_until_then(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("vinetag.apps.naming.services.MAX_PROJECTS", 1)
    api.delete(f"/api/projects/{project.pk}")
    refused = api.post("/api/projects", {"name": "Two", "brief": BRIEF}).json()
    assert "30 days" in refused["problems"][0]["message"]
    assert delete_for_good(timezone.now() + timedelta(days=29)) == 0
    assert delete_for_good(timezone.now() + timedelta(days=31)) == 1
    assert not Project.objects.exists()
    assert api.post("/api/projects", {"name": "Two", "brief": BRIEF}).status_code == 201


@pytest.mark.parametrize(
    "body",
    [
        b"[" * 50_000, b'{"name": "\\ud800"}', b'{"name": NaN}', b'{"name": 1e400}',
        b'{"version": ' + b"9" * 5_000 + b"}", b'{"version": 99999999999999999999}', b"\xff", b"{",
    ],
)  # fmt: skip
def test_bodies_that_are_no_json_are_refused_with_a_reason(
    api: APIClient, project: Project, body: bytes
) -> None:
    for client in (api, APIClient()):
        for method, path in (
            (client.patch, f"projects/{project.pk}"), (client.post, "session/sign-in")
        ):  # fmt: skip
            answer = method(f"/api/{path}", body, content_type="application/json")
            assert answer.status_code in (400, 403)
            assert {"code", "message", "problems"} <= answer.json().keys()
