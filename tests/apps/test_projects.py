"""Projects, briefs and the making of their names."""

from typing import Any

import pytest
from rest_framework.test import APIClient

from tests.apps.conftest import BRIEF
from vinetag.apps.bench.demo import DEMO, load_demo
from vinetag.apps.naming.models import Candidate, Project
from vinetag.apps.shortlists.models import Entry


def create(api: APIClient, **fields: Any) -> Any:
    return api.post("/api/projects", {"name": "New", "brief": {**BRIEF, **fields}})


def test_a_new_project_has_its_names_at_once(api: APIClient) -> None:
    made = create(api).json()
    assert made["brief"]["keywords"][0] == {"text": "ink", "weight": 5}
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
    assert all("paper" in label or label == "pressroom" for label in rows.all())
    api.patch(address, {"brief": BRIEF})
    assert list(rows.all()) == before


def test_a_removed_project_can_be_brought_back(api: APIClient, project: Project) -> None:
    address = f"/api/projects/{project.pk}"
    assert api.delete(address).status_code == 204
    assert api.get(address).status_code == 404
    assert api.get("/api/projects").json() == []
    assert api.post(f"{address}/restore").json()["id"] == project.pk
    assert api.get(address).status_code == 200


def test_demo_data_is_loaded_once_and_put_back_on_request() -> None:
    assert load_demo()
    assert not load_demo()
    projects = Project.objects.filter(owner__username="demo")
    assert sorted(p.name for p in projects) == sorted(item["name"] for item in DEMO)
    assert all(p.candidates.count() > 300 for p in projects)
    projects.filter(name="Pressroom").delete()
    assert load_demo(reset=True)
    assert projects.all().count() == len(DEMO)
    assert Entry.objects.filter(project__name="Pressroom").count() == 3
