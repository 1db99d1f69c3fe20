"""WHOIS for the extensions whose registries have no RDAP (RFC 3912), in the forms such answers
have: there is no standard one.
"""

from __future__ import annotations

import asyncio
from collections.abc import Callable
from datetime import datetime
from importlib.resources import files

from standins.faults import Fault, Faults
from standins.limiter import Limiter
from standins.world import EXTENSIONS, Registration, World

__all__ = ["WHOIS", "WhoisServers"]


def _spoken() -> dict[str, tuple[str, str]]:
    text = files("standins").joinpath("data/whois.tsv").read_text("ascii")
    rows = (line.split("\t") for line in text.splitlines())
    return {name: (form, absent.replace("\\t", "\t")) for name, form, absent in rows}


# extension -> (the form of its answers, the line that says that there is no registration)
WHOIS = _spoken()
LONGEST_QUESTION = 512
SILENCE = 120.0
NOTE = "% Every name, person and company in this answer is made up.\n"
EPP = {"active": "ok"}


class WhoisServers:
    """All of them at one address: the extension asked about says which answers. `now` gives the
    moment of the world.
    """

    def __init__(
        self,
        world: World,
        faults: Callable[[], Faults],
        limiter: Limiter,
        now: Callable[[], datetime],
    ) -> None:
        self._world, self._faults, self._limiter, self._now = world, faults, limiter, now
        self.served = 0

    async def start(self, host: str, port: int) -> asyncio.Server:
        """Listen."""
        return await asyncio.start_server(self._serve, host, port, limit=LONGEST_QUESTION)

    async def _serve(self, reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        try:
            line = await asyncio.wait_for(reader.readline(), 10)
            answer = await self.answer(line.decode("ascii", "replace").strip())
            if answer is not None:
                writer.write(answer.replace("\n", "\r\n").encode("utf-8"))
                await writer.drain()
        except (ValueError, ConnectionError, TimeoutError):
            pass  # a line without an end, or nobody there any more
        finally:
            writer.close()

    async def answer(self, question: str) -> str | None:
        """The answer to a question, None to hang up."""
        self.served += 1
        words = question.lower().removesuffix("/e").split()
        name = words[-1].rstrip(".") if words else ""
        label, _, extension = name.partition(".")
        if extension not in WHOIS:
            return "% This is not an extension of ours.\n"
        registry = EXTENSIONS[extension][0]
        if not self._limiter.allows(registry):
            return "% Query rate limit exceeded. Slow down.\n"
        fault = self._faults().strike("whois", extension, registry)
        if fault and fault.kind != "slow":
            return await _suffered(fault)
        if fault:
            await asyncio.sleep(fault.seconds)
        form, absent = WHOIS[extension]
        found = self._world.registration(label, extension, self._now())
        if found:
            return NOTE + FORMS[form](found)
        if self._world.is_reserved(label, extension):
            return f"{NOTE}This name is not for everybody.\n"
        named = f"Domain: {name}\n" if absent.startswith("Status") else ""
        return NOTE + named + absent.replace("{name}", name) + "\n"


async def _suffered(fault: Fault) -> str | None:
    if fault.kind == "loss":
        await asyncio.sleep(SILENCE)
    return {
        "busy": "% Too many requests from your address.\n",
        "nonsense": "Welcome to our service!\nHave a pleasant day.\n",
    }.get(fault.kind)


def _labels(found: Registration) -> str:
    """Field names as those of generic extensions."""
    states = [EPP.get(s, _camel(s)) for s in found.status]
    return "".join(
        [
            f"Domain Name: {found.name.upper()}\n",
            f"Updated Date: {found.changed:%Y-%m-%dT%H:%M:%SZ}\n",
            f"Creation Date: {found.created:%Y-%m-%dT%H:%M:%SZ}\n",
            f"Registry Expiry Date: {found.expires:%Y-%m-%dT%H:%M:%SZ}\n",
            f"Registrar: {found.registrar}\n",
            *(f"Domain Status: {s} https://icann.org/epp#{s}\n" for s in states),
            f"Registrant Organization: {found.organisation}\n",
            *(f"Name Server: {server}\n" for server in found.nameservers),
        ]
    )


def _plain(found: Registration) -> str:
    """Small letters, a column of values."""
    rows = [
        ("domain", found.name),
        ("holder", found.holder),
        ("created", f"{found.created:%Y-%m-%d}"),
        ("modified", f"{found.changed:%Y-%m-%d}"),
        ("expires", f"{found.expires:%Y-%m-%d}"),
        *(("nserver", server) for server in found.nameservers),
        *(("status", EPP.get(s, _camel(s))) for s in found.status),
        ("registrar", found.registrar),
    ]
    return "".join(f"{key + ':':<18}{value}\n" for key, value in rows)


def _short(found: Registration) -> str:
    """As little as can be said."""
    servers = "".join(f"Nserver: {server}\n" for server in found.nameservers)
    return f"Domain: {found.name}\n{servers}Status: connect\nChanged: {found.changed:%Y-%m-%d}\n"


def _tabs(found: Registration) -> str:
    """Blocks with tabs."""
    return (
        f"Domain:\t{found.name}\nStatus:\tNOT AVAILABLE\n"
        f"Registered:\t{found.created:%a %b %d %Y}\n\nRegistrant:\n\tNot shown\n\n"
        f"Registrar:\n\tName:\t{found.registrar}\n\nNameservers:\n"
        + "".join(f"\t{server}\n" for server in found.nameservers)
    )


def _brackets(found: Registration) -> str:
    """Field names in brackets, dates with slashes."""
    servers = "".join(f"[Name Server]                   {s}\n" for s in found.nameservers)
    return (
        "Domain Information:\n"
        f"[Domain Name]                   {found.name.upper()}\n\n"
        f"[Registrant]                    {found.organisation}\n\n{servers}"
        f"[Created on]                    {found.created:%Y/%m/%d}\n"
        f"[Expires on]                    {found.expires:%Y/%m/%d}\n"
        f"[Status]                        Active\n"
    )


def _names(found: Registration) -> str:
    """Blocks, indented with spaces, without any date."""
    servers = "".join(f"        {server}\n" for server in found.nameservers)
    return (
        f"Domain: {found.name}\nScript: LATIN\n\nRegistrant:\n        NOT DISCLOSED!\n\n"
        f"Registrar:\n        Name: {found.registrar}\n\nName servers:\n{servers}"
    )


def _sections(found: Registration) -> str:
    """A block for each subject, with small field names."""
    return (
        f"Domain:\nname:       {found.name}\nstatus:     ok (paid and in zone)\n"
        f"registered: {found.created:%Y-%m-%d %H:%M:%S +00:00}\n"
        f"changed:    {found.changed:%Y-%m-%d %H:%M:%S +00:00}\n"
        f"expire:     {found.expires:%Y-%m-%d}\n\nRegistrar:\nname:       {found.registrar}\n"
    )


def _headed(found: Registration) -> str:
    """Headings in brackets."""
    return (
        f"[Domain]\nDomain: {found.name}\nStatus: active\n\n"
        f"[Holder]\nType: Natural person\nCountry: {found.country}\nName: {found.holder}\n\n"
        + "".join(f"Nserver: {server}\n" for server in found.nameservers)
    )


def _spelt(found: Registration) -> str:
    """Field names as other words."""
    return (
        f"  Domain Name: {found.name}\n  Registered On: {found.created:%Y-%m-%d}\n"
        f"  Expires On: {found.expires:%Y-%m-%d}\n  Registrar: {found.registrar}\n"
        "  Domain Status: OK\n"
    )


def _camel(status: str) -> str:
    first, *rest = status.split()
    return first + "".join(word.capitalize() for word in rest)


FORMS: dict[str, Callable[[Registration], str]] = {
    "labels": _labels,
    "plain": _plain,
    "short": _short,
    "tabs": _tabs,
    "brackets": _brackets,
    "names": _names,
    "sections": _sections,
    "headed": _headed,
    "spelt": _spelt,
}
