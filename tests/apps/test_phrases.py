"""Phrases: figures brought and read, narrowed, gathered and grouped."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

import pytest
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.demand_tables import at, bring, lines_of
from vinetag.apps.naming.models import Project
from vinetag.apps.phrases import bringing, habits, shelf, tasks
from vinetag.apps.phrases.models import ColumnHabit, PhraseBook, PhraseFile


@pytest.fixture(autouse=True)
def _read_here(monkeypatch: pytest.MonkeyPatch) -> None:
    """The queue is this thread; nothing of another test is in memory."""
    monkeypatch.setattr(tasks.read_figures, "delay", tasks.read_figures)
    shelf._shelves.clear()


def test_figures_are_brought_and_listed(api: APIClient, project: Project) -> None:
    told = bring(api, project, country="IE", language="en", dated="2026-11-01").json()
    (file,) = told["files"]
    assert (file["state"], file["lines"], file["taken"], file["wrong"]) == ("done", 9, 9, 0)
    assert told["views"] == [
        {
            "key": "Almanac|IE|en", "source": "Almanac", "country": "IE", "language": "en",
            "known": 8, "newest": "2026-11-01",
        }
    ]  # fmt: skip
    lines = lines_of(api, project)
    assert next(iter(lines)) == "piano lessons"
    # Twice the same figure is one that was told twice; 0 is known, nothing is not.
    assert (lines["piano tuning"]["demand"], lines["piano tuning"]["variants"]) == (1200, 2)
    assert (lines["piano tuner"]["demand"], lines["piano tuner"]["variants"]) == (1700, 2)
    assert lines["upright piano"]["demand"] == 0
    assert lines["piano stool"]["demand"] is None
    assert lines["piano tuning"]["figure"]["price"] == "1.2"


def test_phrases_are_narrowed_and_ordered(api: APIClient, project: Project) -> None:
    bring(api, project)
    assert list(lines_of(api, project, text="tuning piano")) == ["piano tuning"]
    assert list(lines_of(api, project, demand_min=1000, sort="phrase")) == [
        "piano lessons", "piano tuner", "piano tuning",
    ]  # fmt: skip
    assert list(lines_of(api, project, known="no")) == ["piano stool"]
    assert list(lines_of(api, project, words_min=3)) == ["piano lessons for beginners"]
    assert list(lines_of(api, project, competition_max=0.3)) == ["piano repair"]
    by_price = list(lines_of(api, project, sort="price"))
    assert by_price[0] == "piano repair"
    assert set(by_price[-3:]) == {"piano stool", "upright piano", "piano lessons for beginners"}
    assert api.get(at(project), {"demand_min": "many"}).status_code == 400


def test_figures_of_two_sources_are_never_added(api: APIClient, project: Project) -> None:
    bring(api, project, country="IE")
    bring(
        api, project, "phrase;searches\npiano tuning;90\npiano polish;40\n", "Ledger", country="IE"
    )
    assert lines_of(api, project)["piano tuning"]["demand"] == 1200
    theirs = lines_of(api, project, view="Ledger|IE|")
    assert (theirs["piano tuning"]["demand"], theirs["piano lessons"]["demand"]) == (90, None)
    assert lines_of(api, project)["piano polish"]["demand"] is None
    one = api.get(at(project, "one", "piano tuning")).json()
    assert {f["view"]: f["figure"]["low"] for f in one["figures"]} == {
        "Almanac|IE|": 1200, "Ledger|IE|": 90,
    }  # fmt: skip


def test_newer_figures_of_a_source_take_the_place_of_older(
    api: APIClient, project: Project
) -> None:
    bring(api, project, dated="2026-10-01")
    bring(api, project, "phrase,searches\npiano tuning,1300\npiano polish,20\n", dated="2026-11-01")
    lines = lines_of(api, project)
    assert lines["piano tuning"]["figure"]["low"] == 1300
    assert lines["piano tuning"]["figure"]["dated"] == "2026-11-01"
    assert lines["piano lessons"]["figure"]["dated"] == "2026-10-01"
    told = api.get(at(project, "figures")).json()["files"][0]["problems"]
    assert told[0]["message"].startswith("1 of its phrases stand in “Almanac” of the same source")
    assert "figures of 2026-11-01 count" in told[0]["message"]
    # Whichever is brought last.
    bring(api, project, "phrase,searches\npiano tuning,5\n", dated="2026-01-01")
    assert lines_of(api, project)["piano tuning"]["figure"]["low"] == 1300


def test_figures_are_removed_and_brought_back(api: APIClient, project: Project) -> None:
    (file,) = bring(api, project).json()["files"]
    assert api.delete(at(project, "figures", str(file["id"]))).json()["phrases"] == 0
    assert lines_of(api, project) == {}
    assert api.delete(at(project, "figures", str(file["id"]))).status_code == 404
    assert api.post(at(project, "figures", str(file["id"]))).json()["phrases"] == 9
    assert len(lines_of(api, project)) == 7


def test_columns_put_right_are_remembered(
    api: APIClient, person: Any, project: Project, other: Any
) -> None:
    text = "was gesucht wird,Anzahl,Rang\nklavier stimmen,90,7\nstimmgabel,40,3\n"
    look = lambda: api.post(  # noqa: E731
        at(project, "figures", "look"), text.encode(), content_type="application/octet-stream"
    ).json()
    told = look()
    assert (told["heading_line"], told["separator"], told["habit"]) == (1, ",", False)
    assert [c["kind"] for c in told["columns"]] == ["phrase", "searches", ""]
    bring(api, project, text, columns="phrase,,searches")
    assert lines_of(api, project)["klavier stimmen"]["demand"] == 7
    again = look()
    assert (again["habit"], [c["kind"] for c in again["columns"]]) == (
        True, ["phrase", "", "searches"],
    )  # fmt: skip
    assert ColumnHabit.objects.get().owner == person
    refused = bring(api, project, text, columns=",searches,")
    assert refused.status_code == 400
    assert refused.json()["problems"][0]["path"] == "columns"


@pytest.mark.parametrize(
    ("content", "about", "path"),
    [
        (b"", {}, "file"),
        (b"\xff\xfe \x00", {}, "file"),
        (b"phrase,searches\na b,1\n", {"country": "XX"}, "country"),
        (b"phrase,searches\na b,1\n", {"currency": "EURO"}, "currency"),
        (b"phrase,searches\na b,1\n", {"dated": "2999-01-01"}, "dated"),
        (b"phrase,searches\na b,1\n", {"source": " "}, "source"),
        (b"1,2\n3,4\n", {}, "columns"),
    ],
)
def test_what_cannot_be_taken_is_told_at_its_place(
    api: APIClient, project: Project, content: bytes, about: dict[str, str], path: str
) -> None:
    refused = bring(api, project, content, **about)
    assert refused.status_code == 400
    assert refused.json()["problems"][0]["path"] == path
    assert not PhraseFile.objects.exists()


def test_one_file_at_a_time_and_one_given_up_is_told(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(tasks.read_figures, "delay", lambda _: None)
    bring(api, project)
    assert bring(api, project).status_code == 409
    file = PhraseFile.objects.get()
    assert bringing.stale_files() == [file.pk]
    PhraseFile.objects.update(tries=bringing.MOST_TRIES)
    tasks.read_figures(file.pk)
    told = api.get(at(project, "figures")).json()["files"][0]
    assert told["state"] == "failed"
    assert "three tries" in told["problems"][0]["message"]


def test_a_file_is_read_once_whoever_is_told(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(tasks.read_figures, "delay", lambda _: None)
    bring(api, project)
    file = PhraseFile.objects.get()
    now = timezone.now()
    # Somebody has it.
    PhraseFile.objects.update(state="reading", heartbeat_at=now)
    tasks.read_figures(file.pk)
    assert PhraseFile.objects.get().state == "reading"
    # They are gone.
    PhraseFile.objects.update(heartbeat_at=now - timedelta(minutes=5))
    tasks.read_waiting_figures()
    tasks.read_figures(file.pk)
    assert PhraseFile.objects.get().state == "done"
    tasks.read_figures(file.pk)
    assert PhraseBook.objects.get().edition == 1


def test_gathered_phrases_are_set_apart_and_put_back(api: APIClient, project: Project) -> None:
    bring(api, project)
    one = api.get(at(project, "one", "tuning piano")).json()
    assert one["line"]["phrase"] == "piano tuning"
    assert [(g["phrase"], g["way"]) for g in one["gathered"]] == [
        ("piano tuning", "head"), ("tuning piano", "order"),
    ]  # fmt: skip
    assert "piano tuner" in [c["line"]["phrase"] for c in one["companions"]]
    api.post(at(project, "apart"), {"phrases": ["tuning piano"]}, format="json")
    assert "tuning piano" in lines_of(api, project)
    api.post(at(project, "apart"), {"phrases": ["tuning piano"], "on": False}, format="json")
    assert "tuning piano" not in lines_of(api, project)
    api.post(at(project, "aside"), {"phrases": ["piano stool"]}, format="json")
    assert "piano stool" not in lines_of(api, project)
    assert api.get(at(project, "figures")).json()["dropped"] == 1
    bring(api, project, "phrase,searches\npiano stool,7\n", "Ledger")
    assert "piano stool" in lines_of(api, project)
    assert api.get(at(project, "one", "nothing such")).status_code == 404


def test_groups_have_heads_with_reasons(api: APIClient, project: Project) -> None:
    bring(api, project)
    told = api.get(at(project, "groups"), {"cut": 1}).json()
    (group,) = told["groups"]
    assert (told["count"], group["count"], group["unknown"], group["share"]) == (1, 7, 1, 1)
    assert told["demand"] == group["demand"] == 5000 + 1700 + 1200 + 700 + 300
    cover = group["cover"]
    assert group["head"] == "piano lessons"
    assert cover["within"] == 1
    assert cover["own_share"] == pytest.approx(5000 / 8900, abs=1e-4)
    assert cover["within_share"] == pytest.approx(700 / 8900, abs=1e-4)
    assert group["lines"][0]["in_group"] == pytest.approx(cover["share"], abs=1e-3)
    apart = api.get(at(project, "groups"), {"cut": 0}).json()
    assert apart["count"] == 7
    assert all(one["cover"]["share"] in (0, 1) for one in apart["groups"])
    inside = lines_of(api, project, group="piano lessons", cut=0.6)
    assert "piano lessons for beginners" in inside
    assert "piano repair" not in inside


def test_phrases_are_typed(api: APIClient, project: Project) -> None:
    told = api.post(
        at(project, "typed"), {"text": "Piano  Tuning\n\n!!\npiano polish\n"}, format="json"
    ).json()
    assert told["new"] == 2
    assert told["problems"][0]["path"] == "line 3"
    assert (
        api.post(at(project, "typed"), {"text": "piano tuning"}, format="json").json()["new"] == 0
    )
    assert set(lines_of(api, project)) == {"piano tuning", "piano polish"}
    assert api.post(at(project, "typed"), {"text": "??"}, format="json").status_code == 400


def test_what_is_taken_away_while_it_is_read_stays_away(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(tasks.read_figures, "delay", lambda _: None)
    bring(api, project)
    file = PhraseFile.objects.get()
    real = bringing.read_demand

    def meanwhile(*args: Any) -> Any:
        assert api.delete(at(project, "figures", str(file.pk))).status_code == 200
        return real(*args)

    monkeypatch.setattr(bringing, "read_demand", meanwhile)
    tasks.read_figures(file.pk)
    file.refresh_from_db()
    assert (file.state, file.removed_at is None) == ("done", False)
    assert lines_of(api, project) == {}
    api.post(at(project, "figures", str(file.pk)))
    assert len(lines_of(api, project)) == 7


def test_what_was_taken_away_makes_room_and_comes_back_while_there_is_some(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(bringing, "MOST_FILES", 2)
    first = bring(api, project).json()["files"][0]["id"]
    bring(api, project, source="Ledger")
    full = bring(api, project, source="Third")
    assert full.status_code == 400
    assert "at most 2 files" in full.json()["problems"][0]["message"]
    api.delete(at(project, "figures", str(first)))
    assert bring(api, project, source="Third").status_code == 202
    # It has made room for good.
    assert api.post(at(project, "figures", str(first))).status_code == 404
    last = PhraseFile.objects.latest("pk")
    api.delete(at(project, "figures", str(last.pk)))
    monkeypatch.setattr(bringing, "MOST_ALL", 10)
    refused = api.post(at(project, "figures", str(last.pk)))
    assert refused.json()["problems"][0]["code"] == "demand_all"
    assert bring(api, project, source="Fourth").json()["files"][0]["state"] == "failed"


def test_a_phrase_may_have_any_sign_in_it(api: APIClient, project: Project) -> None:
    bring(api, project, "phrase,searches\na/c repair,70\n24/7 piano?,5\nrock & roll,9\n")
    for phrase, path in (
        ("a/c repair", "a%2Fc%20repair"), ("24/7 piano?", "24%2F7%20piano%3F"),
        ("rock & roll", "rock%20%26%20roll"),
    ):  # fmt: skip
        assert api.get(at(project, "one", path)).json()["line"]["phrase"] == phrase


def test_columns_are_remembered_for_so_many_headings_and_hold_what_there_is(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(habits, "MOST_HABITS", 2)
    for heading in ("one", "two", "three"):
        text = f"{heading},Anzahl,Rang\npiano tuning,90,7\n"
        bring(api, project, text, columns="phrase,,searches")
    assert ColumnHabit.objects.count() == 2
    # A month that is none, and a kind nobody knows, hold nothing.
    bring(api, project, "four,b,c\npiano tuning,90,7\n", columns="phrase,month:soon,nonsense")
    last = PhraseFile.objects.latest("pk")
    assert [column["kind"] for column in last.columns] == ["phrase", "", ""]
    # As it seems again: there is nothing to remember.
    bring(api, project, "three,Anzahl,Rang\npiano tuning,90,7\n", columns="phrase,searches,")
    told = api.post(
        at(project, "figures", "look"), b"three,Anzahl,Rang\npiano tuning,90,7\n",
        content_type="application/octet-stream",
    ).json()  # fmt: skip
    assert told["habit"] is False


def test_phrases_belong_to_the_country_and_language_of_their_line(
    api: APIClient, project: Project
) -> None:
    text = (
        "phrase,searches,country,language\npiano tuning,90,Ireland,en\npiano tuning,40,GB,en\n"
        "piano polish,7,,\n"
    )
    told = bring(api, project, text, country="DE", language="de").json()
    assert [(v["country"], v["language"], v["known"]) for v in told["views"]] == [
        ("IE", "en", 1), ("GB", "en", 1), ("DE", "de", 1),
    ]  # fmt: skip
    british = lines_of(api, project, view="Almanac|GB|en")
    assert british["piano tuning"]["demand"] == 40
    assert british["piano polish"]["demand"] is None
    # A view nobody has is the usual one.
    assert lines_of(api, project, view="None|XX|")["piano tuning"]["demand"] in (90, 40)


def test_seasons_are_found_and_ordered_by(api: APIClient, project: Project) -> None:
    months = ",".join(f"2026-{m:02}" for m in range(1, 13))
    level, none = ",".join(["100"] * 12), ",".join(["0"] * 12)
    text = (
        f"phrase,searches,{months}\nskates,100,{','.join(['10'] * 11)},1090\n"
        f"lamps,100,{level}\nkites,100,{none}\ndrums,50{',' * 12}\n"
    )
    bring(api, project, text)
    lines = lines_of(api, project, sort="season")
    assert next(iter(lines)) == "skates"
    assert lines["skates"]["season"] == {"peak": 11, "times": 10.9}
    assert lines["lamps"]["season"] is None
    assert lines["kites"]["season"] is None
    assert lines["drums"]["figure"]["months"] == []
    assert list(lines_of(api, project, season=True)) == ["skates"]
    # What is not known stands last whichever way.
    assert list(lines_of(api, project, sort="season", reverse=True))[-1] in ("drums", "kites")


def test_a_shelf_is_made_once_for_all_processes(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    bring(api, project)
    before = lines_of(api, project, sort="covers")
    book = PhraseBook.objects.get()
    assert book.worked_edition == book.edition

    def again(*_: object) -> None:
        raise AssertionError("it was worked out already")

    monkeypatch.setattr(shelf, "_work", again)
    shelf._shelves.clear()
    assert lines_of(api, project, sort="covers") == before
    # Many of them make room for one another.
    monkeypatch.setattr(shelf, "MOST_ROWS", 0)
    shelf.shelf_of(project)
    assert len(shelf._shelves) == 1
