"""What is read from answers, without any network."""

import json
from datetime import UTC, datetime
from typing import get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.lookup.servers import domain
from vinetag.core.checking import TROUBLE_WORDING, Trouble
from vinetag.core.names import FullName
from vinetag.lookup.bootstrap import BootstrapError, read_bootstrap
from vinetag.lookup.rdap import domain_address, read_domain
from vinetag.lookup.retry import RetryPolicy, next_wait, read_retry_after

NAME = FullName("inkpost", "com")
NOW = datetime(2026, 11, 25, 12, 0, tzinfo=UTC)


def read(status: int, body: object = b"", content_type: str = "application/rdap+json"):
    raw = body if isinstance(body, bytes) else json.dumps(body).encode()
    return read_domain(status, content_type, raw, NAME)


def test_a_domain_object_is_taken_with_its_dates() -> None:
    events = [
        {"eventAction": "registration", "eventDate": "2004-02-29T10:00:00Z"},
        {"eventAction": "expiration", "eventDate": "2027-03-01T10:00:00+02:00"},
        {"eventAction": "last changed", "eventDate": "yesterday"},
    ]
    found = read(200, domain("INKPOST.COM.", events=events, status=["active"], odd={"x": 1}))
    assert (found.says, found.trouble) == ("registered", "")
    assert found.registered == datetime(2004, 2, 29, 10, tzinfo=UTC)
    assert found.expires == datetime(2027, 3, 1, 8, tzinfo=UTC)
    assert found.statuses == ("active",)


def test_not_found_is_open_unless_it_is_a_web_page() -> None:
    assert read(404, {"errorCode": 404}).says == "unregistered"
    assert read(404).says == "unregistered"
    assert read(404, b"<html>", "text/html; charset=utf-8").trouble == "nonsense"


@pytest.mark.parametrize(
    ("status", "body", "trouble"),
    [
        (200, b"<html>Welcome</html>", "nonsense"),
        (200, b"", "nonsense"),
        (200, b'{"objectClassName": "domain", "ldh', "nonsense"),
        (200, b"\xff\xfe", "nonsense"),
        (200, [], "nonsense"),
        (200, {"ldhName": "inkpost.com"}, "nonsense"),
        (200, {"objectClassName": "entity", "ldhName": "inkpost.com"}, "nonsense"),
        (200, domain("other.com"), "nonsense"),
        (200, domain(""), "nonsense"),
        (200, domain("inkpost.com", status="active"), "nonsense"),
        (204, b"", "refused"),
        (301, b"", "redirected"),
        (400, {"errorCode": 400}, "refused"),
        (403, b"", "refused"),
        (429, b"", "rate_limited"),
        (500, b"", "server_error"),
        (503, domain("inkpost.com"), "server_error"),
    ],
)
def test_everything_else_is_unsure(status: int, body: object, trouble: str) -> None:
    found = read(status, body)
    assert (found.says, found.trouble) == ("", trouble)
    assert found.detail


@given(st.integers(200, 599), st.binary(max_size=60))
def test_no_noise_is_ever_taken(status: int, body: bytes) -> None:
    found = read_domain(status, "application/json", body, NAME)
    assert found.says == ("unregistered" if status == 404 else "")


def test_every_trouble_has_words() -> None:
    assert set(TROUBLE_WORDING) == set(get_args(Trouble))
    assert all(text for trouble, text in TROUBLE_WORDING.items() if trouble)


def test_the_longest_match_answers() -> None:
    services = [
        [["uk"], ["http://plain/", "https://sure/x"]],
        [["co.uk"], ["https://two"]],
        [["odd"], ["gopher://no"]],
    ]
    found = read_bootstrap(json.dumps({"version": "1.0", "services": services}).encode())
    assert found.base_for(FullName("a", "uk")) == "https://sure/x/"
    assert found.base_for(FullName("a", "co.uk")) == "https://two/"
    assert found.base_for(FullName("a", "org.uk")) == "https://sure/x/"
    assert found.base_for(FullName("a", "odd")) is None
    assert domain_address("https://two/", NAME) == "https://two/domain/inkpost.com"


@pytest.mark.parametrize("body", [b"", b"[]", b'{"version": "1.0"}', b'{"services": [["com"]]}'])
def test_what_is_no_bootstrap_is_refused(body: bytes) -> None:
    with pytest.raises(BootstrapError):
        read_bootstrap(body)


@given(
    st.sampled_from(get_args(Trouble)),
    st.integers(1, 6),
    st.none() | st.floats(0, 100),
    st.floats(0, 1),
)
def test_waits_are_bounded_and_never_shorten_what_was_asked(
    trouble: Trouble, attempt: int, retry_after: float | None, chance: float
) -> None:
    policy = RetryPolicy(attempts=4, first_wait=0.5, patience=8)
    wait = next_wait(policy, attempt, trouble, retry_after, chance)
    if wait is None:
        return
    assert attempt < 4
    assert 0 <= wait <= 8
    assert trouble in {"unreachable", "timeout", "rate_limited", "server_error", "lame"}
    if retry_after is not None:
        assert wait == retry_after


def test_waits_double() -> None:
    policy = RetryPolicy(attempts=9, first_wait=0.5, patience=100)
    waits = [next_wait(policy, n, "timeout", None, 0.5) for n in (1, 2, 3)]
    assert waits == [0.5, 1.0, 2.0]


def test_retry_after_in_both_forms() -> None:
    assert read_retry_after("7", NOW) == 7
    assert read_retry_after("Wed, 25 Nov 2026 12:00:30 GMT", NOW) == 30
    assert read_retry_after("Wed, 25 Nov 2026 11:00:00 GMT", NOW) == 0
    assert read_retry_after("soon", NOW) is None
    assert read_retry_after(None, NOW) is None


def test_the_way_out_and_the_registrar_are_read() -> None:
    card = ["vcard", [["version", {}, "text", "4.0"], ["fn", {}, "text", "Gullwing Names"]]]
    entities = [{"roles": ["registrar"], "vcardArray": card}, {"roles": ["technical"]}]
    for statuses, says in (
        (["redemption period"], "dropping"),
        (["active", "pending delete"], "dropping"),
        (["reserved"], "reserved"),
        (["client hold"], "registered"),
    ):
        found = read(200, domain("inkpost.com", status=statuses, entities=entities))
        assert (found.says, found.registrar) == (says, "Gullwing Names")
    odd = [{"roles": ["registrar"], "vcardArray": ["vcard", "none"]}]
    assert read(200, domain("inkpost.com", entities=odd)).registrar == ""


def test_the_holder_is_read_unless_it_is_withheld() -> None:
    def holder(*lines: object) -> str:
        card = ["vcard", list(lines)]
        entities = [{"roles": ["registrant"], "vcardArray": card}]
        return read(200, domain("inkpost.com", entities=entities)).holder

    name, org = ["fn", {}, "text", "Ana Soto"], ["org", {}, "text", "Kestrel Oy"]
    place = ["adr", {"cc": "fi"}, "text", [""] * 7]
    assert holder(name, org, place) == "Ana Soto (Kestrel Oy, FI)"
    assert holder(org) == "Kestrel Oy"
    assert holder(["fn", {}, "text", "REDACTED FOR PRIVACY"], place) == ""
    assert holder("fn", ["adr", "odd", "text", ""], 7) == ""
