"""The simulated payment page answers as its document says, and signs what it tells."""

from __future__ import annotations

import json
import threading
import time
import uuid
from collections.abc import Iterator
from http.server import BaseHTTPRequestHandler, HTTPServer
from typing import Any

import jsonschema
import pytest

from tests.conftest import WORD, Registry, asked
from vinetag.lookup.till import PaymentTold, told_by


class Heard:
    """Where messages come to: what each said, and whether its signature holds."""

    def __init__(self) -> None:
        self.told: list[PaymentTold | None] = []
        self.refuse = 0
        heard = self

        class Handler(BaseHTTPRequestHandler):
            def do_POST(self) -> None:
                body = self.rfile.read(int(self.headers["Content-Length"]))
                if heard.refuse:
                    heard.refuse -= 1
                    self.send_response(503)
                else:
                    heard.told.append(told_by(self.headers, body, WORD, time.time()))  # type: ignore[arg-type]
                    self.send_response(204)
                self.end_headers()

            def log_message(self, *_: Any) -> None: ...

        self._server = HTTPServer(("127.0.0.1", 0), Handler)
        self.address = f"http://127.0.0.1:{self._server.server_port}/notice"
        self._thread = threading.Thread(target=self._server.serve_forever, daemon=True)
        self._thread.start()

    def wait(self, count: int, seconds: float = 10.0) -> list[PaymentTold | None]:
        deadline = time.monotonic() + seconds
        while len(self.told) < count and time.monotonic() < deadline:
            time.sleep(0.05)
        return self.told

    def stop(self) -> None:
        self._server.shutdown()
        self._server.server_close()
        self._thread.join(5)


@pytest.fixture
def heard() -> Iterator[Heard]:
    listening = Heard()
    yield listening
    listening.stop()


def ask(
    registry: Registry, path: str, document: object = None, word: str = WORD
) -> tuple[int, dict[str, Any]]:
    data = None if document is None else json.dumps(document).encode()
    status, _, text = asked(
        f"{registry.origin}/till/{path}", data, method="GET" if data is None else "POST",
        headers={"Authorization": f"Bearer {word}", "Content-Type": "application/json"},
    )  # fmt: skip
    return status, json.loads(text) if text.startswith(b"{") else {}


def wanted(notify: str = "http://127.0.0.1:9/", **other: str) -> dict[str, str]:
    return {
        "reference": uuid.uuid4().hex, "amount": "12.50", "currency": "EUR",
        "about": "<b>Order</b>",
        "back": "http://127.0.0.1:9/back", "notify": notify, **other,
    }  # fmt: skip


def press(page: str, way: str) -> str:
    """Where somebody is sent who presses a button."""
    status, headers, _ = asked(f"{page}/{way}", b"", method="POST")
    assert status == 303
    return headers["Location"]


def test_its_answers_are_those_of_its_document(registry: Registry) -> None:
    document = json.loads(asked(f"{registry.origin}/till/openapi.json")[2])
    schema = {**document, "$ref": "#/components/schemas/Payment"}
    given = wanted()
    jsonschema.validate(given, {**document, "$ref": "#/components/schemas/Wanted"})
    status, made = ask(registry, "payments", given)
    assert status == 201
    jsonschema.validate(made, schema)
    status, looked = ask(registry, f"payments/{made['id']}")
    assert (status, looked) == (200, made)


def test_the_same_reference_is_the_same_payment(registry: Registry) -> None:
    given = wanted()
    first, again = (ask(registry, "payments", given)[1] for _ in range(2))
    assert first == again
    assert ask(registry, "payments", wanted())[1]["id"] != first["id"]


@pytest.mark.parametrize(
    "part", [{"amount": "12.5"}, {"amount": "-1.00"}, {"amount": "0.00"}, {"amount": "1e3"}]
)
def test_what_is_no_amount_is_refused(registry: Registry, part: dict[str, str]) -> None:
    status, told = ask(registry, "payments", wanted(**part))
    assert status == 400
    assert told["title"]


def test_who_does_not_know_the_word_learns_nothing(registry: Registry) -> None:
    _, made = ask(registry, "payments", wanted())
    for path, document in (
        ("payments", wanted()), (f"payments/{made['id']}", None),
        (f"payments/{made['id']}/refunds", {"key": "k", "amount": "1.00"}),
    ):  # fmt: skip
        assert ask(registry, path, document, "another word")[0] == 401
    assert ask(registry, "payments/nobody")[0] == 404


def test_the_first_button_counts_and_the_page_says_so(registry: Registry, heard: Heard) -> None:
    _, made = ask(registry, "payments", wanted(heard.address))
    page = asked(made["page"])[2].decode()
    assert "&lt;b&gt;Order&lt;/b&gt;" in page
    assert "12.50 EUR" in page
    assert press(made["page"], "decline") == "http://127.0.0.1:9/back"
    assert press(made["page"], "pay") == "http://127.0.0.1:9/back"
    [told] = heard.wait(1)
    assert told is not None
    assert (told.state, told.reference) == ("declined", made["reference"])
    assert ask(registry, f"payments/{made['id']}")[1]["state"] == "declined"
    assert b"This payment is declined." in asked(made["page"])[2]


@pytest.mark.parametrize(("kind", "count"), [("twice", 2), ("late", 1), ("never", 0)])
def test_messages_come_twice_late_or_never_where_that_is_asked_for(
    registry: Registry, heard: Heard, kind: str, count: int
) -> None:
    registry.faults(kind=kind, service="till", registry="notice", seconds=0.5)
    _, made = ask(registry, "payments", wanted(heard.address))
    began = time.monotonic()
    press(made["page"], "pay")
    told = heard.wait(max(1, count), 3.0 if count else 1.0)
    assert [one.state for one in told if one is not None] == ["accepted"] * count
    if kind == "late":
        assert time.monotonic() - began >= 0.5


def test_a_message_nobody_takes_is_sent_again(registry: Registry, heard: Heard) -> None:
    heard.refuse = 1
    _, made = ask(registry, "payments", wanted(heard.address))
    press(made["page"], "pay")
    [told] = heard.wait(1)
    assert told is not None
    assert told.amount == 12.5


def test_money_is_given_back_once_a_key_and_no_more_than_was_paid(registry: Registry) -> None:
    _, made = ask(registry, "payments", wanted())
    address = f"payments/{made['id']}/refunds"
    assert ask(registry, address, {"key": "a", "amount": "1.00"})[0] == 409
    press(made["page"], "pay")
    for _ in range(2):
        assert ask(registry, address, {"key": "a", "amount": "5.00"})[0] == 201
    assert ask(registry, address, {"key": "b", "amount": "7.50"})[0] == 201
    assert ask(registry, address, {"key": "c", "amount": "0.01"})[0] == 409
    assert ask(registry, f"payments/{made['id']}")[1]["refunded"] == "12.50"
    assert ask(registry, address, {"amount": "1.00"})[0] == 400
