"""Signing up, in and out."""

import pytest
from django.test import Client
from rest_framework.test import APIClient

from vinetag.apps.accounts.models import User

PASSWORD = "quiet-ink-post"


def problems(response: object) -> dict[str, str]:
    return {p["path"]: p["message"] for p in response.json()["problems"]}


def test_the_way_in_and_out() -> None:
    client = APIClient()
    assert client.get("/api/session").json()["person"] is None
    body = {"username": "alma", "password": PASSWORD}
    assert client.post("/api/session/sign-up", body).json()["person"]["username"] == "alma"
    assert client.get("/api/projects").status_code == 200
    assert client.post("/api/session/sign-out").json()["person"] is None
    assert client.get("/api/projects").status_code == 403
    assert client.post("/api/session/sign-in", body).json()["person"]["username"] == "alma"


@pytest.mark.parametrize(
    ("username", "password", "path", "says"),
    [
        ("edda", PASSWORD, "username", "taken"),
        ("two words", PASSWORD, "username", "without spaces"),
        ("n" * 61, PASSWORD, "username", "At most 60"),
        ("alma", "short", "password", "too short"),
        ("alma", "password", "password", "too common"),
        ("alma", "83749261", "password", "entirely numeric"),
        ("", PASSWORD, "username", "blank"),
    ],
)
def test_an_account_that_will_not_do(
    person: User, username: str, password: str, path: str, says: str
) -> None:
    body = {"username": username, "password": password}
    response = APIClient().post("/api/session/sign-up", body)
    assert response.status_code == 400
    assert says in problems(response)[path]


def test_a_wrong_password_does_not_say_which_was_wrong(person: User) -> None:
    said = [
        problems(APIClient().post("/api/session/sign-in", {"username": u, "password": "no"}))
        for u in ("edda", "nobody")
    ]
    assert said[0] == said[1]


def test_the_demo_can_be_entered_only_in_demo_mode(settings: object) -> None:
    assert APIClient().post("/api/session/demo").json()["person"]["username"] == "demo"
    settings.DEMO_MODE = False
    assert APIClient().post("/api/session/demo").status_code == 404
    body = {"username": "demo", "password": ""}
    assert APIClient().post("/api/session/sign-in", body).status_code == 400


@pytest.mark.parametrize("path", ["session/sign-in", "session/sign-up", "session/demo", "projects"])
def test_every_change_asks_for_the_csrf_token(person: User, path: str) -> None:
    client = Client(enforce_csrf_checks=True)
    client.force_login(person)
    body = '{"username": "edda", "password": "x"}'
    assert client.post(f"/api/{path}", body, content_type="application/json").status_code == 403
    client.get("/api/session")
    token = client.cookies["csrftoken"].value
    allowed = client.post(
        f"/api/{path}", body, content_type="application/json", headers={"X-CSRFToken": token}
    )
    assert allowed.status_code in (200, 400)


def test_too_many_tries_are_slowed_down(person: User, monkeypatch: pytest.MonkeyPatch) -> None:
    from rest_framework.throttling import ScopedRateThrottle

    monkeypatch.setattr(ScopedRateThrottle, "THROTTLE_RATES", {"sign-in": "3/min", "demo": "2/min"})
    client = APIClient(REMOTE_ADDR="10.9.8.7")
    body = {"username": "edda", "password": "no"}
    statuses = [client.post("/api/session/sign-in", body).status_code for _ in range(5)]
    assert statuses == [400, 400, 400, 429, 429]
    entered = [client.post("/api/session/demo").status_code for _ in range(3)]
    assert entered == [200, 200, 429]


def test_preferences_are_kept_and_nonsense_is_told(api: APIClient, person: User) -> None:
    usual = api.get("/api/session").json()["person"]["preferences"]
    assert (usual["theme"], usual["density"], usual["extensions"]) == ("system", "usual", [])
    mine = {
        **usual, "theme": "dark", "locale": "de", "extensions": [".IE", "com", "ie"],
        "weights": {"length": 9}, "currency": "SEK", "rate": 11.2,
    }  # fmt: skip
    kept = api.patch("/api/preferences", mine).json()
    assert kept["extensions"] == ["ie", "com"]
    assert api.get("/api/session").json()["person"]["preferences"] == kept
    wrong = {"theme": "pink", "weights": {"luck": 3}, "extensions": ["nowhere-at-all"], "rate": 0}
    told = api.patch("/api/preferences", wrong).json()["problems"]
    assert {p["path"] for p in told} == {"theme", "weights.luck", "extensions.0", "rate"}
    [odd] = api.patch("/api/preferences", {"colour": "red"}).json()["problems"]
    assert (odd["path"], odd["code"]) == ("colour", "unknown_field")
    assert api.patch("/api/preferences", ["dark"]).status_code == 400
    assert APIClient().patch("/api/preferences", mine).status_code == 403
    newer = {"theme": "dark", "sounds": True}
    User.objects.filter(pk=person.pk).update(preferences=newer)
    assert api.get("/api/session").json()["person"]["preferences"] == {**usual, "theme": "dark"}
    User.objects.filter(pk=person.pk).update(preferences={"theme": "of another version"})
    assert api.get("/api/session").json()["person"]["preferences"] == usual
