"""What names are told of markets, and the hunt."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.market_lists import LIST, bring, market
from vinetag.apps.availability.answer_store import save_answers, spread_offers
from vinetag.apps.hunting import hunts
from vinetag.apps.naming.models import Project
from vinetag.core.checking import Evidence, Says, Source
from vinetag.core.names import FullName
from vinetag.lookup import Answer


def know(project: Project, name: str, says: Says, source: Source = "rdap") -> None:
    status = "taken" if says == "registered" else "open"
    evidence = Evidence(source, says, timezone.now())
    full = FullName(*name.split(".", 1))
    save_answers(project.pk, [Answer(full, status, timezone.now(), evidence=(evidence,))])


def statuses(project: Project) -> dict[str, str]:
    return {f"{row.label}.{row.extension}": row.status for row in project.lookups.all()}


def test_names_are_told_what_markets_tell_of_them(api: APIClient, project: Project) -> None:
    know(project, "inkpost.com", "registered")
    know(project, "inkpost.net", "registered")
    know(project, "paperbarn.com", "unregistered")
    assert set(statuses(project).values()) == {"taken", "open"}
    row = market()
    bring(row)
    before = Project.objects.get(pk=project.pk).answers
    assert spread_offers() == 2
    assert statuses(project) == {
        "inkpost.com": "offered", "inkpost.net": "offered", "paperbarn.com": "open",
    }  # fmt: skip
    assert Project.objects.get(pk=project.pk).answers == before + 2
    # Once told it is not told again; what is no longer offered is only taken.
    assert spread_offers() == 0
    bring(row, LIST.replace("inkpost.com", "elsewhere.com"))
    # How old the other one's word is changes with the list, too.
    assert spread_offers() == 2
    assert statuses(project)["inkpost.com"] == "taken"
    assert [p.status for p in project.past_answers.filter(extension="com").order_by("pk")] == [
        "taken", "offered",
    ]  # fmt: skip
    # What is asked later is told at once.
    know(project, "inkpost.net", "registered")
    assert statuses(project)["inkpost.net"] == "offered"
    page = api.get(f"/api/projects/{project.pk}/names/inkpost").json()
    [offer] = page["offers"]
    assert (offer["full_name"], offer["kind"], offer["bids"]) == ("inkpost.net", "auction", 4)
    assert [change["what"] for change in page["offer_changes"]] == ["gone"]
    [said] = [e for e in page["evidence"] if e["source"] == "market"]
    assert said["text"].startswith("Auction at The fair, 90.00 USD, 4 bids, ends on ")


def test_the_price_of_a_holder_is_that_of_the_cheapest_offer(project: Project) -> None:
    know(project, "inkpost.com", "registered")
    bring(market("fair"))
    bring(market("other"), "name,kind,price,currency\ninkpost.com,fixed,800,EUR\n")
    spread_offers()
    row = project.lookups.get(extension="com")
    assert (row.status, row.holder_asks, row.currency) == ("offered", 800, "EUR")
    [said] = [e for e in row.evidence if e["source"] == "market"]
    assert said["detail"].startswith("for sale at The other, 800.00 EUR; for sale at The fair")


def hunted(api: APIClient, project: Project, query: str = "") -> Any:
    answer = api.get(f"/api/projects/{project.pk}/hunt{query}")
    assert answer.status_code == 200, answer.json()
    return answer.json()


def test_the_hunt_grades_what_markets_tell_of(api: APIClient, project: Project) -> None:
    assert hunted(api, project) == {"rows": [], "total": 0, "currency": "EUR"}
    bring(market())
    page = hunted(api, project)
    assert page["total"] == 3
    first = page["rows"][0]
    assert (first["label"], first["words"], first["kept"]) == ("inkpost", 2, False)
    assert first["grade"] > 40
    assert {"length", "fit", "sense"} <= set(first["scores"])
    by_name = {row["offer"]["full_name"]: row for row in page["rows"]}
    assert by_name["inkpost.com"]["offer"]["risk"]
    assert by_name["inkpost.com"]["cost"] == "1200.00"
    assert 60 < float(by_name["inkpost.net"]["cost"]) < 90
    assert by_name["inkpost.net"]["offer"]["price"] == "90.00"
    api.post(f"/api/projects/{project.pk}/shortlist", {"labels": ["inkpost"]})
    assert hunted(api, project)["rows"][0]["kept"]
    assert [row["label"] for row in hunted(api, project, "?kinds=asking")["rows"]] == ["paperbarn"]
    assert hunted(api, project, "?clean=1&extensions=com")["total"] == 1
    counts = api.get(f"/api/projects/{project.pk}/hunt/counts?extensions=com").json()
    assert counts["kind"] == {"fixed": 1, "asking": 1}
    for query in ("?sort=luck", "?limit=1000", "?kinds=barter", "?price_max=cheap"):
        assert api.get(f"/api/projects/{project.pk}/hunt{query}").status_code == 400


def test_the_hunt_follows_the_brief_and_lists_are_judged_once(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    bring(market())
    judged: list[Path] = []
    suits_of = hunts.suits_of

    def told(duck: Any, file: Path, near: Any) -> Any:
        judged.append(file)
        return suits_of(duck, file, near)

    monkeypatch.setattr(hunts, "suits_of", told)
    before = hunted(api, project)["rows"]
    hunted(api, project, "?sort=name")
    assert len(judged) == 1
    brief = {**project.brief, "about": "a farm shop in a barn", "keywords": [{"text": "barn"}]}
    changed = api.patch(f"/api/projects/{project.pk}", {"brief": brief, "version": project.version})
    assert changed.status_code == 200, changed.json()
    after = hunted(api, project)["rows"]
    assert len(judged) == 2
    assert [row["label"] for row in before] != [row["label"] for row in after]
    assert after[0]["label"] == "paperbarn"


def test_what_names_cost_by_their_letters(api: APIClient, project: Project) -> None:
    path = f"/api/projects/{project.pk}/prices"
    assert api.get(path).json() == {"currency": "EUR", "prices": []}
    rows = [f"ink{n}.com,fixed,{100 * n},EUR" for n in range(1, 8)]
    rows += [f"barn{n}.com,fixed,50,EUR" for n in range(4)] + ["inkwell.net,asking,,"]
    bring(market(), "name,kind,price,currency\n" + "\n".join(rows) + "\n")
    # The same name elsewhere counts once, at its lowest price.
    bring(market("other"), "name,kind,price,currency\nink7.com,fixed,400,EUR\n")
    assert api.get(path).json()["prices"] == [
        {"extension": "com", "letters": 4, "names": 7, "low": 250, "middle": 400, "high": 450}
    ]
    assert api.get(f"{path}?extensions=net").json()["prices"] == []
    assert api.get(f"{path}?extensions=nosuch").status_code == 400


def planned(api: APIClient, project: Project, **asked: Any) -> Any:
    names = ["inkpost.com", "inkpost.net", "paperbarn.com", "reed.com"]
    question = {"full_names": names, "currency": "EUR", **asked}
    answer = api.post(f"/api/projects/{project.pk}/costs", question)
    assert answer.status_code == 200, answer.json()
    return answer.json()


def test_a_plan_tells_what_names_take_that_somebody_holds(api: APIClient, project: Project) -> None:
    assert planned(api, project)["buying"] is None
    bring(market())
    costs = planned(api, project)
    by_name = {one["full_name"]: one["buying"] for one in costs["names"]}
    assert by_name["reed.com"] is None
    assert (by_name["inkpost.com"]["low"], by_name["inkpost.com"]["high"]) == ("1200.00",) * 2
    assert (by_name["paperbarn.com"]["kind"], by_name["paperbarn.com"]["low"]) == ("asking", None)
    auction = by_name["inkpost.net"]
    assert (auction["high"], auction["ceiling"], auction["over"]) == (None, None, False)
    bid = float(auction["low"])
    assert 60 < bid < 90
    assert costs["buying"]["high"] is None
    assert costs["buying"]["unknown"] == 1
    # With what one would bid at most it is a range; what is over that is told.
    some = planned(api, project, ceilings={"inkpost.net": "300", "other.com": "5"})
    of_net = next(one["buying"] for one in some["names"] if one["full_name"] == "inkpost.net")
    assert (of_net["high"], of_net["ceiling"]) == ("300.00", "300.00")
    low = planned(api, project, ceilings={"inkpost.net": "20"})
    of_net = next(one["buying"] for one in low["names"] if one["full_name"] == "inkpost.net")
    assert (of_net["high"], of_net["over"]) == (None, True)
    # Another market that sells it for less goes before.
    bring(market("other"), "name,kind,price,currency\ninkpost.com,fixed,800,EUR\n")
    cheaper = planned(api, project)["names"][0]["buying"]
    assert (cheaper["market"], cheaper["low"]) == ("The other", "800.00")
    refused = api.post(
        f"/api/projects/{project.pk}/costs",
        {"full_names": ["inkpost.com"], "ceilings": {"inkpost.com": "-1"}},
    )
    assert refused.status_code == 400


def test_views_of_the_hunt_are_kept_beside_those_of_the_names(
    api: APIClient, project: Project
) -> None:
    address = f"/api/projects/{project.pk}/views"
    cheap = [{"name": "cheap", "search": "price_max=50"}]
    kept = api.put(address, {"place": "hunt", "view": "kinds=auction", "views": cheap})
    assert kept.status_code == 200, kept.json()
    assert kept.json()["views"] == cheap
    assert api.put(address, {"view": "sort=name"}).status_code == 200
    told = api.get(f"/api/projects/{project.pk}").json()
    assert (told["view"], told["views"]) == ("sort=name", [])
    assert told["sheets"] == {"hunt": {"view": "kinds=auction", "views": cheap}}
    # Somebody else's change meanwhile is told.
    met = api.put(
        address, {"place": "hunt", "views": [], "seen": {"views": [{"name": "x", "search": ""}]}}
    )
    assert met.status_code == 409
    assert api.put(address, {"place": "nowhere", "view": ""}).status_code == 400
