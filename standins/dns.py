"""Name servers for every extension of the world, over UDP and TCP (RFC 1035, RFC 7766).

Messages are read and written by hand: a bulk check asks thousands a second, and a library that
knows every record type would be what is measured.
"""

from __future__ import annotations

import asyncio
import struct
from collections.abc import Callable
from datetime import datetime

from standins.faults import Faults
from standins.world import EXTENSIONS, World

__all__ = ["NameServers"]

TTL = 300
NS, SOA, IN = 2, 6, 1
NO_ERROR, SERVER_FAILURE, NO_SUCH_NAME, NOT_IMPLEMENTED, REFUSED = 0, 2, 3, 4, 5
IS_RESPONSE, IS_AUTHORITATIVE, RECURSION_DESIRED, OPCODE = 0x8000, 0x0400, 0x0100, 0x7800
TO_QUESTION = b"\xc0\x0c"


class NameServers:
    """Answers from the world, at the moment `now` gives."""

    def __init__(self, world: World, faults: Callable[[], Faults], now: Callable[[], datetime]):
        self._world, self._faults, self._now = world, faults, now
        self.served = 0

    async def answer(self, wire: bytes) -> bytes | None:
        """The response to a query in wire format; None to stay silent."""
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
        if not extension:
            return reply(REFUSED)
        start = _record(
            _name(extension),
            SOA,
            _name(f"ns.{registry}.example")
            + _name(f"hostmaster.{registry}.example")
            + struct.pack("!IIIII", 1, 7200, 900, 1_209_600, TTL),
        )
        found = self._world.registration(label, extension, self._now()) if label else None
        if found and found.delegated:
            if kind == NS:
                hosts = [_record(TO_QUESTION, NS, _name(host)) for host in found.nameservers]
                return reply(NO_ERROR, b"".join(hosts), len(hosts))
            return reply(NO_ERROR, authority=start)
        return reply(NO_SUCH_NAME if label else NO_ERROR, authority=start)

    async def start(self, host: str, port: int) -> list[object]:
        """Listen on both transports; what is returned has to be kept."""
        loop = asyncio.get_running_loop()
        udp, _ = await loop.create_datagram_endpoint(lambda: _Udp(self), (host, port))
        tcp = await asyncio.start_server(self._serve, host, port)
        return [udp, tcp]

    async def _serve(self, reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        """Queries over TCP: each after its length in two octets."""
        try:
            while True:
                (length,) = struct.unpack("!H", await reader.readexactly(2))
                answer = await self.answer(await reader.readexactly(length))
                if answer is None:
                    break
                writer.write(struct.pack("!H", len(answer)) + answer)
                await writer.drain()
        except (asyncio.IncompleteReadError, ConnectionError):
            pass
        finally:
            writer.close()


class _Udp(asyncio.DatagramProtocol):
    def __init__(self, servers: NameServers) -> None:
        self._servers = servers
        self._transport: asyncio.DatagramTransport | None = None
        self._tasks: set[asyncio.Task[None]] = set()

    def connection_made(self, transport: asyncio.BaseTransport) -> None:
        self._transport = transport  # type: ignore[assignment]

    def datagram_received(self, data: bytes, addr: tuple[str, int]) -> None:
        task = asyncio.create_task(self._answer(data, addr))
        self._tasks.add(task)
        task.add_done_callback(self._tasks.discard)

    async def _answer(self, data: bytes, addr: tuple[str, int]) -> None:
        answer = await self._servers.answer(data)
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


def _name(text: str) -> bytes:
    return b"".join(bytes([len(p)]) + p.encode("ascii") for p in text.split(".")) + b"\x00"


def _record(owner: bytes, kind: int, data: bytes) -> bytes:
    return owner + struct.pack("!HHIH", kind, IN, TTL, len(data)) + data
