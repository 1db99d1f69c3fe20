"""WHOIS: what answers mean, in the forms they have, and the source that asks for them."""

import asyncio
import time
from collections.abc import AsyncIterator, Awaitable, Callable
from contextlib import asynccontextmanager
from datetime import UTC, datetime

import pytest
from hypothesis import given
from hypothesis import strategies as st

from standins.faults import Faults
from standins.limiter import Limiter
from standins.whois import WHOIS, WhoisServers
from standins.world import World
from tests.conftest import Registry
from vinetag.core.extensions import shipped_catalogue
from vinetag.core.names import FullName
from vinetag.lookup import HostLimits, LookupSettings, RetryPolicy, open_engine
from vinetag.lookup.whois import LARGEST, WhoisService, question, read_whois, referral_of

LABELS = """\
Domain Name: INKPOST.IO\r
Registry Expiry Date: 2027-03-12T00:00:00Z\r
Creation Date: 2013-03-12T10:00:00Z\r
Updated Date: 2026-03-12T00:00:00Z\r
Registrar: Gullwing Names\r
Domain Status: {status} https://icann.org/epp#{status}\r
Registrant Organization: REDACTED FOR PRIVACY\r
"""
SERVICES = {
    "io": WhoisService("whois.nic.io", "", "Domain not found."),
    "de": WhoisService("whois.denic.de", "-T dn {name}", "Status: free"),
    "jp": WhoisService("whois.jprs.jp", "{name}/e", "No match!!"),
    "se": WhoisService("whois.iis.se", "", 'domain "{name}" not found.'),
}
SHORT = "Domain: inkpost.de\nStatus: connect\nChanged: 2018-03-12T21:44:25+01:00\n"
BRACKETS = (
    "[ database provides information ]\n\nDomain Information:\n[Domain Name]      INKPOST.JP\n\n"
    "[Registrant]     Tusche KK\n\n[Created on]     2001/03/22\n[Expires on]     2027/03/31\n"
    "[Status]         Active\n"
)
ONCE = RetryPolicy(attempts=1, first_wait=0.01, patience=1, rounds=1, give_up=0)


def says(text: str, extension: str = "io") -> tuple[str, str]:
    found = read_whois(text.encode(), FullName("inkpost", extension), SERVICES[extension])
    return found.says, found.trouble


@pytest.mark.parametrize(
    ("text", "extension", "expected"),
    [
        (LABELS.format(status="clientTransferProhibited"), "io", ("registered", "")),
        (LABELS.format(status="redemptionPeriod"), "io", ("dropping", "")),
        (LABELS.format(status="reserved"), "io", ("reserved", "")),
        (SHORT, "de", ("registered", "")),
        (BRACKETS, "jp", ("registered", "")),
        ("Domain not found.\r\n>>> Last update <<<\r\n", "io", ("unregistered", "")),
        ("%  Domain   NOT found.\n", "io", ("unregistered", "")),
        ("Domain: inkpost.de\nStatus: free\n", "de", ("unregistered", "")),
        ('% x\n\ndomain "inkpost.se" not found.\n', "se", ("unregistered", "")),
        # Another's phrase, or the own within other words, says nothing.
        ("No match for INKPOST.IO.\n", "io", ("", "nonsense")),
        ("Registrant: Domain not found. Ltd\n", "io", ("", "nonsense")),
        ('domain "other.se" not found.\n', "se", ("", "nonsense")),
        # A name without anything that says that it is registered, and another's record.
        ("Domain: inkpost.de\nStatus: invalid\n", "de", ("", "nonsense")),
        (SHORT.replace("inkpost", "other"), "de", ("", "nonsense")),
        (LABELS.format(status="ok") + "Domain not found.\n", "io", ("", "contradiction")),
        ("% Query rate limit exceeded\n", "io", ("", "rate_limited")),
        ("Error: access control limit exceeded\n", "de", ("", "rate_limited")),
        ("\r\n \r\n", "io", ("", "nonsense")),
        ("<html><h1>Welcome</h1></html>", "io", ("", "nonsense")),
    ],
)
def test_what_answers_mean(text: str, extension: str, expected: tuple[str, str]) -> None:
    assert says(text, extension) == expected


def test_a_record_is_read_whole() -> None:
    text = LABELS.format(status="clientHold")
    found = read_whois(text.encode(), FullName("inkpost", "io"), SERVICES["io"])
    assert found.registered == datetime(2013, 3, 12, 10, tzinfo=UTC)
    assert found.expires == datetime(2027, 3, 12, tzinfo=UTC)
    assert (found.registrar, found.holder) == ("Gullwing Names", "")
    assert found.statuses == ("client hold",)
    jp = read_whois(BRACKETS.encode(), FullName("inkpost", "jp"), SERVICES["jp"])
    assert (jp.holder, jp.registered) == ("Tusche KK", datetime(2001, 3, 22, tzinfo=UTC))
    latin = BRACKETS.replace("Tusche KK", "Süß & Söhne").encode("latin-1")
    assert read_whois(latin, FullName("inkpost", "jp"), SERVICES["jp"]).holder == "Süß & Söhne"


def test_questions_have_the_form_of_the_registry() -> None:
    asked = {e: question(s, FullName("inkpost", e)) for e, s in SERVICES.items()}
    assert asked["io"] == b"inkpost.io\r\n"
    assert asked["de"] == b"-T dn inkpost.de\r\n"
    assert asked["jp"] == b"inkpost.jp/e\r\n"


lines = st.lists(
    st.sampled_from([*LABELS.splitlines(), *BRACKETS.splitlines(), *SHORT.splitlines()])
    | st.text(max_size=60),
    max_size=30,
)


@given(st.binary(max_size=400), st.sampled_from(sorted(SERVICES)))
def test_any_octets_are_read(body: bytes, extension: str) -> None:
    found = read_whois(body, FullName("inkpost", extension), SERVICES[extension])
    assert found.says in ("", "registered", "dropping", "reserved", "unregistered")
    assert referral_of(body) == referral_of(body).lower()


@given(lines, st.sampled_from(sorted(SERVICES)))
def test_a_name_is_open_by_its_own_phrase_only(parts: list[str], extension: str) -> None:
    name, service = FullName("inkpost", extension), SERVICES[extension]
    found = read_whois("\n".join(parts).encode(), name, service)
    phrase = service.absent.replace("{name}", str(name)).lower()
    if found.says == "unregistered":
        assert any(phrase in " ".join(p.lower().split()) for p in "\n".join(parts).splitlines())


def test_a_long_answer_costs_no_more_than_a_short_one() -> None:
    hostile = ("Domain Name:" * 9_000 + "\n") * 20 + "a" * LARGEST
    started = time.monotonic()
    assert says(hostile)[0] == ""
    assert time.monotonic() - started < 5


Talk = Callable[[bytes], Awaitable[bytes]]


@asynccontextmanager
async def server(talk: Talk) -> AsyncIterator[tuple[str, list[bytes]]]:
    """A WHOIS server that answers by `talk`; its address, and what it was asked."""
    asked: list[bytes] = []

    async def serve(reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        try:
            asked.append(await reader.readline())
            writer.write(await talk(asked[-1]))
        finally:
            writer.close()

    running = await asyncio.start_server(serve, "127.0.0.1", 0)
    host, port = running.sockets[0].getsockname()[:2]
    async with running:
        yield f"{host}:{port}", asked


def settings(servers: dict[str, str], **changes: object) -> LookupSettings:
    services = {e: SERVICES[e]._replace(server=at) for e, at in servers.items()}
    where = {
        "bootstrap": "http://127.0.0.1:9/dns.json", "whois": "catalogue", "retry": ONCE,
        "whois_services": services, "whois_timeout": 0.5, **changes,
    }  # fmt: skip
    return LookupSettings(**where)  # type: ignore[arg-type]


async def ask(where: LookupSettings, full: str = "inkpost.io") -> tuple[str, str, str]:
    label, _, extension = full.partition(".")
    async with open_engine(where) as engine:
        answer = await engine.ask(FullName(label, extension))
    return answer.status, answer.trouble, answer.evidence[-1].address


async def found(_asked: bytes) -> bytes:
    return LABELS.format(status="ok").encode()


async def slow(_asked: bytes) -> bytes:
    await asyncio.sleep(5)
    return b""


async def endless(_asked: bytes) -> bytes:
    return b"x" * (LARGEST + 1)


async def empty(_asked: bytes) -> bytes:
    return b""


@pytest.mark.parametrize(
    ("talk", "expected"),
    [
        (found, ("taken", "")),
        (slow, ("unsure", "timeout")),
        (endless, ("unsure", "nonsense")),
        (empty, ("unsure", "nonsense")),
    ],
)
async def test_the_source_turns_every_failure_into_a_value(
    talk: Talk, expected: tuple[str, str]
) -> None:
    async with server(talk) as (address, asked):
        assert (await ask(settings({"io": address})))[:2] == expected
    assert asked == [b"inkpost.io\r\n"]
    assert (await ask(settings({"io": "127.0.0.1:9"})))[:2] == ("unsure", "unreachable")


async def test_a_referral_is_followed_once_and_only_to_servers_of_the_catalogue() -> None:
    async with server(found) as (known, _), server(found) as (stranger, unasked):
        to = {"io": known}

        async def refers(_asked: bytes) -> bytes:
            return f"% none of ours\nrefer:        {to['io']}\n".encode()

        async with server(refers) as (first, _):
            where = settings({"io": first, "se": known})
            assert await ask(where) == ("taken", "", f"whois://{known}")
            to["io"] = stranger
            assert (await ask(where))[:2] == ("unsure", "nonsense")
            assert unasked == []
            to["io"] = first  # to itself
            assert (await ask(where))[:2] == ("unsure", "nonsense")


async def test_a_server_is_asked_as_fast_as_it_may_be() -> None:
    async with server(found) as (address, asked):
        where = settings({"io": address}, whois_limits=HostLimits(at_once=1, per_second=20))
        names = [FullName(f"name{i}", "io") for i in range(6)]
        answers: list[str] = []
        started = asyncio.get_running_loop().time()
        async with open_engine(where) as engine:
            await engine.sweep(names, lambda a: answers.append(a.trouble))
        assert asyncio.get_running_loop().time() - started >= 5 / 20
    assert len(asked) == len(answers) == 6


async def test_where_rdap_gives_nothing_whois_is_asked(registry: Registry) -> None:
    async with server(found) as (address, _):
        where = settings({"io": address}, bases={"io": "http://127.0.0.1:9/"})
        async with open_engine(where) as engine:
            answer = await engine.ask(FullName("inkpost", "io"))
    assert [e.source for e in answer.evidence] == ["rdap", "whois"]
    assert answer.status == "taken"
    # In the simulated world the registries of some extensions have no RDAP at all.
    simulated = LookupSettings.from_env(registry.environment).with_catalogue(shipped_catalogue())
    async with open_engine(simulated) as engine:
        free = await engine.ask(FullName("qwzxvkjhqp", "jp"))
        taken = await engine.ask(FullName("letter", "de"), "buying")
    assert ([e.source for e in free.evidence], free.status) == (["dns", "whois"], "open")
    assert [e.source for e in taken.evidence] == ["dns", "whois", "quote"]
    assert taken.status in ("taken", "offered")


@pytest.mark.parametrize("extension", sorted(WHOIS))
async def test_every_stand_in_is_understood(extension: str) -> None:
    """With the questions and phrases of the shipped catalogue, as for the real registries."""
    world = World()
    servers = WhoisServers(world, Faults, Limiter(), lambda: datetime.now(UTC))
    entry = shipped_catalogue()[extension]
    service = WhoisService(entry.whois, entry.whois_query, entry.whois_absent)
    for label in ("letter", "inkpost", "qwzxvkjhqp", "zz", "paper"):
        name = FullName(label, extension)
        answer = await servers.answer(question(service, name).decode().strip())
        assert answer is not None
        read = read_whois(answer.encode(), name, service)
        held = world.registration(label, extension, datetime.now(UTC))
        back = world.is_reserved(label, extension)  # told in words nobody has to understand
        expected = ("registered", "dropping") if held else ("",) if back else ("unregistered",)
        assert read.says in expected, answer
        if held and read.registered:
            assert read.registered.date() == held.created.date()


@pytest.mark.parametrize(
    ("kind", "trouble"),
    [
        ("busy", "rate_limited"),
        ("nonsense", "nonsense"),
        ("hangup", "nonsense"),
        ("loss", "timeout"),
    ],
)
async def test_what_goes_wrong_is_told(registry: Registry, kind: str, trouble: str) -> None:
    registry.faults(service="whois", kind=kind)
    where = LookupSettings.from_env({**registry.environment, "VINETAG_WHOIS_TIMEOUT": "0.3"})
    where = where.with_catalogue(shipped_catalogue())
    async with open_engine(where) as engine:
        answer = await engine.ask(FullName("qwzxvkjhqp", "io"), deadline=8)
    assert (answer.status, answer.trouble) == ("unsure", trouble)
