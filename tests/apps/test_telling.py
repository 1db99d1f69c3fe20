"""How people are told by letters: once at most, and nothing is lost."""

from __future__ import annotations

import re
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from django.core import mail
from django.core.mail.backends.smtp import EmailBackend
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.watched import happens
from tests.conftest import Registry
from vinetag.apps.accounts.models import User
from vinetag.apps.watching import letters
from vinetag.apps.watching.letters import send_letters, write_letters
from vinetag.apps.watching.models import Happening, Letter, Telling, Watch

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
