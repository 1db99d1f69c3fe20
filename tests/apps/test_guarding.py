"""Against guessing passwords, and what belongs to an account: changing, ending, leaving."""

import logging
from datetime import timedelta
from typing import Any

import pytest
from django.core.cache import cache
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.conftest import client_of
from vinetag.apps.accounts import guarding
from vinetag.apps.accounts.models import User
from vinetag.apps.accounts.services import demo_user
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import delete_for_good

PASSWORD = "quiet-ink-post"


@pytest.fixture(autouse=True)
def _forgotten() -> None:
    cache.clear()


def guess(
    address: str,
    password: str = "no",  # noqa: S107 - a guess
    username: str = "edda",
    **headers: str,
) -> Any:
    client = APIClient(REMOTE_ADDR=address)
    body = {"username": username, "password": password}
    return client.post("/api/session/sign-in", body, headers=headers)


def test_a_header_anyone_can_send_gives_nobody_new_tries(person: User) -> None:
    said = [guess("10.0.0.1", X_Forwarded_For=f"1.2.3.{n}").status_code for n in range(9)]
    assert said.count(429) >= 2


def test_pauses_grow_with_every_miss_and_the_right_password_waits_too(
    person: User, monkeypatch: pytest.MonkeyPatch
) -> None:
    now = [1_000_000.0]
    monkeypatch.setattr(guarding.time, "time", lambda: now[0])
    pauses = []
    for _ in range(16):
        answer = guess("10.0.0.2")
        if answer.status_code == 429:
            seconds = int(answer["Retry-After"])
            assert answer.json()["message"].startswith("Too many tries. Wait ")
            assert guess("10.0.0.2", PASSWORD).status_code == 429
            pauses.append(seconds)
            now[0] += seconds
    assert pauses == sorted(pauses)
    assert pauses[-1] > 10
    now[0] += 1_000
    assert guess("10.0.0.2", PASSWORD).status_code == 200
    assert guess("10.0.0.2").status_code == 400


def test_many_addresses_together_are_slowed_and_lock_nobody_out_for_long(person: User) -> None:
    said = [guess(f"10.1.{n}.1") for n in range(30)]
    refused = [a for a in said if a.status_code == 429]
    assert refused
    assert max(int(a["Retry-After"]) for a in refused) <= 61


def test_one_address_cannot_try_many_accounts() -> None:
    said = [guess("10.0.0.3", username=f"person{n}").status_code for n in range(40)]
    assert said[:30] == [400] * 30
    assert 429 in said[30:]


def test_what_happens_at_the_door_is_logged(person: User, caplog: pytest.LogCaptureFixture) -> None:
    with caplog.at_level(logging.INFO, "vinetag.security"):
        guess("10.0.0.4")
        guess("10.0.0.4", PASSWORD)
    assert "a wrong password was given for 'edda' from 10.0.0.4" in caplog.text
    assert "'edda' signed in from 10.0.0.4" in caplog.text
    assert PASSWORD not in caplog.text


def test_the_demo_is_known_by_its_mark_not_by_its_name(person: User) -> None:
    refused = APIClient().post("/api/session/sign-up", {"username": "Demo", "password": PASSWORD})
    assert refused.json()["problems"][0]["code"] == "username_taken"
    squatter = User.objects.create_user("demo", password=PASSWORD)
    entered = APIClient().post("/api/session/demo").json()["person"]
    assert entered["demo"]
    assert demo_user().pk != squatter.pk


def test_another_password_ends_the_other_sessions(person: User) -> None:
    here, there = client_of(person), client_of(person)
    wrong = here.post("/api/session/password", {"password": "x", "new": "damson-vine-tag"})
    assert wrong.json()["problems"][0]["path"] == "password"
    weak = here.post("/api/session/password", {"password": PASSWORD, "new": "short"})
    assert weak.json()["problems"][0]["path"] == "new"
    body = {"password": PASSWORD, "new": "damson-vine-tag"}
    assert here.post("/api/session/password", body).json()["person"]["username"] == "edda"
    assert here.get("/api/projects").status_code == 200
    assert there.get("/api/projects").status_code == 403
    assert guess("10.0.0.5", "damson-vine-tag").status_code == 200


def test_signing_out_everywhere_ends_every_session(person: User) -> None:
    here, there = client_of(person), client_of(person)
    assert here.post("/api/session/end-all").json()["person"] is None
    assert (here.get("/api/projects").status_code, there.get("/api/projects").status_code) == (
        403, 403,
    )  # fmt: skip


def test_who_leaves_is_gone_and_all_of_theirs_is_deleted(person: User, project: Project) -> None:
    here, there = client_of(person), client_of(person)
    assert here.post("/api/session/leave", {"password": "no"}).status_code == 400
    assert here.post("/api/session/leave", {"password": PASSWORD}).json()["person"] is None
    assert there.get("/api/projects").status_code == 403
    assert guess("10.0.0.6", PASSWORD).status_code == 400
    # The name is free at once; the rest goes by the schedule.
    made = APIClient().post("/api/session/sign-up", {"username": "edda", "password": PASSWORD})
    assert made.status_code == 200
    assert delete_for_good(timezone.now() + timedelta(seconds=1)) == 1
    assert not Project.objects.exists()
    assert not User.objects.filter(pk=person.pk).exists()


def test_the_demo_cannot_be_changed_ended_or_left() -> None:
    client = client_of(demo_user())
    for path, body in (
        ("password", {"password": "x", "new": "damson-vine-tag"}),
        ("end-all", {}),
        ("leave", {"password": "x"}),
    ):
        assert client.post(f"/api/session/{path}", body).json()["code"] == "demo"
