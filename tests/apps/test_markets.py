"""Markets: lists brought as a whole or not at all, what names are told of them, and the hunt."""

from __future__ import annotations

import gzip
import io
from collections.abc import Callable
from datetime import timedelta
from pathlib import Path
from typing import Any

import pytest
from django.core.management import CommandError, call_command
from django.utils import timezone
from rest_framework.test import APIClient

from tests.conftest import Registry
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.answer_store import save_answers, spread_offers
from vinetag.apps.hunting import hunts
from vinetag.apps.market import lists, refresh, tasks
from vinetag.apps.market.models import ListFile, MarketRow, OfferChange, OfferRow
from vinetag.apps.market.offers import offers_of
from vinetag.apps.naming.models import Project
from vinetag.core.checking import Evidence, Says, Source
from vinetag.core.names import FullName
from vinetag.lake.unpacking import FeedError
from vinetag.lookup import Answer

SOON = (timezone.now() + timedelta(days=2)).strftime("%Y-%m-%dT%H:%M:%SZ")
LIST = f"""name,kind,price,currency,bids,ends,first_registered,links,used_for
inkpost.com,fixed,1200,EUR,,,2001-03-04,17,adult
inkpost.net,auction,90,USD,4,{SOON},,,
paperbarn.com,asking,,,,,,,
quietriver.org,fixed,call,EUR,,,,,
"""


@pytest.fixture
def administrator(person: User) -> User:
    person.is_staff = True
    person.save()
    return person


@pytest.fixture
def read_at_once(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(tasks.read_list, "delay", tasks.read_list)


def market(code: str = "fair", **more: Any) -> MarketRow:
    return MarketRow.objects.create(code=code, name=f"The {code}", **more)


def bring(row: MarketRow, text: str | bytes = LIST) -> lists.Brought:
    body = text.encode() if isinstance(text, str) else text
    row.refresh_from_db()
    return lists.bring_list(row, io.BytesIO(body))


@pytest.mark.usefixtures("administrator", "read_at_once")
def test_a_list_is_brought_and_what_is_wrong_is_told(api: APIClient) -> None:
    answer = api.post(
        "/api/markets/fair/list?name=The+Fair", gzip.compress(LIST.encode()),
        content_type="application/octet-stream",
    )  # fmt: skip
    assert answer.status_code == 202, answer.json()
    told = api.get("/api/markets").json()
    [row], [file] = told["markets"], told["files"]
    assert (row["code"], row["name"], row["names"], row["followed"]) == (
        "fair",
        "The Fair",
        3,
        False,
    )
    assert (file["state"], file["taken"], file["new"], file["wrong"]) == ("done", 3, 3, 1)
    [problem] = file["problems"]
    assert (problem["path"], problem["code"]) == ("line 5, price", "feed_unpriced")
    assert OfferRow.objects.count() == 3
    assert list((lists.lake() / "inbox").iterdir()) == []


@pytest.mark.parametrize(
    ("code", "body", "status"),
    [("Fair Names", LIST, 400), ("fair", "", 400), ("fair", "  \n", 400), ("followed", LIST, 409)],
)
@pytest.mark.usefixtures("administrator")
def test_what_cannot_be_brought_is_refused(
    api: APIClient, code: str, body: str, status: int
) -> None:
    market("followed", address="/list.csv")
    answer = api.post(
        f"/api/markets/{code}/list", body.encode(), content_type="application/octet-stream"
    )
    assert answer.status_code == status, answer.json()
    assert not ListFile.objects.exists()


def test_only_administrators_bring_lists(api: APIClient) -> None:
    answer = api.post("/api/markets/fair/list", LIST, content_type="application/octet-stream")
    assert answer.status_code == 404
    told = api.get("/api/markets").json()
    assert (told["may_edit"], told["files"]) == (False, [])


def test_a_newer_list_tells_what_changed(db: None) -> None:
    row = market()
    bring(row)
    dearer = LIST.replace("1200", "1500").replace("paperbarn.com,asking,,,,,,,\n", "")
    brought = bring(row, dearer)
    edition = brought.edition
    assert (edition.new, edition.changed, edition.gone) == (0, 1, 1)
    changes = {c.label: (c.what, c.before, c.after) for c in OfferChange.objects.all()}
    assert changes == {
        "inkpost": ("price", "1200.000 EUR", "1500.000 EUR"), "paperbarn": ("gone", "", ""),
    }  # fmt: skip
    assert OfferRow.objects.get(label="paperbarn").gone_at is not None
    known = offers_of([FullName("paperbarn", "com"), FullName("inkpost", "com")])
    assert {str(name) for name in known} == {"inkpost.com"}
    # The same once more changes nothing, and one that comes back is there again.
    assert bring(row, dearer).edition.changed == 0
    bring(row)
    assert OfferRow.objects.get(label="paperbarn").gone_at is None
    assert OfferRow.objects.count() == 3


@pytest.mark.parametrize("body", ["<html>", LIST.replace("name,", "domain,"), "name,kind\nx,y\n"])
def test_a_list_that_is_none_leaves_the_one_before(db: None, body: str) -> None:
    row = market()
    bring(row)
    before = row.edition
    with pytest.raises(FeedError):
        bring(row, body)
    row.refresh_from_db()
    assert row.edition == before
    assert OfferRow.objects.filter(gone_at=None).count() == 3
    assert len(list((lists.lake() / "offers" / "fair").iterdir())) == 1


def test_a_list_cut_off_is_told_and_not_half_taken(db: None) -> None:
    row = market()
    file = refresh._queue(row, "a.gz", io.BytesIO(gzip.compress(LIST.encode())[:-12]), [])
    ListFile.objects.update(heartbeat_at=timezone.now() - timedelta(hours=1))
    refresh.read_file(file.pk)
    file.refresh_from_db()
    row.refresh_from_db()
    assert (file.state, [p["code"] for p in file.problems]) == ("failed", ["feed_broken"])
    assert "ends in the middle" in row.trouble
    assert not OfferRow.objects.exists()


def test_killed_while_it_is_stored_nothing_of_it_counts(
    db: None, monkeypatch: pytest.MonkeyPatch
) -> None:
    row = market()
    bring(row)
    file = refresh._queue(row, "b.csv", io.BytesIO(LIST.replace("1200", "9").encode()), [])
    ListFile.objects.update(heartbeat_at=timezone.now() - timedelta(hours=1))
    load = lists._load

    def killed(*about: Any) -> None:
        load(*about)
        raise KeyboardInterrupt

    monkeypatch.setattr(lists, "_load", killed)
    with pytest.raises(KeyboardInterrupt):
        refresh.read_file(file.pk)
    assert OfferRow.objects.get(label="inkpost", extension="com").price == 1200
    assert refresh.waiting_files() == []
    # Whoever finds it without a worker reads it again, and it counts once.
    monkeypatch.setattr(lists, "_load", load)
    ListFile.objects.update(heartbeat_at=timezone.now() - timedelta(hours=1))
    assert refresh.waiting_files() == [file.pk]
    refresh.read_file(file.pk)
    refresh.read_file(file.pk)
    assert OfferRow.objects.get(label="inkpost", extension="com").price == 9
    assert OfferChange.objects.count() == 1
    assert ListFile.objects.get(pk=file.pk).state == "done"


def test_a_list_that_kills_its_readers_is_given_up(db: None) -> None:
    file = refresh._queue(market(), "c.csv", io.BytesIO(LIST.encode()), [])
    long_ago = timezone.now() - timedelta(hours=1)
    ListFile.objects.update(heartbeat_at=long_ago, tries=refresh.MOST_TRIES)
    refresh.read_file(file.pk)
    file.refresh_from_db()
    assert (file.state, [p["code"] for p in file.problems]) == ("failed", ["feed_given_up"])


def test_two_lists_at_once_do_not_mix(db: None) -> None:
    row = market()
    stale = MarketRow.objects.get(pk=row.pk)
    bring(row)
    with pytest.raises(FeedError) as refused:
        lists.bring_list(stale, io.BytesIO(LIST.replace("1200", "1").encode()))
    assert refused.value.problems[0].code == "feed_overtaken"
    assert OfferRow.objects.get(label="inkpost", extension="com").price == 1200


def test_markets_of_the_settings_are_followed(
    db: None, registry: Registry, settings: Any, read_at_once: None
) -> None:
    settings.LOOKUP = type(settings.LOOKUP).from_env(registry.environment)
    assert refresh.is_due()
    tasks.refresh_when_due()
    assert not refresh.is_due()
    rows = {row.code: row for row in MarketRow.objects.all()}
    assert len(rows) == 5
    assert all(row.names > 100 and not row.trouble for row in rows.values())
    assert {f.state for f in ListFile.objects.all()} == {"done"}
    # What has not changed does not come again; what fails keeps its list and says so.
    registry.faults({"service": "markets", "kind": "500", "registry": "ebb"})
    refresh.refresh_markets()
    assert ListFile.objects.count() == 5
    assert MarketRow.objects.get(code="ebb").trouble
    assert MarketRow.objects.get(code="ebb").names == rows["ebb"].names


def test_a_command_brings_a_list_of_any_size(
    db: None, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    file = tmp_path / "offers.csv"
    file.write_text(LIST, "utf-8")
    call_command("bring_offers", "fair", str(file), "--name", "The Fair")
    out = capsys.readouterr()
    assert "3 names" in out.out
    assert "line 5, price" in out.err
    assert MarketRow.objects.get(code="fair").name == "The Fair"
    with pytest.raises(CommandError):
        call_command("bring_offers", "fair", str(tmp_path / "missing.csv"))
    file.write_text("<html>", "utf-8")
    with pytest.raises(CommandError):
        call_command("bring_offers", "fair", str(file))


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


def test_what_is_thrown_away_is_swept(
    db: None, monkeypatch: pytest.MonkeyPatch, django_assert_max_num_queries: Callable[..., Any]
) -> None:
    left = lists.lake() / "work" / "left"
    left.mkdir(parents=True)
    (left / "plain").write_text("x")
    lists.sweep_workshop(1e6)
    assert left.exists()
    lists.sweep_workshop(-1)
    assert not left.exists()
    bring(market())
    with django_assert_max_num_queries(3):
        assert len(offers_of(FullName(f"name{n}", "com") for n in range(1_500))) == 0


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
