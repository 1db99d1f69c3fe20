"""Name servers for every extension of the world, over UDP and TCP (RFC 1035, RFC 7766).

Messages are read and written by hand: a bulk check asks thousands a second, and a library that
knows every record type would be what is measured.
"""

from __future__ import annotations

import asyncio
import struct
from collections.abc import Callable, Sequence
from datetime import datetime
from functools import partial

from standins.faults import Faults
from standins.hosting import ADDRESSES, HOSTS, OTHERS, Hosting
from standins.sellers import SELLERS
from standins.world import EXTENSIONS, REGISTRIES, SERVING, World

__all__ = ["NameServers"]

TTL = 300
A, NS, SOA, DS, AXFR, IN = 1, 2, 6, 43, 252, 1
NO_ERROR, SERVER_FAILURE, NO_SUCH_NAME, NOT_IMPLEMENTED, REFUSED = 0, 2, 3, 4, 5
IS_RESPONSE, IS_AUTHORITATIVE, RECURSION_DESIRED, OPCODE = 0x8000, 0x0400, 0x0100, 0x7800
TO_QUESTION = b"\xc0\x0c"


class NameServers:
    """Answers from the world, at the moment `now` gives: registries' servers and a resolver in
    one, and at addresses of their own the host of `hosting` and everybody else's servers.
    """

    def __init__(
        self, world: World, faults: Callable[[], Faults], now: Callable[[], datetime],
        hosting: Hosting | None = None,
    ) -> None:  # fmt: skip
        self._world, self._faults, self._now = world, faults, now
        self._hosting = hosting
        self.served = 0

    async def answer(self, wire: bytes, at: str = "") -> bytes | None:
        """The response to a query in wire format to an address; None to stay silent."""
        if at in ADDRESSES and self._hosting is not None:
            place = f"ns{1 + ADDRESSES.index(at)}"
            if fault := self._faults().strike("hosting", "", place):
                if fault.kind == "loss":
                    return None
                if fault.kind != "slow":
                    return wire[:2] + bytes([0x80 | (wire[2] & 0x79), REFUSED]) + bytes(8)
                await asyncio.sleep(fault.seconds)
            return self._hosting.answer(wire)
        read = _read_query(wire)
        if read is None:
            return None
        name, kind, question = read
        ident, flags = struct.unpack_from("!HH", wire)

        def reply(code: int, answers: bytes = b"", count: int = 0, authority: bytes = b"") -> bytes:
            flags_out = IS_RESPONSE | (flags & (RECURSION_DESIRED | OPCODE)) | code
            if code in (NO_ERROR, NO_SUCH_NAME):
                flags_out |= IS_AUTHORITATIVE
            head = struct.pack("!HHHHHH", ident, flags_out, 1, count, int(bool(authority)), 0)
            return head + question + answers + authority

        if flags & OPCODE:
            return reply(NOT_IMPLEMENTED)
        self.served += 1
        label, extension = _split(name)
        registry = EXTENSIONS[extension][0] if extension else ""
        if fault := self._faults().strike("dns", extension, registry):
            if fault.kind == "loss":
                return None
            if fault.kind != "slow":
                return reply(REFUSED if fault.kind == "lame" else SERVER_FAILURE)
            await asyncio.sleep(fault.seconds)
        if name.endswith(".example") and not extension:
            address = _address(name)
            if address and kind == A:
                data = bytes(int(part) for part in address.split("."))
                return reply(NO_ERROR, _record(TO_QUESTION, A, data), 1)
            return reply(NO_ERROR if address else NO_SUCH_NAME)
        if not extension or kind == AXFR:
            return reply(REFUSED)
        soa = (
            _name(f"ns.{registry}.example")
            + _name(f"hostmaster.{registry}.example")
            + struct.pack("!IIIII", 1, 7200, 900, 1_209_600, TTL)
        )
        start = _record(_name(extension), SOA, soa)
        if kind == NS and not label:
            return reply(NO_ERROR, _record(TO_QUESTION, NS, _name(f"ns.{registry}.example")), 1)
        found = self._world.registration(label, extension, self._now()) if label else None
        if found and at == OTHERS and not any(_address(h) == OTHERS for h in found.nameservers):
            return reply(REFUSED)
        if found and found.delegated:
            below = name != found.name
            if at == OTHERS and kind == SOA and not below:
                return reply(NO_ERROR, _record(TO_QUESTION, SOA, soa), 1)
            if kind == DS and not below:
                keys = [_signer(one) for one in found.keys]
                rows = [_record(TO_QUESTION, DS, data) for data in keys]
                return reply(NO_ERROR, b"".join(rows), len(rows), b"" if rows else start)
            if self._hosting and (kind != NS or below) and set(HOSTS) & set(found.nameservers):
                return self._hosting.answer(wire)
            if kind == NS:
                hosts = [_record(TO_QUESTION, NS, _name(host)) for host in found.nameservers]
                return reply(NO_ERROR, b"".join(hosts), len(hosts))
            return reply(NO_ERROR, authority=start)
        return reply(NO_SUCH_NAME if label else NO_ERROR, authority=start)

    async def start(self, host: str, port: int) -> list[object]:
        """Listen on both transports, at every address; what is returned has to be kept."""
        loop = asyncio.get_running_loop()
        keep: list[object] = []
        for at in ("", *ADDRESSES, OTHERS) if self._hosting else ("",):
            udp, _ = await loop.create_datagram_endpoint(
                partial(_Udp, self, at), (at or host, port)
            )
            keep += [udp, await asyncio.start_server(partial(self._serve, at), at or host, port)]
        return keep

    async def _serve(
        self, at: str, reader: asyncio.StreamReader, writer: asyncio.StreamWriter
    ) -> None:
        """Queries over TCP: each after its length in two octets."""
        try:
            while True:
                (length,) = struct.unpack("!H", await reader.readexactly(2))
                answer = await self.answer(await reader.readexactly(length), at)
                if answer is None:
                    break
                writer.write(struct.pack("!H", len(answer)) + answer)
                await writer.drain()
        except (asyncio.IncompleteReadError, ConnectionError):
            pass
        finally:
            writer.close()


class _Udp(asyncio.DatagramProtocol):
    def __init__(self, servers: NameServers, at: str) -> None:
        self._servers, self._at = servers, at
        self._transport: asyncio.DatagramTransport | None = None
        self._tasks: set[asyncio.Task[None]] = set()

    def connection_made(self, transport: asyncio.BaseTransport) -> None:
        self._transport = transport  # type: ignore[assignment]

    def datagram_received(self, data: bytes, addr: tuple[str, int]) -> None:
        task = asyncio.create_task(self._answer(data, addr))
        self._tasks.add(task)
        task.add_done_callback(self._tasks.discard)

    async def _answer(self, data: bytes, addr: tuple[str, int]) -> None:
        answer = await self._servers.answer(data, self._at)
        if answer is not None and self._transport:
            self._transport.sendto(answer, addr)


def _read_query(wire: bytes) -> tuple[str, int, bytes] | None:
    """Name in lower case, record type, and the question as it came; None for what is no query of
    one question in class IN.
    """
    if len(wire) < 17 or wire[2] & 0x80 or wire[4:6] != b"\x00\x01":
        return None
    labels, at = [], 12
    while at < len(wire) and wire[at]:
        length = wire[at]
        if length > 63 or at + length >= len(wire):
            return None
        labels.append(wire[at + 1 : at + 1 + length].decode("ascii", "replace").lower())
        at += 1 + length
    if at + 5 > len(wire):
        return None
    kind, group = struct.unpack_from("!HH", wire, at + 1)
    return (".".join(labels), kind, wire[12 : at + 5]) if group == IN else None


def _split(name: str) -> tuple[str, str]:
    """Label and extension of a name, "" and "" where no extension here carries it."""
    if name in EXTENSIONS:
        return "", name
    pieces = name.split(".")
    for start in range(1, len(pieces)):
        extension = ".".join(pieces[start:])
        if extension in EXTENSIONS:
            return pieces[start - 1], extension
    return "", ""


def _address(host: str) -> str:
    """Of a server of the world, "" where there is none of that name."""
    if host in HOSTS:
        return ADDRESSES[HOSTS.index(host)]
    kind, _, of = host.partition(".")
    if kind == "ns" and of.removesuffix(".example") in REGISTRIES:
        return "127.0.0.1"
    known = of.removesuffix(".example") in (*SERVING, *(one.code for one in SELLERS))
    return OTHERS if kind in ("ns1", "ns2") and known else ""


def _signer(parts: Sequence[str]) -> bytes:
    """A delegation signer (RFC 4034, section 5)."""
    tag, algorithm, kind, digest = parts
    return struct.pack("!HBB", int(tag), int(algorithm), int(kind)) + bytes.fromhex(digest)


def _name(text: str) -> bytes:
    return b"".join(bytes([len(p)]) + p.encode("ascii") for p in text.split(".")) + b"\x00"


def _record(owner: bytes, kind: int, data: bytes) -> bytes:
    return owner + struct.pack("!HHIH", kind, IN, TTL, len(data)) + data
