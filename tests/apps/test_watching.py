"""What is watched: asked within a budget, told once."""

from __future__ import annotations

from collections import Counter
from datetime import datetime, timedelta
from typing import Any

import pytest
from django.db import connection
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.conftest import BRIEF
from tests.apps.market_lists import LIST, bring, market
from tests.apps.test_hunted import know
from tests.apps.watched import happened, watch
from tests.conftest import Registry
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.answer_store import save_answers, spread_offers
from vinetag.apps.availability.models import LastAnswer
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import create_project
from vinetag.apps.watching import asking, rounds, telling
from vinetag.apps.watching.asking import adopt_answers, ask_due
from vinetag.apps.watching.models import Happening, SpentDay, Watched
from vinetag.apps.watching.telling import remind, tell_changes
from vinetag.apps.watching.watches import (
    change_watch,
)
from vinetag.core.checking import Evidence
from vinetag.core.names import FullName
from vinetag.core.watching import Seen, write_seen
from vinetag.lookup import Answer

DAY = timedelta(days=1)


def test_what_changed_is_told_once(api: APIClient, person: User, project: Project) -> None:
    watch(project, "inkpost.com", "paperbarn.com")
    know(project, "inkpost.com", "registered")
    know(project, "paperbarn.com", "registered")
    assert tell_changes() == 0
    known = Watched.objects.get(label="inkpost")
    assert known.known["status"] == "taken"
    assert known.next_at is not None
    assert known.next_at > timezone.now() + 6 * DAY
    know(project, "inkpost.com", "unregistered")
    know(project, "paperbarn.com", "registered")
    assert tell_changes() == 1
    assert tell_changes() == 0
    answer = api.get("/api/happenings").json()
    assert answer["unread"] == 1
    [row] = answer["rows"]
    assert row["text"] == "inkpost.com is open: it can be registered. It was taken."
    assert api.post("/api/happenings/read", {"upto": row["id"]}).json()["unread"] == 0
    # Not finding out is no change, nor is finding out the same after it.
    fault = Evidence("rdap", "", timezone.now(), trouble="timeout")
    full = FullName("inkpost", "com")
    save_answers(
        project.pk, [Answer(full, "unsure", timezone.now(), trouble="timeout", evidence=(fault,))]
    )
    assert tell_changes() == 0
    assert Watched.objects.get(label="inkpost").trouble == "timeout"
    know(project, "inkpost.com", "unregistered")
    assert tell_changes() == 0
    assert Watched.objects.get(label="inkpost").trouble == ""
    # What a file brought nobody here can vouch for.
    know(project, "paperbarn.com", "unregistered")
    project.lookups.filter(label="paperbarn").update(imported=True)
    assert tell_changes() == 0


def test_killed_while_telling_nothing_is_lost_and_nothing_told_twice(
    person: User, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    names = [f"ink{n}.com" for n in range(7)]
    watch(project, *names)
    for name in names:
        know(project, name, "registered")
    tell_changes()
    for name in names:
        know(project, name, "unregistered")
    monkeypatch.setattr(telling, "CHUNK", 3)
    whole, calls = Happening.objects.bulk_create, Counter[str]()

    class Killed(BaseException):
        pass

    def dying(_manager: Any, *rows: Any, **more: Any) -> Any:
        calls["made"] += 1
        made = whole(*rows, **more)
        if calls["made"] == 2:
            raise Killed
        return made

    monkeypatch.setattr(type(Happening.objects), "bulk_create", dying)
    with pytest.raises(Killed):
        tell_changes()
    assert len(happened(person)) == 3
    tell_changes()
    tell_changes()
    assert Counter(happened(person)) == {(name, "status"): 1 for name in names}


def test_one_thing_is_told_once_however_often_its_name_is_watched(
    person: User, project: Project
) -> None:
    again = create_project(owner=person, name="Again", brief=BRIEF)
    watch(project, "inkpost.com", "reed.com")
    watch(project, "inkpost.com", kind="expiry")
    watch(project, "inkpost", kind="label", extensions=["com"])
    watch(again, "inkpost.com")
    full = FullName("inkpost", "com")
    for says, status, now in (
        ("registered", "taken", timezone.now()), ("unregistered", "open", timezone.now()),
    ):  # fmt: skip
        evidence = (Evidence("rdap", says, now),)  # type: ignore[arg-type]
        for one in (project, again):
            save_answers(one.pk, [Answer(full, status, now, evidence=evidence)])  # type: ignore[arg-type]
        tell_changes()
    assert happened(person) == [("inkpost.com", "status")]


def test_a_list_tells_at_its_own_time(person: User, project: Project) -> None:
    watch(project, "inkpost.com")
    before = timezone.now() - 9 * DAY
    evidence = (Evidence("rdap", "registered", before),)
    save_answers(
        project.pk, [Answer(FullName("inkpost", "com"), "taken", before, evidence=evidence)]
    )
    tell_changes()
    bring(market())
    spread_offers()
    assert tell_changes() == 1
    assert timezone.now() - Happening.objects.get().at < timedelta(minutes=5)


def test_what_is_ended_while_it_is_asked_about_stays_ended(
    project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    one = watch(project)

    async def nothing(rows: Any, _rule: Any) -> list[Answer]:
        return [Answer(row.name, "unsure", timezone.now(), trouble="timeout") for row in rows]

    whole = asking._keep

    def meanwhile(*given: Any) -> None:
        change_watch(one, ended=True)
        whole(*given)

    monkeypatch.setattr(asking, "_ask", nothing)
    monkeypatch.setattr(asking, "_keep", meanwhile)
    ask_due()
    assert Watched.objects.get().next_at is None


def test_offers_are_told_as_lists_change(person: User, project: Project) -> None:
    watch(project, "inkpost.com", "inkpost.net")
    know(project, "inkpost.com", "registered")
    know(project, "inkpost.net", "registered")
    tell_changes()
    row = market()
    bring(row)
    spread_offers()
    assert tell_changes() == 2
    texts = [one.args.get("more") for one in Happening.objects.order_by("pk")]
    assert texts == ["for sale at The fair, 1,200.00 EUR", "auction at The fair, 90.00 USD"]
    watched = Watched.objects.get(extension="net")
    assert watched.known["kind"] == "auction"
    assert watched.remind_at is not None
    bring(row, LIST.replace("1200", "900"))
    spread_offers()
    tell_changes()
    [told] = Happening.objects.filter(what="price")
    assert (told.args["before"], told.args["after"]) == ("1200.00 EUR", "900.00 EUR")


def test_an_end_that_is_near_is_told_once(person: User, project: Project) -> None:
    one = watch(project)
    ends = timezone.now() + timedelta(minutes=40)
    seen = Seen("offered", kind="auction", market="The fair", ends=ends)
    moment = timezone.now() - timedelta(minutes=20)
    Watched.objects.update(known=write_seen(seen), remind_at=moment)
    # The hour before was twenty minutes ago, the worker away: it is still worth telling.
    Watched.objects.update(remind_at=ends - timedelta(hours=1))
    assert remind() == 1
    assert remind() == 0
    assert Watched.objects.get(watch=one).remind_at is None
    Watched.objects.update(remind_at=ends - timedelta(hours=1))
    remind()
    assert happened(person) == [("inkpost.com", "near")]
    # One whose moment has passed is not told any more.
    Watched.objects.update(known=write_seen(Seen("offered", ends=ends - DAY)), remind_at=moment)
    assert remind() == 0


@pytest.mark.usefixtures("simulated_world")
def test_what_is_due_is_asked_and_put_off(person: User, project: Project) -> None:
    watch(project, "letter.com", "qwzxvkjhqp.com")
    assert ask_due() == 2
    tell_changes()
    found = {row.label: row for row in Watched.objects.all()}
    assert found["letter"].known["status"] in ("taken", "offered", "dropping")
    assert found["qwzxvkjhqp"].known["status"] == "open"
    assert all(row.next_at and row.next_at > timezone.now() for row in found.values())
    assert SpentDay.objects.get(owner=person).lookups == 2
    assert project.lookups.count() == 2
    assert ask_due() == 0


@pytest.mark.usefixtures("simulated_world")
def test_one_question_answers_all_who_watch_and_nobody_s_answer_is_asked_again(
    person: User, other: User, project: Project
) -> None:
    theirs = create_project(owner=other, name="Theirs", brief=BRIEF)
    watch(project, "letter.com")
    watch(theirs, "letter.com")
    assert ask_due() == 1
    assert theirs.lookups.count() == project.lookups.count() == 1
    assert sum(SpentDay.objects.values_list("lookups", flat=True)) == 1
    # What is known and fresh when a watch begins costs nothing.
    know(project, "paperbarn.com", "registered")
    watch(theirs, "paperbarn.com")
    assert ask_due() == 0
    assert theirs.lookups.get(label="paperbarn").status == "taken"
    # Somebody else's check finds it open: all who watch are told.
    tell_changes()
    LastAnswer.objects.filter(label="paperbarn").update(asked_at=timezone.now() - 2 * DAY)
    know(project, "paperbarn.com", "unregistered")
    adopt_answers()
    assert tell_changes() == 1
    assert happened(other) == [("paperbarn.com", "status")]
    theirs.refresh_from_db()
    had = theirs.answers
    adopt_answers()
    theirs.refresh_from_db()
    assert theirs.answers == had


@pytest.mark.usefixtures("simulated_world")
def test_what_rules_say_for_one_owner_is_no_answer_for_another(
    other: User, project: Project
) -> None:
    theirs = create_project(
        owner=other, name="Theirs", brief={**BRIEF, "owner": {"country": "CA", "kind": "person"}}
    )
    project.brief["owner"] = {"country": "US", "kind": "person"}
    project.save()
    watch(project, "paperbarn.ca")
    watch(theirs, "paperbarn.ca")
    for _ in range(2):
        ask_due()
        adopt_answers()
        tell_changes()
        Watched.objects.filter(asked_at=None).update(next_at=timezone.now())
    assert project.lookups.get().status == "barred"
    assert theirs.lookups.get().status != "barred"


def test_a_budget_is_kept_and_shared_out_fairly(
    person: User, other: User, project: Project, settings: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    settings.WATCH_LOOKUPS = 16
    asked: list[FullName] = []
    noon = timezone.now().replace(hour=12, minute=0)

    async def answers(rows: Any, _rule: Any) -> list[Answer]:
        asked.extend(row.name for row in rows)
        now = timezone.now()
        evidence = (Evidence("rdap", "registered", now),)
        return [Answer(row.name, "taken", now, evidence=evidence) for row in rows]

    monkeypatch.setattr(asking, "_ask", answers)
    monkeypatch.setattr(asking.timezone, "now", lambda: noon)
    monkeypatch.setattr(asking, "PLACES", 8)
    theirs = create_project(owner=other, name="Theirs", brief=BRIEF)
    watch(project, *(f"mine{n}.com" for n in range(40)))
    watch(theirs, *(f"theirs{n}.com" for n in range(5)))
    assert ask_due() == 8
    assert Counter(name.label.rstrip("0123456789") for name in asked) == {"mine": 4, "theirs": 4}
    for _ in range(6):
        ask_due()
    # By noon five eighths of three quarters of the day's budget; the rest later, or for what
    # cannot wait.
    assert SpentDay.objects.get(owner=person).lookups == 7
    assert SpentDay.objects.get(owner=other).lookups == 5
    urgent = Watched.objects.filter(watch__project=project, asked_at=None).last()
    assert urgent is not None
    Watched.objects.filter(pk=urgent.pk).update(urgent=True, next_at=noon)
    assert ask_due() == 1
    assert asked[-1] == FullName(urgent.label, urgent.extension)
    Watched.objects.filter(watch__project=project).update(urgent=True, next_at=noon)
    for _ in range(6):
        ask_due()
    assert SpentDay.objects.get(owner=person).lookups == 16


@pytest.mark.usefixtures("simulated_world")
def test_what_cannot_be_found_out_is_tried_later_and_nothing_known_is_lost(
    registry: Registry, project: Project
) -> None:
    watch(project, "letter.com")
    know(project, "letter.com", "registered")
    tell_changes()
    LastAnswer.objects.update(asked_at=timezone.now() - 9 * DAY)
    Watched.objects.update(next_at=timezone.now())
    registry.faults({"service": "rdap", "kind": "500"}, {"service": "dns", "kind": "loss"})
    assert ask_due() == 1
    row = Watched.objects.get()
    assert row.trouble
    assert row.failures == 1
    assert row.known["status"] == "taken"
    assert project.lookups.get().status == "taken"
    assert row.next_at is not None
    assert timezone.now() < row.next_at < timezone.now() + timedelta(hours=1)


def test_a_round_goes_through_all_and_one_step_that_fails_leaves_the_others(
    project: Project, monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    done: list[str] = []

    def step(name: str) -> Any:
        def work() -> int:
            done.append(name)
            if name == "second":
                raise RuntimeError(name)
            return 1

        work.__name__ = name
        return work

    monkeypatch.setattr(rounds, "STEPS", tuple(map(step, ("first", "second", "third"))))
    assert rounds.go_round()
    assert done == ["first", "second", "third"]
    assert "second failed" in caplog.text


@pytest.mark.parametrize(("database", "goes"), [("", False), ("another", True)])
def test_one_round_at_a_time_in_each_database_of_a_server(
    transactional_db: None, monkeypatch: pytest.MonkeyPatch, database: str, goes: bool
) -> None:
    monkeypatch.setattr(rounds, "STEPS", ())
    held = f"{database or connection.settings_dict['NAME']}:watching"
    someone = connection.copy()
    try:
        with someone.cursor() as cursor:
            cursor.execute("SELECT GET_LOCK(%s, 0)", [held])
            assert rounds.go_round() is goes
            cursor.execute("SELECT RELEASE_LOCK(%s)", [held])
    finally:
        someone.close()
    assert rounds.go_round()


def test_expiry_is_watched_by_its_dates(person: User, project: Project) -> None:
    watch(project, "inkpost.com", kind="expiry")
    now = timezone.now()

    def known(expires: datetime) -> None:
        evidence = (Evidence("rdap", "registered", timezone.now(), expires=expires),)
        full = FullName("inkpost", "com")
        save_answers(project.pk, [Answer(full, "taken", timezone.now(), evidence=evidence)])

    known(now + 20 * DAY)
    tell_changes()
    row = Watched.objects.get()
    assert row.remind_at is not None
    assert (row.remind_at - now).days == 13
    known(now + 385 * DAY)
    assert tell_changes() == 1
    [told] = Happening.objects.all()
    assert told.what == "expires"
