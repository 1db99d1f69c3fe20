"""The simulated gateways speak EPP (RFC 5730 to 5734) to a client that is none of ours, and the
world has what was bought.
"""

from __future__ import annotations

import json
import ssl
import urllib.request
import uuid
from collections.abc import Iterator
from typing import Any

import dns.message
import dns.query
import pytest
from epptools import Client, Config
from epptools.exceptions import ConnectionException

from standins.books import Held
from tests.apps.bought import fresh
from tests.conftest import WORD, Registry


@pytest.fixture
def client(registry: Registry) -> Iterator[Client]:
    made = connected(registry)
    yield made
    made.disconnect()


def connected(registry: Registry, **more: Any) -> Client:
    given: dict[str, Any] = {
        "host": "127.0.3.1", "port": registry.epp_port, "clid": "vine-tag", "password": WORD,
        "ca_file": str(registry.folder / "authority.pem"), **more,
    }  # fmt: skip
    client = Client(Config(**given)).throw_on_failure(False)
    client.connect()
    client.login()
    return client


def contact(client: Client, **more: Any) -> str:
    number = f"C{uuid.uuid4().hex[:12]}"
    given: dict[str, Any] = {
        "name": "Edda Birchwell", "street": ["4 Quay Lane"], "city": "Port Ferris", "cc": "IE",
        "email": "edda@inkpost.example", "voice": "+353.871234567", **more,
    }  # fmt: skip
    assert client.contact.create(number, **given).code() == 1000
    return number


def test_many_names_are_checked_at_once_with_what_they_cost(client: Client) -> None:
    [free] = fresh()
    answer = client.domain.check([free, "ink.com", "no_name.com"], fee={"create": [1, 2]})
    assert answer.availability() == {free: True, "ink.com": False, "no_name.com": False}
    assert answer.unavailable_reason("ink.com") == "In use"
    one, two = (answer.fee_for(free, "create", years) for years in (1, 2))
    assert one is not None
    assert two is not None
    assert 0 < float(one) < float(two)


def test_a_name_is_registered_known_to_the_world_and_let_go(
    client: Client, registry: Registry
) -> None:
    [name] = fresh()
    who = contact(client)
    assert client.host.create("ns1.gatewaytest.example").code() in (1000, 2302)
    made = client.domain.create(
        name, years=2, registrant=who, contacts={"admin": who}, auth_info="a-word-1",
        nameservers=["ns1.gatewaytest.example"],
        sec_dns={"ds_data": [{"key_tag": 1, "alg": 13, "digest_type": 2, "digest": "AB" * 32}]},
        fee={"amount": "60.00", "currency": "EUR"},
    )  # fmt: skip
    assert made.code() == 1000
    assert made.charged_fee() is not None
    told = client.domain.info(name)
    assert (told.auth_info(), told.registrant(), told.is_signed()) == ("a-word-1", who, True)
    assert told.statuses() == ["clientTransferProhibited"]
    address = f"http://127.0.1.1:{registry.port}/alderway/domain/{name}"
    with urllib.request.urlopen(address, timeout=5) as reply:
        shown = json.load(reply)
    assert shown["secureDNS"]["delegationSigned"] is True
    assert shown["nameservers"][0]["ldhName"] == "ns1.gatewaytest.example"
    question = dns.message.make_query(name, "NS")
    answer = dns.query.udp(question, "127.0.0.1", port=registry.dns_port, timeout=5)
    assert "ns1.gatewaytest.example" in str(answer.answer)
    assert client.domain.create(name, years=1, registrant=who).code() == 2302
    # Within five days it is gone at once, and paid back.
    assert client.domain.delete(name).code() == 1000
    assert client.domain.info(name).code() == 2303


def test_a_name_is_renewed_once_for_a_day_it_runs_out_lapses_and_is_restored(
    client: Client, registry: Registry
) -> None:
    [name] = fresh()
    client.domain.create(name, years=1, registrant=contact(client))
    until = client.domain.info(name).expiry_date()
    assert until is not None
    assert client.domain.renew(name, until, 1).code() == 1000
    assert client.domain.renew(name, until, 1).code() == 2306
    registry.clock(780)
    try:
        later = client.domain.info(name).expiry_date() or ""
        assert client.domain.renew(name, later, 1).code() == 2304
        assert client.domain.info(name).rgp_status() == ["redemptionPeriod"]
        assert client.domain.restore(name).code() == 1000
        assert "pendingDelete" not in client.domain.info(name).statuses()
    finally:
        registry.clock(0)


@pytest.mark.parametrize(
    ("part", "code"),
    [
        ({"name": "Żaneta"}, 2005), ({"email": "nobody"}, 2005), ({"voice": "12"}, 2005),
    ],
)  # fmt: skip
def test_contacts_are_looked_at(client: Client, part: dict[str, Any], code: int) -> None:
    given = {"name": "E", "street": ["4"], "city": "P", "cc": "IE", "email": "e@x.example", **part}
    assert client.contact.create("Q1", **given).code() == code


def test_nothing_is_said_to_who_does_not_know_the_word(registry: Registry) -> None:
    client = Client(
        Config(
            host="127.0.3.1", port=registry.epp_port, clid="vine-tag", password="wrong word",
            ca_file=str(registry.folder / "authority.pem"),
        )
    ).throw_on_failure(False)  # fmt: skip
    client.connect()
    assert client.domain.check(["ink.com"]).code() == 2002
    client.disconnect()


def test_a_certificate_that_ran_out_is_one(registry: Registry) -> None:
    registry.faults(kind="expired", service="epp", extension="connection")
    with pytest.raises(ConnectionException, match="expired"):
        connected(registry)
    with pytest.raises(ssl.SSLCertVerificationError):
        ssl.get_server_certificate(
            ("127.0.3.1", registry.epp_port), ca_certs=str(registry.folder / "authority.pem")
        )
    registry.faults()
    connected(registry).disconnect()


def test_what_costs_more_than_agreed_is_not_sold(client: Client) -> None:
    [name] = fresh()
    fee = {"amount": "0.50", "currency": "EUR"}
    answer = client.domain.create(name, years=1, registrant=contact(client), fee=fee)
    assert answer.code() == 2004
    assert client.domain.info(name).code() == 2303


def test_a_name_goes_to_another_seller_by_its_code_once_it_may(
    client: Client, registry: Registry
) -> None:
    [name] = fresh()
    who = contact(client)
    fee = {"amount": "60.00", "currency": "EUR"}
    assert client.domain.create(name, registrant=who, auth_info="word-22", fee=fee).code() == 1000
    other = connected(registry, host="127.0.3.2")

    def ask(op: str, by: Client = other, code: str | None = None) -> int:
        years = 1 if op == "request" else None
        agreed = fee if op == "request" else None
        return by.domain.transfer(op, name, code, years, fee=agreed).code()

    def status(by: Client = other) -> str | None:
        return by.domain.transfer("query", name).transfer_status()

    assert ask("request", code="word-22") == 2304  # locked, and not sixty days old
    client.domain.update(name, remove={"statuses": ["clientTransferProhibited"]})
    assert ask("request", code="word-22") == 2304
    try:
        registry.clock(61)
        assert ask("request", code="another") == 2202
        assert ask("request", client, "word-22") == 2106
        assert ask("query") == 2201
        assert ask("request", code="word-22") == 1001
        assert ask("request", code="word-22") == 2300
        assert "pendingTransfer" in client.domain.info(name).statuses()
        # Whoever asks may not decide, and whoever has it may not call it off.
        assert ask("approve") == 2201
        assert ask("cancel", client) == 2201
        notice = client.poll.request()
        while notice.value("name") != name:
            client.poll.ack(notice.message_id() or "")
            notice = client.poll.request()
        assert notice.transfer_status() == "pending"
        assert ask("reject", client) == 1000
        assert (status(), ask("reject", client)) == ("clientRejected", 2301)
        assert ask("request", code="word-22") == 1001
        assert ask("cancel") == 1000
        assert status(client) == "clientCancelled"
        until = client.domain.info(name).expiry_date()
        assert ask("request", code="word-22") == 1001
        # Nobody answers: after five days the registry does.
        registry.clock(67)
        moved = other.domain.info(name)
        assert (status(), moved.auth_info()) == ("serverApproved", "word-22")
        assert int((moved.expiry_date() or "")[:4]) == int((until or "")[:4]) + 1
        assert client.domain.info(name).code() == 2201
    finally:
        registry.clock(0)
    charges = [c for c in registry.books["charge"] if c["name"] == name and c["seller"] == "weir"]
    # Three were asked for and paid, two given back.
    assert [c["kind"] for c in charges].count("transfer") == 3
    assert [c["kind"] for c in charges].count("refund") == 2
    other.disconnect()


def test_the_books_of_earlier_versions_are_read() -> None:
    held = Held("a.com", "lantern", 1, "", "", "", "", "", "", moving="")  # type: ignore[arg-type]
    assert held.moving == {}
