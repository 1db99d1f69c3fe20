"""How people are told: letters once at most, feeds and calendars until they are revoked."""

from __future__ import annotations

import re
from collections.abc import Callable
from datetime import UTC, date, datetime, timedelta
from typing import Any

import pytest
from defusedxml.ElementTree import fromstring
from django.core import mail
from django.core.mail.backends.smtp import EmailBackend
from django.utils import timezone
from icalendar import Calendar
from rest_framework.test import APIClient

from tests.apps.conftest import client_of
from tests.conftest import Registry
from vinetag.apps.accounts.models import User
from vinetag.apps.naming.models import Project
from vinetag.apps.watching import letters
from vinetag.apps.watching.letters import send_letters, write_letters
from vinetag.apps.watching.models import Happening, Letter, Telling, Watch, Watched
from vinetag.apps.watching.watches import Wish, start_watch
from vinetag.core.watching import Seen, write_seen

ATOM = "{http://www.w3.org/2005/Atom}"
NOW = timezone.now()
DAY = timedelta(days=1)


@pytest.fixture
def posted(settings: Any) -> list[Any]:
    """Letters go nowhere, and are kept."""
    settings.MAIL_HOST = "mail.example"
    mail.outbox.clear()
    return mail.outbox


@pytest.fixture
def mailbox(registry: Registry, settings: Any) -> Registry:
    """Letters go to the simulated mail server."""
    settings.EMAIL_BACKEND = "django.core.mail.backends.smtp.EmailBackend"
    settings.MAIL_HOST = settings.EMAIL_HOST = "127.0.0.1"
    settings.EMAIL_PORT = registry.mail_port
    return registry


@pytest.fixture
def watched(project: Project) -> Watch:
    return start_watch(project, Wish("name", names=["inkpost.com"], reason="the <favourite>"))


def happens(watch: Watch, after: str = "open") -> Happening:
    count = Happening.objects.count()
    return Happening.objects.create(
        owner_id=watch.project.owner_id, watch=watch, label="inkpost", extension="com",
        what="status", args={"name": "inkpost.com", "before": "taken", "after": after},
        sign=f"sign {count}", at=NOW,
    )  # fmt: skip


def told_at(person: User, how: str = "at_once", **more: Any) -> Telling:
    fields = {"address": "edda@quietpress.example", "confirmed_at": NOW, "how": how, **more}
    return Telling.objects.update_or_create(owner=person, defaults=fields)[0]


def test_an_address_is_confirmed_before_anything_is_written_to_it(
    api: APIClient, person: User, watched: Watch, posted: list[Any]
) -> None:
    assert api.get("/api/telling").json()["can_mail"] is True
    sent = {"address": "edda@quietpress.example", "how": "at_once", "zone": "Europe/Dublin"}
    assert api.patch("/api/telling", sent).json()["confirmed"] is False
    happens(watched)
    assert write_letters() == 0
    assert send_letters() == 1
    [letter] = posted
    [code] = re.findall(r"/watching\?confirm=(\S+)", letter.body)
    wrong = api.post("/api/telling/confirm", {"code": "x" + code})
    assert wrong.json()["problems"][0]["path"] == "code"
    assert api.post("/api/telling/confirm", {"code": code}).json()["confirmed"] is True
    assert api.post("/api/telling/confirm", {"code": code}).status_code == 400
    # What happened before is not written of; what happens now is.
    assert write_letters() == 0
    happens(watched)
    assert (write_letters(), send_letters(), write_letters(), send_letters()) == (1, 1, 0, 0)
    letter = posted[1]
    assert letter.subject == "inkpost.com is open: it can be registered. It was taken."
    assert "You watch it because: the <favourite>" in letter.body
    assert letter.to == ["edda@quietpress.example"]
    assert letter.extra_headers["Auto-Submitted"] == "auto-generated"
    # Another address has to be confirmed again; none at all ends it.
    assert api.patch("/api/telling", {"address": "e@other.example"}).json()["confirmed"] is False
    assert api.patch("/api/telling", {"address": ""}).json()["how"] == "off"


@pytest.mark.parametrize(
    ("sent", "path"),
    [
        ({"address": "edda"}, "address"),
        ({"address": "edda@quiet.example\nBcc: all@world.example"}, "address"),
        ({"zone": "Mars/Crater"}, "zone"),
        ({"zone": "../../etc/passwd"}, "zone"),
        ({"hour": 24}, "hour"),
        ({"how": "by pigeon"}, "how"),
        ({"how": "daily"}, "address"),
    ],
)
def test_what_cannot_be_is_refused(
    api: APIClient, posted: list[Any], sent: dict[str, Any], path: str
) -> None:
    answer = api.patch("/api/telling", sent)
    assert answer.status_code == 400
    assert [p["path"] for p in answer.json()["problems"]] == [path]
    assert not Letter.objects.exists()


def test_nobody_is_written_to_without_end(api: APIClient, posted: list[Any]) -> None:
    for n in range(5):
        assert api.patch("/api/telling", {"address": f"a{n}@x.example"}).status_code == 200
    answer = api.patch("/api/telling", {"address": "b@x.example"})
    assert (answer.status_code, answer.json()["code"]) == (409, "too_many")


def test_without_a_mail_server_nothing_is_offered(api: APIClient, person: User) -> None:
    assert api.get("/api/telling").json()["can_mail"] is False
    answer = api.patch("/api/telling", {"address": "edda@quietpress.example"})
    assert answer.json()["code"] == "no_mail"
    assert send_letters() == write_letters() == 0


def test_the_demo_writes_to_no_outside(person: User, api: APIClient, posted: list[Any]) -> None:
    person.is_demo = True
    person.save()
    answer = api.patch("/api/telling", {"address": "edda@quietpress.example"})
    assert answer.json()["code"] == "no_mail"


def test_what_waits_for_an_address_that_was_changed_is_not_sent(
    api: APIClient, person: User, watched: Watch, posted: list[Any]
) -> None:
    told_at(person)
    happens(watched)
    assert write_letters() == 1
    api.patch("/api/telling", {"address": "other@quietpress.example"})
    assert send_letters() == 1
    assert [letter.to for letter in posted] == [["other@quietpress.example"]]


def test_another_rhythm_loses_nothing(
    api: APIClient, person: User, watched: Watch, posted: list[Any]
) -> None:
    told_at(person, written_at=timezone.now())
    happens(watched)
    assert write_letters() == 0  # a minute apart
    api.patch("/api/telling", {"how": "daily", "hour": 0})
    assert write_letters() == 1
    # Nothing that happens while no letters are wanted is written of later.
    api.patch("/api/telling", {"how": "off"})
    happens(watched)
    api.patch("/api/telling", {"how": "at_once"})
    Telling.objects.update(written_at=None)
    assert write_letters() == 0


def test_letters_do_not_pour(person: User, watched: Watch, posted: list[Any]) -> None:
    told_at(person)
    happens(watched)
    assert write_letters() == 1
    happens(watched)
    assert write_letters() == 0
    Telling.objects.update(written_at=timezone.now() - timedelta(minutes=2))
    assert write_letters() == 1
    for _ in range(10):
        Telling.objects.update(written_at=None)
        happens(watched)
        assert write_letters() == 1
    happens(watched)
    Telling.objects.update(written_at=timezone.now() - timedelta(minutes=2))
    assert write_letters() == 0
    Telling.objects.update(written_at=timezone.now() - timedelta(minutes=16))
    assert write_letters() == 1


def test_much_at_once_is_one_letter(person: User, watched: Watch, posted: list[Any]) -> None:
    told_at(person)
    for _ in range(70):
        happens(watched)
    assert (write_letters(), send_letters()) == (1, 1)
    assert posted[0].subject == "70 things happened to what you watch or own"
    assert posted[0].body.count("- inkpost.com is open") == 60
    assert "- and 10 more" in posted[0].body
    assert Happening.objects.filter(letter=None).count() == 0


def test_a_digest_comes_once_a_day_at_its_hour(
    person: User, watched: Watch, posted: list[Any], monkeypatch: pytest.MonkeyPatch
) -> None:
    told_at(person, "daily", hour=8, zone="America/New_York")
    happens(watched)

    def at(hour: int, day: int = 28) -> Callable[[], datetime]:
        return lambda: datetime(2026, 11, day, hour, tzinfo=UTC)

    sent = []
    for moment in (at(12), at(13), at(20), at(23), at(12, 29), at(13, 29)):
        monkeypatch.setattr(letters.timezone, "now", moment)
        sent.append(write_letters())
        happens(watched, "premium")
    # Eight in the morning there is one in the afternoon (UTC).
    assert sent == [0, 1, 0, 0, 0, 1]


def test_letters_arrive_at_the_server(person: User, watched: Watch, mailbox: Registry) -> None:
    told_at(person)
    happens(watched)
    before = len(mailbox.mail)
    assert (write_letters(), send_letters(), send_letters()) == (1, 1, 0)
    [letter] = mailbox.mail[before:]
    assert letter["to"] == "edda@quietpress.example"
    assert "inkpost.com is open" in letter["text"]
    assert letter["identity"].startswith("<letter-")
    assert Letter.objects.get().state == "sent"


def test_a_box_that_does_not_exist_holds_letters_back_until_there_is_another(
    api: APIClient, person: User, watched: Watch, mailbox: Registry
) -> None:
    told_at(person, address="nobody@quietpress.example")
    happens(watched)
    write_letters()
    assert send_letters() == 0
    telling = api.get("/api/telling").json()
    assert telling["trouble"] == "550 5.1.1 There is no such box"
    assert telling["letters"][0]["state"] == "refused"
    happens(watched)
    assert write_letters() == 0
    assert api.get("/api/happenings").json()["unread"] == 2
    # The same address may be tried again.
    again = api.patch("/api/telling", {"address": "nobody@quietpress.example"}).json()
    assert (again["trouble"], again["confirmed"]) == ("", False)


def test_one_that_is_refused_for_now_is_tried_again_and_given_up_in_the_end(
    person: User, watched: Watch, mailbox: Registry
) -> None:
    told_at(person)
    happens(watched)
    write_letters()
    mailbox.faults(service="mail", kind="later")
    for _ in range(7):
        Letter.objects.filter(state="waiting").update(next_at=NOW)
        assert send_letters() == 0
    letter = Letter.objects.get()
    assert (letter.state, letter.tries) == ("failed", 7)
    assert letter.trouble == "451 4.7.1 Come back later"
    mailbox.faults()
    assert send_letters() == 0


@pytest.mark.parametrize("kind", ["hangup", "hangup-after"])
def test_what_broke_off_is_not_sent_again_and_said_to_be_unsure(
    api: APIClient, person: User, watched: Watch, mailbox: Registry, kind: str
) -> None:
    told_at(person)
    happens(watched)
    write_letters()
    before = len(mailbox.mail)
    mailbox.faults(service="mail", kind=kind, registry="quietpress.example")
    other = Letter.objects.create(
        owner=person, address="edda@other.example", subject="Another", text="-",
        next_at=timezone.now(),
    )  # fmt: skip
    assert send_letters() == 0
    other.refresh_from_db()
    assert other.state == "waiting"
    mailbox.faults()
    assert send_letters() == 1
    ours = [one for one in mailbox.mail[before:] if one["to"].endswith("quietpress.example")]
    assert len(ours) == (kind == "hangup-after")
    states = {one["subject"]: one["state"] for one in api.get("/api/telling").json()["letters"]}
    assert states.pop("Another") == "sent"
    assert list(states.values()) == ["unsure"]


def test_a_server_that_is_away_is_waited_for(
    person: User, watched: Watch, posted: list[Any], settings: Any
) -> None:
    settings.EMAIL_BACKEND = "django.core.mail.backends.smtp.EmailBackend"
    settings.EMAIL_HOST, settings.EMAIL_PORT = "127.0.0.1", 1
    told_at(person)
    happens(watched)
    write_letters()
    assert send_letters() == 0
    letter = Letter.objects.get()
    assert (letter.state, letter.tries) == ("waiting", 1)
    assert "refused" in letter.trouble.lower()


def test_killed_while_sending_a_letter_is_not_sent_twice(
    person: User, watched: Watch, mailbox: Registry, monkeypatch: pytest.MonkeyPatch
) -> None:
    told_at(person)
    happens(watched)
    write_letters()
    whole = EmailBackend.send_messages

    class Killed(BaseException):
        pass

    def dying(self: EmailBackend, messages: Any) -> Any:
        whole(self, messages)
        raise Killed

    before = len(mailbox.mail)
    monkeypatch.setattr(EmailBackend, "send_messages", dying)
    with pytest.raises(Killed):
        send_letters()
    monkeypatch.setattr(EmailBackend, "send_messages", whole)
    assert send_letters() == 0
    Letter.objects.update(next_at=NOW - DAY)
    assert send_letters() == 0
    assert len(mailbox.mail) - before == 1
    assert Letter.objects.get().state == "unsure"


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
