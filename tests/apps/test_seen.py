"""Whatever a person can change: two of them, or two windows, do not write over each other."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, NamedTuple

import pytest
from rest_framework.test import APIClient

from vinetag.apps.accounts.models import User
from vinetag.apps.availability.catalogue import load_catalogue
from vinetag.apps.naming.models import Project
from vinetag.apps.shortlists.services import keep

pytestmark = pytest.mark.django_db

Document = dict[str, Any]


class Thing(NamedTuple):
    """Something to change: where, how, two changes that know nothing of each other, what both saw,
    and what the first leaves there.
    """

    method: str
    address: str
    first: Document
    late: Document
    seen: Document
    left: Document


NEW = {
    "extension": "zulu", "kind": "newer", "country": "", "works": ["any"], "use": "",
    "eligibility": "open", "letters_min": 1, "letters_max": 63, "idn": True, "yearly": "9.5",
    "rdap": "",
}  # fmt: skip
FILE = "extension,kind\n{},newer\n"


def view(name: str) -> Document:
    return {"views": [{"name": name, "search": "sort=name"}]}


def extension(api: APIClient) -> Thing:
    [seen] = [e for e in api.get("/api/extensions").json()["extensions"] if e["extension"] == "com"]
    first, late = {**seen, "yearly": "9.5"}, {**seen, "yearly": "12"}
    return Thing("put", "extensions/com", first, late, seen, first)


def whole_catalogue(api: APIClient) -> Thing:
    seen = {"version": api.get("/api/extensions").json()["version"]}
    first, late = {"text": FILE.format("com")}, {"text": FILE.format("net")}
    return Thing("put", "extensions/file", first, late, seen, {})


def remark(field: str, first: object, late: object, seen: object) -> Callable[[APIClient], Thing]:
    address = "projects/{p}/shortlist/names/inkpost"
    one = {field: first}
    return lambda _api: Thing("patch", address, one, {field: late}, {field: seen}, one)


def fixed(*thing: Any) -> Callable[[APIClient], Thing]:
    return lambda _api: Thing(*thing)


KEPT = ["inkpost", "inkwell", "postink"]
TURNED = [*reversed(KEPT)]
ORDER = "projects/{p}/shortlist/order"
THINGS: dict[str, Callable[[APIClient], Thing]] = {
    "name of a project": fixed(
        "patch", "projects/{p}", {"name": "One"}, {"name": "Two"}, {"version": 1},
        {"name": "One", "version": 2},
    ),
    "note": remark("note", "fine", "poor", ""),
    "tags": remark("tags", ["short"], ["odd"], []),
    "extension kept": remark("extension", "com", "org", ""),
    "order": fixed(
        "put", ORDER, {"labels": TURNED}, {"labels": [*TURNED[1:], TURNED[0]]}, {"labels": KEPT},
        {"labels": TURNED},
    ),
    "views": fixed("put", "projects/{p}/views", view("a"), view("b"), {"views": []}, view("a")),
    "settings": fixed(
        "patch", "preferences", {"theme": "dark"}, {"theme": "light"}, {"theme": "system"},
        {"theme": "dark"},
    ),
    "extension": extension,
    "new extension": fixed(
        "put", "extensions/boats", {**NEW, "extension": "boats"},
        {**NEW, "extension": "boats", "use": "Sails"}, {"extension": ""}, {"extension": "boats"},
    ),
    "catalogue": whole_catalogue,
}  # fmt: skip


@pytest.fixture(params=THINGS.values(), ids=THINGS.keys())
def thing(request: pytest.FixtureRequest, api: APIClient, project: Project, person: User) -> Thing:
    person.is_staff = True
    person.save()
    load_catalogue()
    keep(project=project, labels=KEPT)
    made: Thing = request.param(api)
    return made._replace(address=f"/api/{made.address}".replace("{p}", str(project.pk)))


def test_a_change_made_from_what_is_gone_is_told_what_is_there(
    api: APIClient, thing: Thing
) -> None:
    change = getattr(api, thing.method)
    assert change(thing.address, {**thing.first, "seen": thing.seen}).status_code < 300
    late = change(thing.address, {**thing.late, "seen": thing.seen})
    assert (late.status_code, late.json()["code"]) == (409, "changed_elsewhere")
    current = late.json()["current"]
    assert {key: current[key] for key in thing.left} == thing.left
    # Made from what is there by now, it is stored.
    seen = {key: current[key] for key in thing.seen}
    assert change(thing.address, {**thing.late, "seen": seen}).status_code < 300
    assert change(thing.address, {**thing.first, "seen": thing.seen}).status_code == 409


def test_one_field_changed_elsewhere_keeps_none_of_the_others_from_being_changed(
    api: APIClient, project: Project
) -> None:
    keep(project=project, labels=["inkpost"])
    path = f"/api/projects/{project.pk}/shortlist/names/inkpost"
    assert api.patch(path, {"note": "fine", "seen": {"note": ""}}).status_code == 200
    assert api.patch(path, {"tags": ["odd"], "seen": {"note": "", "tags": []}}).status_code == 200
    both = {"tags": ["short"], "note": "poor", "seen": {"note": "", "tags": ["odd"]}}
    refused = api.patch(path, both)
    assert (refused.status_code, refused.json()["current"]) == (409, {"note": "fine"})
    [kept] = api.get(f"/api/projects/{project.pk}/shortlist").json()
    assert (kept["note"], kept["tags"]) == ("fine", ["odd"])
    theme = {"theme": "dark", "seen": {"theme": "system"}}
    assert api.patch("/api/preferences", theme).json()["theme"] == "dark"
    rows = api.patch("/api/preferences", {"density": "dense", "seen": {"density": "usual"}}).json()
    assert (rows["theme"], rows["density"]) == ("dark", "dense")


@pytest.mark.parametrize("seen", ["x", [1], 3])
def test_nonsense_in_what_was_seen_is_told(thing: Thing, api: APIClient, seen: object) -> None:
    refused = getattr(api, thing.method)(thing.address, {**thing.first, "seen": seen})
    assert refused.status_code == 400
    assert [p["path"] for p in refused.json()["problems"]] == ["seen"]
