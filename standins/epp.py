"""Simulated sellers' gateways: EPP over TLS (RFC 5730 and 5734), each at a loopback address of its
own, with domains, hosts and contacts (RFC 5731 to 5733), fees (RFC 8748), the grace periods of a
registry (RFC 3915), keys (RFC 5910) and login security (RFC 8807).

What a session may say is in standins.gateway; here are frames, sessions, and what goes wrong.
"""

from __future__ import annotations

import asyncio
import logging
import ssl
import struct
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import UTC, datetime
from pathlib import Path
from typing import Any, Final
from xml.sax.saxutils import escape

from defusedxml.ElementTree import fromstring

from standins.certificates import make_certificates
from standins.epp_xml import BALANCE, NAMESPACES, Answer, first, local, text_of
from standins.faults import Fault, Faults
from standins.gateway import Gateway
from standins.sellers import SELLERS, Seller

__all__ = ["LOGIN", "Gateways", "gateway_address"]

LARGEST: Final = 256 * 1024
IDLE: Final = 300.0
LOGIN: Final = "vine-tag"
EPP: Final = "urn:ietf:params:xml:ns:epp-1.0"
LOGIN_SECURITY: Final = "urn:ietf:params:xml:ns:epp:loginSec-1.0"
SENTINEL: Final = "[LOGIN-SECURITY]"
OBJECTS: Final = ("domain", "contact", "host")
WORDS: Final = {
    1000: "Command completed successfully", 1001: "Command completed successfully; action pending",
    1300: "Command completed successfully; no messages",
    1301: "Command completed successfully; ack to dequeue",
    1500: "Command completed successfully; ending session", 2000: "Unknown command",
    2001: "Command syntax error", 2002: "Command use error", 2003: "Required parameter missing",
    2004: "Parameter value range error", 2005: "Parameter value syntax error",
    2101: "Unimplemented command", 2104: "Billing failure",
    2106: "Object is not eligible for transfer",
    2300: "Object pending transfer", 2301: "Object not pending transfer",
    2200: "Authentication error",
    2201: "Authorization error", 2202: "Invalid authorization information",
    2302: "Object exists", 2303: "Object does not exist",
    2304: "Object status prohibits operation", 2306: "Parameter value policy error",
    2308: "Data management policy violation", 2400: "Command failed",
    2501: "Authentication error; server closing connection",
}  # fmt: skip
log = logging.getLogger(__name__)
CHANGES: Final = frozenset({"create", "renew", "transfer", "update", "delete"})


@dataclass
class Session:
    """One connection; `trids` counts what was answered."""

    seller: Seller
    signed_in: bool = False
    count: int = 0
    over: bool = field(default=False)


class Gateways:
    """All of them; `now` is the world's time."""

    def __init__(
        self, gateway: Gateway, faults: Callable[[], Faults], now: Callable[[], datetime],
        password: str,
    ) -> None:  # fmt: skip
        self._gateway, self._faults, self._now = gateway, faults, now
        self._password = password
        self.served = 0

    async def start(self, port: int, folder: Path) -> list[asyncio.Server]:
        """Listen, with certificates in `folder`."""
        addresses = [gateway_address(seller.code) for seller in SELLERS]
        make_certificates(folder, addresses)
        expired = _context(folder / "expired.pem")
        servers = []
        for seller, address in zip(SELLERS, addresses, strict=True):
            context = _context(folder / "gateway.pem")
            context.sni_callback = self._chooser(seller, expired)
            serve = self._server(seller)
            servers.append(await asyncio.start_server(serve, address, port, ssl=context))
        return servers

    def _chooser(self, seller: Seller, expired: ssl.SSLContext) -> Any:
        def choose(socket: ssl.SSLObject, _name: str | None, _context: ssl.SSLContext) -> None:
            fault = self._faults().strike("epp", "connection", seller.code)
            if fault and fault.kind == "expired":
                socket.context = expired

        return choose

    def _server(self, seller: Seller) -> Callable[..., Any]:
        async def serve(reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
            session = Session(seller)
            try:
                _send(writer, self._greeting())
                while not session.over:
                    head = await asyncio.wait_for(reader.readexactly(4), IDLE)
                    (length,) = struct.unpack("!I", head)
                    if not 4 < length <= LARGEST:
                        break
                    body = await asyncio.wait_for(reader.readexactly(length - 4), IDLE)
                    if not await self._take(session, body, writer):
                        break
                    await writer.drain()
            except (asyncio.IncompleteReadError, TimeoutError, OSError, ssl.SSLError):
                pass
            finally:
                writer.close()

        return serve

    async def _take(self, session: Session, body: bytes, writer: asyncio.StreamWriter) -> bool:
        """Answer one frame; False to hang up."""
        self.served += 1
        try:
            root = fromstring(body, forbid_dtd=True)
        except Exception:
            _send(writer, self._response(session, "", Answer(2001)))
            return True
        if first(root, "hello") is not None:
            _send(writer, self._greeting())
            return True
        command = first(root, "command")
        parts = [] if command is None else list(command)
        if not parts:
            _send(writer, self._response(session, "", Answer(2001)))
            return True
        verb, trid = local(parts[0].tag), text_of(first(command, "clTRID"))
        fault = self._fault(session, verb, parts[0])
        kind = fault.kind if fault else ""
        if fault and kind == "slow":
            await asyncio.sleep(fault.seconds)
        if kind == "hangup":
            return False
        if kind == "nonsense":
            _send(writer, "<epp><response><result code='10")
            return True
        if kind == "frame":
            writer.write(struct.pack("!I", 0xFFFFFFF0))
            return True
        if kind.isdigit():
            _send(writer, self._response(session, trid, Answer(int(kind))))
            return True
        try:
            answer = self._answer(session, verb, parts, trid, fault)
        except Exception:
            log.exception("%s failed", verb)
            answer = Answer(2400)
        if kind == "hangup-after":
            return False
        if fault and kind == "late":
            await asyncio.sleep(fault.seconds)
        _send(writer, self._response(session, trid, answer))
        return True

    def _fault(self, session: Session, verb: str, part: Any) -> Fault | None:
        """What goes wrong with a command, if anything: of those that change nothing, only what can
        go wrong with any.
        """
        if not session.signed_in:
            fault = self._faults().strike("epp", "login", session.seller.code)
            return fault if fault and fault.kind in ("slow", "2200") else None
        names = [text_of(one) for one in part.iter() if local(one.tag) == "name"]
        extension = names[0].partition(".")[2] if names else ""
        fault = self._faults().strike("epp", extension, session.seller.code)
        changes = verb in CHANGES and len(part) > 0 and local(part[0].tag) in CHANGES
        changes = changes and part.get("op") != "query"
        about = part[0].tag if changes else ""
        usual = fault is not None and fault.kind in ("slow", "nonsense", "frame")
        if usual or (changes and "domain-1.0" in about):
            return fault
        return None

    def _answer(
        self, session: Session, verb: str, parts: list[Any], trid: str, fault: Fault | None
    ) -> Answer:
        if verb == "login":
            return self._login(session, parts)
        if verb == "logout":
            session.over = True
            return Answer(1500)
        if not session.signed_in:
            return Answer(2002)
        extension = next((one for one in parts if local(one.tag) == "extension"), None)
        return self._gateway.carry_out(session.seller, verb, parts[0], extension, trid, fault)

    def _login(self, session: Session, parts: list[Any]) -> Answer:
        login = parts[0]
        word = text_of(first(login, "pw"))
        if word == SENTINEL:
            longer = [one for part in parts[1:] for one in part.iter(f"{{{LOGIN_SECURITY}}}pw")]
            word = text_of(longer[0]) if longer else ""
        if session.signed_in:
            return Answer(2002)
        if text_of(first(login, "clID")) != LOGIN or word != self._password:
            return Answer(2200)
        session.signed_in = True
        return Answer(1000)

    def _greeting(self) -> str:
        objects = "".join(f"<objURI>{NAMESPACES[name]}</objURI>" for name in OBJECTS)
        more = [uri for name, uri in NAMESPACES.items() if name not in OBJECTS]
        uris = "".join(f"<extURI>{uri}</extURI>" for uri in (*more, LOGIN_SECURITY, BALANCE))
        return (
            f'<?xml version="1.0" encoding="UTF-8"?><epp xmlns="{EPP}"><greeting>'
            f"<svID>Simulated gateway</svID><svDate>{_now(self._now())}</svDate><svcMenu>"
            f"<version>1.0</version><lang>en</lang>{objects}<svcExtension>{uris}</svcExtension>"
            "</svcMenu><dcp><access><all/></access><statement><purpose><prov/></purpose>"
            "<recipient><ours/></recipient><retention><stated/></retention></statement></dcp>"
            "</greeting></epp>"
        )

    def _response(self, session: Session, trid: str, answer: Answer) -> str:
        session.count += 1
        value = f"<extValue>{answer.value}</extValue>" if answer.value else ""
        told = f"<resData>{answer.told}</resData>" if answer.told else ""
        more = f"<extension>{answer.more}</extension>" if answer.more else ""
        client = f"<clTRID>{escape(trid[:64])}</clTRID>" if trid else ""
        return (
            f'<?xml version="1.0" encoding="UTF-8"?><epp xmlns="{EPP}"><response>'
            f'<result code="{answer.code}"><msg>{WORDS[answer.code]}</msg>{value}</result>'
            f"{answer.queue}{told}{more}<trID>{client}"
            f"<svTRID>SIM-{session.count:06}</svTRID></trID></response></epp>"
        )


def gateway_address(code: str) -> str:
    """The loopback address of a seller's gateway."""
    return f"127.0.3.{1 + [seller.code for seller in SELLERS].index(code)}"


def _context(path: Path) -> ssl.SSLContext:
    context = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
    context.minimum_version = ssl.TLSVersion.TLSv1_2
    context.load_cert_chain(path)
    return context


def _send(writer: asyncio.StreamWriter, text: str) -> None:
    body = text.encode()
    writer.write(struct.pack("!I", len(body) + 4) + body)


def _now(at: datetime) -> str:
    return at.astimezone(UTC).strftime("%Y-%m-%dT%H:%M:%SZ")
