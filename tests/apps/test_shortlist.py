"""The shortlist: keeping, ordering, noting, exporting."""

import csv
import io
import json
from typing import Any

import pytest
from django.utils import timezone
from openpyxl import load_workbook
from rest_framework.test import APIClient

from vinetag.apps.availability.models import Lookup
from vinetag.apps.naming.models import Project
from vinetag.apps.shortlists import services
from vinetag.apps.shortlists.services import keep, note, tag


@pytest.fixture
def address(project: Project) -> str:
    return f"/api/projects/{project.pk}/shortlist"


def kept(api: APIClient, address: str) -> list[str]:
    return [item["label"] for item in api.get(address).json()]


def test_names_are_kept_in_an_order_the_person_changes(api: APIClient, address: str) -> None:
    for label in ("inkpost", "Inkwell", "inkpost", "Bücher"):
        assert api.post(address, {"labels": [label]}).status_code == 201
    assert kept(api, address) == ["inkpost", "inkwell", "xn--bcher-kva"]
    order = ["xn--bcher-kva", "inkpost", "inkwell"]
    assert api.put(f"{address}/order", {"labels": order}).status_code == 204
    assert kept(api, address) == order


def test_a_full_name_is_kept_settled_on_and_let_go(
    api: APIClient, address: str, project: Project
) -> None:
    """The name stays one entry, whatever extension it has."""

    def full() -> list[tuple[str, str]]:
        return [(item["label"], item["extension"]) for item in api.get(address).json()]

    def settled(extension: str) -> Any:
        return api.patch(f"{address}/names/inkpost", {"extension": extension})

    api.post(address, {"labels": ["inkpost.club", "Inkwell.co.nz", "bücher"]})
    assert full() == [("inkpost", "club"), ("inkwell", "co.nz"), ("xn--bcher-kva", "")]
    api.post(address, {"labels": ["inkpost"]})
    assert full()[0] == ("inkpost", "club")
    api.post(address, {"labels": ["inkpost.net"]})
    assert full()[0] == ("inkpost", "net")
    assert settled(".COM").json() == {"extension": "com"}
    assert settled("nowhere-at-all").json()["problems"][0]["path"] == "extension"
    assert full()[0] == ("inkpost", "com")
    assert "inkwell.co.nz" in api.get(f"{address}/file").content.decode()
    assert api.get(f"/api/projects/{project.pk}/names/inkpost").json()["extension"] == "com"
    assert settled("").json() == {"extension": ""}
    assert full()[0] == ("inkpost", "")
    refused = api.post(address, {"labels": ["inkpost.nowhereatall"]}).json()
    assert refused["problems"][0]["path"] == "extension"


def test_an_order_from_a_stale_page_is_refused(
    api: APIClient, address: str, project: Project
) -> None:
    keep(project=project, labels=["inkpost"])
    response = api.put(f"{address}/order", {"labels": ["inkpost", "gone"]})
    assert (response.status_code, response.json()["code"]) == (409, "changed_elsewhere")


def test_taking_a_name_off_can_be_undone(api: APIClient, address: str, project: Project) -> None:
    for label in ("inkpost", "inkwell"):
        keep(project=project, labels=[label])
    note(project=project, label="inkpost", text="the favourite")
    assert api.post(f"{address}/off", {"labels": ["inkpost"]}).status_code == 204
    assert kept(api, address) == ["inkwell"]
    api.post(address, {"labels": ["inkpost"]})
    assert kept(api, address) == ["inkpost", "inkwell"]
    assert api.get(address).json()[0]["note"] == "the favourite"


@pytest.mark.parametrize("label", ["", "ink post", "-ink", "x" * 64, "<b>"])
def test_what_is_no_name_is_not_kept(api: APIClient, address: str, label: str) -> None:
    response = api.post(address, {"labels": [label]})
    assert response.status_code == 400
    assert response.json()["problems"][0]["path"] == "label"


def test_a_note_too_long_says_so_and_keeps_the_old(
    api: APIClient, address: str, project: Project
) -> None:
    keep(project=project, labels=["inkpost"])
    note(project=project, label="inkpost", text="short")
    response = api.patch(f"{address}/names/inkpost", {"note": "x" * 2001})
    assert response.status_code == 400
    assert "2,001" in response.json()["problems"][0]["message"]
    assert api.get(address).json()[0]["note"] == "short"


def test_a_note_is_not_written_over_one_from_elsewhere(
    api: APIClient, address: str, project: Project
) -> None:
    keep(project=project, labels=["inkpost"])
    one, other = {"note": "mine", "seen": {"note": ""}}, {"note": "theirs", "seen": {"note": ""}}
    path = f"{address}/names/inkpost"
    assert api.patch(path, one).status_code == 200
    refused = api.patch(path, other)
    assert (refused.status_code, refused.json()["code"]) == (409, "changed_elsewhere")
    assert refused.json()["current"] == {"note": "mine"}
    assert api.patch(path, {"note": "theirs", "seen": {"note": "mine"}}).json() == {
        "note": "theirs"
    }


def test_a_full_shortlist_says_so(
    api: APIClient, address: str, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(services, "MAX_ENTRIES", 1)
    keep(project=project, labels=["inkpost"])
    response = api.post(address, {"labels": ["inkwell"]})
    assert (response.status_code, response.json()["code"]) == (409, "shortlist_full")


def test_kept_names_outlive_the_list_they_came_from(
    api: APIClient, address: str, project: Project
) -> None:
    keep(project=project, labels=["inkpost"])
    before = api.get(address).json()[0]
    project.candidates.all().delete()
    after = api.get(address).json()[0]
    assert (after["starts"], after["grade"]) == (before["starts"], before["grade"]) == (
        [0, 3], before["grade"],
    )  # fmt: skip


def test_the_export_opens_safely_in_a_spreadsheet(
    api: APIClient, address: str, project: Project
) -> None:
    keep(project=project, labels=["inkpost"])
    note(project=project, label="inkpost", text='=HYPERLINK("http://x")\nand "quotes", too')
    keep(project=project, labels=["bücher"])
    Lookup.objects.create(
        project=project, label="inkpost", extension="com", status="taken", asked_at=timezone.now()
    )
    response = api.get(f"{address}/file")
    assert response["Content-Type"] == "text/csv; charset=utf-8"
    assert 'filename="pressroom-shortlist.csv"' in response["Content-Disposition"]
    # A name in letters no file name should rely on.
    project.name = "Типография"
    project.save()
    other = api.get(f"{address}/file", {"form": "json"})
    assert 'filename="vine-tag-shortlist.json"' in other["Content-Disposition"]
    assert response.content.startswith(b"\xef\xbb\xbf")
    rows = list(csv.DictReader(io.StringIO(response.content.decode("utf-8-sig"), newline="")))
    assert [r["name"] for r in rows] == ["inkpost", "bücher"]
    assert (rows[0][".com"], rows[0][".net"]) == ("taken", "not asked")
    assert rows[0][".com asked (UTC)"]
    assert rows[0]["note"].startswith("'=HYPERLINK")
    assert all(not cell.startswith(("=", "+", "-", "@")) for row in rows for cell in row.values())


@pytest.mark.parametrize("form", ["xlsx", "json"])
def test_the_other_forms_hold_the_same(
    api: APIClient, address: str, project: Project, form: str
) -> None:
    keep(project=project, labels=["inkpost"])
    note(project=project, label="inkpost", text="=1+1")
    tag(project=project, label="inkpost", tags=["short", "ours"])
    content = api.get(f"{address}/file", {"form": form}).content
    if form == "json":
        [row] = json.loads(content)
        assert (row["name"], row["note"], row["tags"]) == ("inkpost", "=1+1", ["short", "ours"])
    else:
        heads, row = load_workbook(io.BytesIO(content)).active.iter_rows()
        found = {head.value: cell for head, cell in zip(heads, row, strict=True)}
        assert (found["name"].value, found["tags"].value) == ("inkpost", "short, ours")
        assert (found["note"].value, found["note"].data_type) == ("=1+1", "s")  # no formula
    assert api.get(f"{address}/file", {"form": "pdf"}).status_code == 400


def test_duels_rank_the_names_and_put_the_list_in_order(api: APIClient, project: Project) -> None:
    names = ["inkpost", "inkwell", "inkclub"]
    keep(project=project, labels=names)
    address = f"/api/projects/{project.pk}/duels"
    first = api.get(address).json()
    assert (first["asked"], first["enough"], len(first["pair"])) == (0, False, 2)
    for _ in range(12):
        one, other = api.get(address).json()["pair"]
        winner, loser = (one, other) if one > other else (other, one)
        told = api.post(address, {"winner": winner, "loser": loser}).json()
    assert [s["label"] for s in told["standings"]] == ["inkwell", "inkpost", "inkclub"]
    assert told["certainty"] > first["certainty"]
    assert api.post(f"{address}/back").json()["asked"] == 11
    assert api.post(f"{address}/order").status_code == 204
    assert kept(api, f"/api/projects/{project.pk}/shortlist") == ["inkwell", "inkpost", "inkclub"]
    same = api.post(address, {"winner": "inkwell", "loser": "inkwell"}).json()
    assert same["problems"][0]["path"] == "loser"
    assert api.delete(address).status_code == 204
    assert api.get(address).json()["asked"] == 0


def test_the_list_costs_a_fixed_number_of_queries(
    project: Project, django_assert_num_queries: Any
) -> None:
    for label in ("inkpost", "inkwell", "inkclub"):
        keep(project=project, labels=[label])
    with django_assert_num_queries(2):
        assert len(services.kept_names(project)) == 3
