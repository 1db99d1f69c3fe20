"""Watches: kept with a reason and an end, asked within a budget, told once."""

from __future__ import annotations

from collections import Counter
from datetime import datetime, timedelta
from typing import Any

import pytest
from django.core.cache import cache
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.conftest import BRIEF, client_of
from tests.apps.market_lists import LIST, bring, market
from tests.apps.test_hunted import know
from tests.conftest import Registry
from vinetag.apps.accounts.errors import ConflictError, RefusedError
from vinetag.apps.accounts.joining import Bringing
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.answer_store import save_answers, spread_offers
from vinetag.apps.availability.models import LastAnswer
from vinetag.apps.costs.models import PriceVersion, SellerRow
from vinetag.apps.costs.sellers import new_version
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import create_project
from vinetag.apps.watching import asking, rounds, telling
from vinetag.apps.watching.asking import adopt_answers, ask_due
from vinetag.apps.watching.filed import AskedItem, WatchingFields, WatchItem, write
from vinetag.apps.watching.filed import bring as bring_filed
from vinetag.apps.watching.models import Happening, SpentDay, Watch, Watched
from vinetag.apps.watching.searching import look_at_prices, look_at_searches
from vinetag.apps.watching.telling import remind, tell_changes
from vinetag.apps.watching.watches import (
    Wish,
    change_watch,
    end_overdue,
    forget_old,
    start_watch,
)
from vinetag.core.checking import Evidence
from vinetag.core.names import FullName
from vinetag.core.watching import Seen, write_seen
from vinetag.lookup import Answer

DAY = timedelta(days=1)


def watch(project: Project, *names: str, kind: str = "name", **more: Any) -> Watch:
    return start_watch(project, Wish(kind, names=names or ("inkpost.com",), **more))  # type: ignore[arg-type]


def happened(person: User) -> list[tuple[str, str]]:
    rows = Happening.objects.filter(owner=person).order_by("pk")
    return [(f"{one.label}.{one.extension}" if one.label else "", one.what) for one in rows]


def test_a_watch_is_kept_with_its_reason_and_its_end(api: APIClient, project: Project) -> None:
    path = f"/api/projects/{project.pk}/watches"
    sent = {"kind": "name", "names": ["inkpost.com"], "reason": "  the  favourite "}
    made = api.post(path, sent)
    assert made.status_code == 201, made.json()
    kept = made.json()
    assert (kept["title"], kept["reason"], kept["names"]) == ("inkpost.com", "the favourite", 1)
    assert kept["ends_on"] == (timezone.localdate() + 90 * DAY).isoformat()
    assert kept["first"] == "inkpost.com"
    several = {"kind": "label", "names": ["paperbarn"], "extensions": ["com", ".ie"]}
    assert api.post(path, several).json()["title"] == "paperbarn under 2 extensions"
    listed = api.get("/api/watches").json()
    assert [one["kind"] for one in listed["watches"]] == ["label", "name"]
    assert listed["standing"] == {
        "names": 3, "most_names": 10_000, "watches": 2, "spent": 0, "budget": 2_000,
    }  # fmt: skip
    page = api.get(f"/api/projects/{project.pk}/names/paperbarn").json()
    assert [one["extension"] for one in page["watched"]] == ["com", "ie"]
    # Ended and gone on with; what is over is asked about no more.
    one = f"/api/watches/{kept['id']}"
    assert api.patch(one, {"ended": True}).json()["ended_at"] is not None
    assert Watched.objects.get(watch=kept["id"]).next_at is None
    assert api.get(f"/api/projects/{project.pk}/names/inkpost").json()["watched"] == []
    assert api.patch(one, {"ended": False, "reason": "again"}).json()["ended_at"] is None
    assert Watched.objects.get(watch=kept["id"]).next_at is not None
    [row] = api.get(f"{one}/names").json()["rows"]
    assert (row["label"], row["known"], row["trouble"]) == ("inkpost", {}, "")
    assert api.delete(one).status_code == 204


@pytest.mark.parametrize(
    ("sent", "paths"),
    [
        ({"kind": "name", "names": []}, {"names"}),
        ({"kind": "name", "names": ["ink post.com", "-x.com", "a.nosuch"]},
         {"names.0", "names.1", "names.2"}),
        ({"kind": "label", "names": ["ink"], "extensions": ["com", "nosuch"]}, {"extensions.1"}),
        ({"kind": "name", "names": ["ink.com"], "ends_on": "2020-01-01"}, {"ends_on"}),
        ({"kind": "name", "names": ["ink.com"], "ends_on": "soon"}, {"ends_on"}),
        ({"kind": "garden", "names": ["ink.com"]}, {"kind"}),
        ({"kind": "hunt", "question": {"price_max": "cheap"}}, {"price_max"}),
        ({"kind": "price", "seller": "nobody", "extension": "nosuch", "action": "move"},
         {"seller", "extension", "action"}),
    ],
)  # fmt: skip
def test_what_makes_no_sense_is_refused_with_its_place(
    api: APIClient, project: Project, sent: dict[str, Any], paths: set[str]
) -> None:
    answer = api.post(f"/api/projects/{project.pk}/watches", sent)
    assert answer.status_code == 400
    assert {p["path"] for p in answer.json()["problems"]} == paths
    assert all(p["message"] for p in answer.json()["problems"])
    assert not Watch.objects.exists()


def test_more_than_can_be_watched_is_refused_as_a_whole(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    names = [f"n{i}" for i in range(100_000)]
    answer = api.post(f"/api/projects/{project.pk}/watches", {"kind": "name", "names": names})
    assert answer.status_code == 400
    assert answer.json()["problems"][0]["message"] == (
        "At most 10,000 here; these are 100,000. Nothing was added."
    )
    monkeypatch.setattr("vinetag.apps.watching.watches.MOST_NAMES", 3)
    watch(project, "inkpost.com", "inkpost.net")
    with pytest.raises(ConflictError, match="you watch 2, and these are 2 more"):
        watch(project, "paperbarn.com", "paperbarn.net")
    with pytest.raises(ConflictError, match="is watched already"):
        watch(project, "inkpost.com")
    assert Watched.objects.count() == 2


def test_nobody_sees_or_changes_what_another_watches(other: User, project: Project) -> None:
    one = watch(project)
    api = client_of(other)
    assert api.get("/api/watches").json()["watches"] == []
    for method, path in (
        ("patch", f"watches/{one.pk}"), ("delete", f"watches/{one.pk}"),
        ("get", f"watches/{one.pk}/names"), ("post", f"projects/{project.pk}/watches"),
    ):  # fmt: skip
        assert getattr(api, method)(f"/api/{path}", {}).status_code == 404
    know(project, "inkpost.com", "registered")
    tell_changes()
    know(project, "inkpost.com", "unregistered")
    tell_changes()
    assert Happening.objects.count() == 1
    assert api.get("/api/happenings").json() == {"rows": [], "unread": 0}
    api.post("/api/happenings/read", {"upto": 1_000_000})
    assert client_of(project.owner).get("/api/happenings").json()["unread"] == 1


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


def test_a_search_tells_what_lists_have_anew(person: User, project: Project) -> None:
    row = market()
    bring(row)
    wish = Wish("hunt", title="ink for less", question={"text": "ink", "price_max": "1000"})
    start_watch(project, wish)
    assert look_at_searches() == 0  # what was there when it began
    newer = LIST + "inkwell.com,fixed,700,EUR,,,,,\ninkbarn.com,fixed,5000,EUR,,,,,\n"
    bring(row, newer)
    assert look_at_searches() == 1
    assert look_at_searches() == 0
    [told] = Happening.objects.all()
    assert told.args == {"title": "ink for less", "count": 1, "names": ["inkwell.com (700.00 EUR)"]}
    # The same list again, one that lost the name, and one that has it back: not for the same price.
    for text, told_now in (
        (newer, 0), (LIST, 0), (newer, 0),
        (newer.replace("700", "600").replace("5000", "900"), 1),
    ):  # fmt: skip
        bring(row, text)
        assert look_at_searches() == told_now
    assert Happening.objects.latest("pk").args["names"] == [
        "inkwell.com (600.00 EUR)", "inkbarn.com (900.00 EUR)",
    ]  # fmt: skip
    # A list that was read for long is older than one that came meanwhile; a market may be new.
    slow, young = market("slow"), market("young")
    bring(slow, "name,kind,price,currency\ninkslow.com,fixed,50,EUR\n")
    look_at_searches()
    bring(young, "name,kind,price,currency\ninkyoung.com,fixed,60,EUR\n")
    assert look_at_searches() == 1
    told = [one.args["names"] for one in Happening.objects.order_by("pk")]
    assert told[-2:] == [["inkslow.com (50.00 EUR)"], ["inkyoung.com (60.00 EUR)"]]


def test_one_watch_that_fails_leaves_the_others_be(
    person: User, project: Project, caplog: pytest.LogCaptureFixture
) -> None:
    row = market()
    bring(row)
    broken = start_watch(project, Wish("hunt", title="broken", question={"text": "ink"}))
    start_watch(project, Wish("hunt", title="whole", question={"text": "barn"}))
    look_at_searches()
    broken.refresh_from_db()
    broken.asked = {"question": {"price_max": "call"}}
    broken.save()
    bring(row, LIST + "bookbarn.com,fixed,700,EUR,,,,,\n")
    assert look_at_searches() == 1
    assert f"watch {broken.pk} could not be looked at" in caplog.text


def test_a_seller_s_price_is_told_when_it_is_another(person: User, project: Project) -> None:
    seller = SellerRow.objects.create(
        code="larkspur", asked_at=timezone.now(),
        terms={"code": "larkspur", "name": "Larkspur", "country": "IE", "currency": "EUR"},
    )  # fmt: skip

    def lists(price: str) -> None:
        text = f"extension,action,price\ncom,register,9\ncom,renew,{price}\n"
        new_version(seller, text, timezone.localdate())

    lists("12.00")
    start_watch(project, Wish("price", seller="larkspur", extension="com", action="renew"))
    assert look_at_prices() == 0
    lists("12.00")
    assert look_at_prices() == 0
    lists("10.50")
    assert look_at_prices() == 1
    assert look_at_prices() == 0
    [told] = Happening.objects.all()
    assert (told.args["before"], told.args["after"]) == ("12.00 EUR", "10.50 EUR")
    assert PriceVersion.objects.count() == 2


def test_watches_end_on_their_day(project: Project) -> None:
    one = watch(project)
    assert end_overdue() == 0
    Watch.objects.update(ends_on=timezone.localdate())
    assert end_overdue() == 1
    assert Watched.objects.get(watch=one).next_at is None
    again = change_watch(one, ended=False)
    assert again.ended_at is None
    assert again.ends_on > timezone.localdate()
    with pytest.raises(RefusedError):
        change_watch(one, ends_on=timezone.localdate())


def test_what_is_long_over_is_forgotten_once_a_day(project: Project) -> None:
    one, now = watch(project), timezone.now()
    for days in (1, 500):
        Happening.objects.create(
            owner=project.owner, watch=one, what="status", sign=str(days), at=now - days * DAY
        )
    cache.clear()
    assert (forget_old(), forget_old()) == (1, 0)
    assert Happening.objects.get().sign == "1"


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


def test_what_a_file_has_of_watches_is_watched_as_far_as_it_can_be(
    project: Project, other: User
) -> None:
    watch(project, "inkpost.com", reason="ours")
    ended = watch(project, "gone.com")
    change_watch(ended, ended=True)
    [kept] = write(project)["watches"]
    assert (kept["names"], kept["reason"]) == (["inkpost.com"], "ours")
    theirs = create_project(owner=other, name="Theirs", brief=BRIEF)
    past = (timezone.localdate() - DAY).isoformat()
    items = (
        WatchItem("name", "one", "", "", ("inkpost.com",)),
        # A day that is over gives way to the usual time.
        WatchItem("name", "two", "", past, ("paperbarn.com",)),
        WatchItem("name", "three", "", "soon", ("reed.com",)),
        # What makes no sense here is left out, and holds up nothing.
        WatchItem("name", "bad", "", "", ("-x.com",)),
        WatchItem("price", "bad", "", "", (), AskedItem(seller="nobody", extension="com")),
        WatchItem("hunt", "bad", "", "", (), AskedItem({"price_max": "call"})),
        WatchItem("hunt", "four", "", "", (), AskedItem({"price_max": "100"})),
    )
    bring_filed(Bringing(theirs, WatchingFields(items), True, lambda _share: None))
    titles = list(theirs.watches.order_by("pk").values_list("title", flat=True))
    assert titles == ["one", "two", "three", "four"]
    assert all(one.ends_on > timezone.localdate() for one in theirs.watches.all())


def test_names_of_a_watch_are_read_page_by_page(api: APIClient, project: Project) -> None:
    one = watch(project, *(f"ink{n:03}.com" for n in range(120)), title="many")
    page = api.get(f"/api/watches/{one.pk}/names?offset=100&limit=50").json()
    assert (page["total"], len(page["rows"]), page["rows"][0]["label"]) == (120, 20, "ink100")
    for wrong in ("?limit=0", "?limit=1000", "?offset=-1", "?offset=x"):
        assert api.get(f"/api/watches/{one.pk}/names{wrong}").status_code == 400
    assert api.get("/api/watches").json()["watches"][0]["first"] == ""


def test_happenings_are_read_back_in_time(api: APIClient, person: User, project: Project) -> None:
    one = watch(project)
    for n in range(5):
        Happening.objects.create(
            owner=person, watch=one, label="inkpost", extension="com", what="near",
            args={"name": "inkpost.com", "of": "ends", "after": "2027-01-02T12:00:00+00:00"},
            sign=str(n), at=timezone.now(),
        )  # fmt: skip
    first = api.get("/api/happenings?limit=2&zone=Europe/Stockholm").json()
    assert first["unread"] == 5
    assert first["rows"][0]["text"].endswith("2 January 2027, 13:00 CET.")
    oldest = first["rows"][-1]["id"]
    rest = api.get(f"/api/happenings?before={oldest}").json()["rows"]
    assert [row["id"] for row in rest] == sorted((r["id"] for r in rest), reverse=True)
    assert len(rest) == 3
    # A zone nobody knows is that of the seas.
    text = api.get("/api/happenings?zone=Mars/Crater").json()["rows"][0]["text"]
    assert text.endswith("12:00 UTC.")
