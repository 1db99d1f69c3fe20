"""Feeds and calendars: what happened, for whoever has their address, until it is revoked."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta

from defusedxml.ElementTree import fromstring
from django.utils import timezone
from icalendar import Calendar
from rest_framework.test import APIClient

from tests.apps.conftest import client_of
from tests.apps.watched import happens
from vinetag.apps.accounts.models import User
from vinetag.apps.naming.models import Project
from vinetag.apps.watching.models import Watch, Watched
from vinetag.apps.watching.watches import Wish, start_watch
from vinetag.core.watching import Seen, write_seen

ATOM = "{http://www.w3.org/2005/Atom}"
NOW = timezone.now()
DAY = timedelta(days=1)


def feed(api: APIClient, kind: str) -> str:
    made = api.post("/api/feeds", {"kind": kind})
    assert made.status_code == 201
    return str(made.json()["feeds"][-1]["path"])


def test_an_atom_feed_tells_what_happened_to_whoever_has_its_address(
    api: APIClient, watched: Watch
) -> None:
    path, visitor = feed(api, "atom"), APIClient()
    empty = fromstring(visitor.get(path).content)
    assert [entry.tag for entry in empty.findall(f"{ATOM}entry")] == []
    assert empty.find(f"{ATOM}updated") is not None
    happens(watched)
    Watch.objects.update(reason="odd \x0b letters & <tags>")
    answer = visitor.get(path)
    assert answer["Content-Type"] == "application/atom+xml; charset=utf-8"
    assert answer["Cache-Control"] == "private, no-cache"
    [entry] = fromstring(answer.content).findall(f"{ATOM}entry")
    title = entry.find(f"{ATOM}title")
    assert title is not None
    assert title.text == "inkpost.com is open: it can be registered. It was taken."
    same = visitor.get(path, headers={"If-None-Match": answer["ETag"]})
    assert (same.status_code, same.content) == (304, b"")
    # Of one kind it is no other, and revoked it is nothing.
    assert visitor.get(path.replace("changes.atom", "dates.ics")).status_code == 404
    [row] = api.get("/api/feeds").json()["feeds"]
    assert row["read_at"] is not None
    assert (
        client_of(User.objects.create_user("bram")).delete(f"/api/feeds/{row['id']}").status_code
        == 404
    )
    assert api.delete(f"/api/feeds/{row['id']}").json() == {"feeds": []}
    assert visitor.get(path).status_code == 404


def test_a_person_who_left_is_told_of_no_more(api: APIClient, person: User) -> None:
    path = feed(api, "atom")
    person.is_active = False
    person.save()
    assert APIClient().get(path).status_code == 404


def test_a_calendar_has_the_dates_there_are(api: APIClient, project: Project) -> None:
    names = ["inkpost.com", "ink.net", "post.ie", "a.com", "b.com"]
    start_watch(project, Wish("name", names=names))
    ends = datetime(2027, 3, 4, 15, 30, tzinfo=UTC)
    known = {
        "inkpost": Seen("offered", kind="auction", market="The fair", ends=ends),
        "ink": Seen("dropping", drops_from=ends, drops_to=ends + timedelta(hours=5)),
        "post": Seen("dropping", drops_from=ends, drops_to=ends + 30 * DAY),
        "a": Seen("taken", expires=ends),
        "b": Seen("open"),
    }
    for label, seen in known.items():
        Watched.objects.filter(label=label).update(known=write_seen(seen))
    path = feed(api, "calendar")
    answer = APIClient().get(path)
    assert answer["Content-Type"] == "text/calendar; charset=utf-8"
    calendar = Calendar.from_ical(answer.content)
    events = {str(e["UID"]).partition("@")[0]: e for e in calendar.walk("VEVENT")}
    assert set(events) == {
        "ends-inkpost.com", "drops-ink.net", "drops-post.ie", "expires-a.com",
    }  # fmt: skip
    assert events["ends-inkpost.com"]["DTEND"].dt == ends
    assert str(events["ends-inkpost.com"]["SUMMARY"]) == "Auction of inkpost.com ends"
    assert events["drops-ink.net"]["DTSTART"].dt == ends
    assert events["drops-post.ie"]["DTSTART"].dt == date(2027, 3, 4)
    assert events["drops-post.ie"]["DTEND"].dt == date(2027, 4, 4)
    assert events["expires-a.com"]["DTSTART"].dt == date(2027, 3, 4)
    assert all(len(line) <= 75 for line in answer.content.splitlines())
    same = APIClient().get(path, headers={"If-None-Match": answer["ETag"]})
    assert same.status_code == 304


def test_there_are_not_feeds_without_end(api: APIClient) -> None:
    for _ in range(10):
        feed(api, "atom")
    assert api.post("/api/feeds", {"kind": "calendar"}).json()["code"] == "too_many"
    assert api.post("/api/feeds", {"kind": "pigeon"}).status_code == 400
