"""The catalogue of extensions, and which of them are proposed."""

import pytest
from rest_framework.test import APIClient

from vinetag.apps.accounts.models import User
from vinetag.apps.availability.catalogue import catalogue, load_catalogue
from vinetag.apps.naming.models import Project

pytestmark = pytest.mark.usefixtures("simulated_world")


def test_the_catalogue_is_an_administrators_to_change(
    api: APIClient, person: User, project: Project
) -> None:
    assert load_catalogue()
    assert not load_catalogue()
    told = api.get("/api/extensions").json()
    assert len(told["extensions"]) >= 150
    assert told["may_edit"] is False
    entry = {**told["extensions"][0], "yearly": 9.5, "letters_min": 5}
    assert api.put("/api/extensions/com", entry).status_code == 404
    assert api.put("/api/extensions/file", {"text": "extension\ncom"}).status_code == 404
    person.is_staff = True
    person.save()
    assert api.put("/api/extensions/com", entry).json()["yearly"] == "9.5"
    assert catalogue()["com"].letters_min == 5
    rule = api.post(f"/api/projects/{project.pk}/quick", {"label": "inks"}).json()
    assert rule[0]["status"] == "barred"
    wrong = api.put("/api/extensions/com", {**entry, "kind": "old"})
    assert wrong.status_code == 400
    assert "“old” is not one of" in wrong.json()["problems"][0]["message"]
    exported = api.get("/api/extensions/file").content.decode()
    assert api.put("/api/extensions/file", {"text": exported}).json() == {"extensions": 220}
    bad = api.put("/api/extensions/file", {"text": "extension,kind\ncom,x\nnosuch,newer"})
    assert [p["path"] for p in bad.json()["problems"]] == ["line 2, kind", "line 3, extension"]
    assert len(catalogue()) == 220


def test_proposals_give_their_reasons(api: APIClient) -> None:
    asked = {"country": "NZ", "work": "shop", "budget": 30}
    [first, *_] = api.get("/api/proposals", asked).json()
    assert first["extension"] == "co.nz"
    assert "at home in New Zealand" in " ".join(first["reasons"])
    assert api.get("/api/proposals", {"country": "XX"}).status_code == 400
