"""What names cost in the sheet, on a name's page, and for proposals."""

from __future__ import annotations

import csv
from decimal import Decimal
from importlib import import_module
from typing import Any

import pytest
from django.apps import apps
from rest_framework.test import APIClient

from tests.apps.test_by_hand import own, put
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.models import Lookup
from vinetag.apps.costs import listing
from vinetag.apps.costs.listing import list_costs
from vinetag.apps.costs.sellers import refresh_sellers
from vinetag.apps.naming.models import Project

pytestmark = pytest.mark.usefixtures("simulated_sellers")


def rows(api: APIClient, project: Project, **question: Any) -> Any:
    return api.get(f"/api/projects/{project.pk}/names", {"limit": 5, **question}).json()


def known(project: Project, label: str, extension: str, status: str, **more: Any) -> None:
    project.answers += 1
    project.save()
    Lookup.objects.create(
        project=project, label=label, extension=extension, status=status, number=project.answers,
        **more,
    )  # fmt: skip


def test_rows_cost_what_lists_and_quotes_say_and_filters_agree(
    api: APIClient, project: Project
) -> None:
    refresh_sellers()
    page = rows(api, project)
    first, second, third = (row["label"] for row in page["rows"][:3])
    usual = page["rows"][0]["costs"]
    assert (usual["currency"], usual["years"]) == ("EUR", 5)
    assert usual["whole"]["extension"] in ("com", "net")
    assert usual["whole"]["seller"]
    assert Decimal(usual["first"]["amount"]) < Decimal(usual["whole"]["amount"])
    euros = {"currency": "EUR", "first_year": Decimal(400), "renewal": Decimal(300)}
    known(project, first, "com", "premium", **euros)
    known(project, first, "net", "taken")
    known(project, second, "com", "taken")
    known(project, second, "net", "taken")
    costs = {row["label"]: row["costs"] for row in rows(api, project)["rows"]}
    assert costs[first]["whole"] == {
        "amount": "1600.00", "extension": "com", "seller": "", "premium": True,
    }  # fmt: skip
    assert [costs[second][span] for span in ("first", "later", "whole")] == [None] * 3
    assert costs[third] == usual
    dear = rows(api, project, whole_min="1600", whole_max="1600")
    assert [row["label"] for row in dear["rows"]] == [first]
    assert rows(api, project, premium="yes")["total"] == 1
    assert rows(api, project, premium="no")["total"] == page["total"] - 1
    counts = api.get(f"/api/projects/{project.pk}/names/counts").json()
    assert counts["prices"]["whole"]["1000"] == page["total"] - 2
    assert counts["choices"]["premium"] == {"yes": 1, "no": page["total"] - 1}
    bad = api.get(f"/api/projects/{project.pk}/names", {"later_max": "-1", "premium": "maybe"})
    assert {p["path"] for p in bad.json()["problems"]} == {"later_max", "premium"}


def test_a_row_that_is_read_from_the_database_costs_what_it_does_in_memory(
    api: APIClient, project: Project
) -> None:
    refresh_sellers()
    at_once = rows(api, project)["rows"]
    by_name = {row["label"]: row for row in rows(api, project, sort="whole")["rows"]}
    again = {row["label"]: row for row in rows(api, project)["rows"]}
    assert {row["label"]: row["costs"] for row in at_once} == {
        label: row["costs"] for label, row in again.items()
    }
    assert by_name


def test_the_sheet_follows_lists_that_change_and_the_owner_of_the_brief(
    api: APIClient, project: Project
) -> None:
    refresh_sellers()
    before = rows(api, project, sort="whole")["rows"][0]["costs"]["whole"]
    code = own(api)
    put(api, code, "extension,action,price\ncom,register,0.5\ncom,renew,0.5\n")
    after = rows(api, project, sort="whole")["rows"][0]["costs"]["whole"]
    assert (after["amount"], after["seller"]) == ("2.50", "Corner Shop Names")
    assert after != before
    owner = {"country": "IE", "kind": "", "work": "any", "budget": None, "years": 2}
    owner["budget_whole"] = None
    brief = {**project.brief, "owner": owner}
    assert api.patch(f"/api/projects/{project.pk}", {"brief": brief}).status_code == 200
    page = rows(api, project, sort="whole")
    assert page["rows"][0]["costs"]["years"] == 2
    # With the tax of the buyer's country.
    assert page["rows"][0]["costs"]["whole"]["amount"] == "1.23"
    name = api.get(f"/api/projects/{project.pk}/names/inkpost").json()["costs"]
    assert (name["least"]["currency"], name["least"]["years"]) == ("EUR", 2)
    assert name["taxed"]
    assert [e["extension"] for e in name["extensions"]] == ["com", "net"]
    assert name["extensions"][0]["whole"]["amount"] == "1.23"


def test_lists_are_worked_out_once_for_an_edition(
    person: User, monkeypatch: pytest.MonkeyPatch
) -> None:
    refresh_sellers()
    one = list_costs(person, "IE", 5, ["com", "net"])
    worked: list[str] = []
    real = listing._listed
    monkeypatch.setattr(
        listing, "_listed", lambda market, e, years: worked.append(e) or real(market, e, years)
    )
    assert list_costs(person, "IE", 5, ["com", "net"]) == one
    assert worked == []
    list_costs(person, "IE", 5, ["com", "org", "nosuch"])
    assert sorted(worked) == ["nosuch", "org"]
    listing.prices_changed()
    assert list_costs(person, "IE", 5, ["com"]).edition != one.edition
    assert worked[2:] == ["com"]
    # Nobody knows what a currency without rates is worth.
    assert not list_costs(person, "IE", 5, ["com"], "KWD").costs


def test_proposals_follow_what_one_means_to_spend_over_the_years(api: APIClient) -> None:
    refresh_sellers()

    def proposed(**asked: Any) -> dict[str, str]:
        reply = api.get("/api/proposals", {"country": "IE", **asked})
        return {p["extension"]: " ".join(p["reasons"]) for p in reply.json()}

    usual = proposed(years=10)
    assert "over 10 years, staying with" in usual["com"]
    tight = proposed(years=10, whole=100)
    assert {*tight} < {*proposed(years=10, whole=100_000)} | {*tight}
    assert all("Within your €100 over 10 years" in reasons for reasons in tight.values())
    assert api.get("/api/proposals", {"years": 11}).status_code == 400


def test_briefs_of_earlier_versions_are_completed(api: APIClient, project: Project) -> None:
    owner = {key: project.brief["owner"][key] for key in ("country", "kind", "work", "budget")}
    Project.objects.filter(pk=project.pk).update(brief={**project.brief, "owner": owner})
    migration = import_module("vinetag.apps.naming.migrations.0008_owner_years")
    migration.complete(apps, None)
    told = api.get(f"/api/projects/{project.pk}").json()["brief"]["owner"]
    assert told == {**owner, "years": 5, "budget_whole": None}


def test_the_sheets_file_tells_what_each_full_name_costs(api: APIClient, project: Project) -> None:
    refresh_sellers()
    first = rows(api, project)["rows"][0]
    known(project, first["label"], "net", "taken")
    reply = api.get(f"/api/projects/{project.pk}/export", {"form": "csv", "what": "sheet"})
    told = {
        r["full name"]: r for r in csv.DictReader(reply.content.decode("utf-8-sig").splitlines())
    }
    com, net = (told[f"{first['label']}.{extension}"] for extension in ("com", "net"))
    whole = api.get(f"/api/projects/{project.pk}/names/{first['label']}").json()["costs"]
    [under] = [e for e in whole["extensions"] if e["extension"] == "com"]
    assert Decimal(com["costs, all years"]) == Decimal(under["whole"]["amount"])
    assert (com["costs in"], com["years"], com["costs by"]) == (
        "EUR",
        "5",
        under["whole"]["seller"],
    )
    assert {net[c] for c in net if c.startswith("costs")} == {""}
