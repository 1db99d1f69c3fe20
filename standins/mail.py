"""A simulated mail server (RFC 5321): it sends nothing on, and keeps what it got for reading.

Under /mail what came, the newest first, under /_sim/mail the same as JSON. A box that begins with
"nobody" does not exist; faults of the service "mail" strike by the domain of the address.
"""

from __future__ import annotations

import asyncio
import html
from collections import deque
from collections.abc import Callable
from dataclasses import asdict, dataclass
from datetime import UTC, datetime
from email import message_from_bytes, policy
from typing import Any, Final

from aiohttp import web
from aiosmtpd.smtp import SMTP, Envelope, Session

from standins.faults import Faults

__all__ = ["KeptLetter", "Mailbox", "add_mail"]

MOST_KEPT: Final = 500
LARGEST: Final = 1_000_000


@dataclass(frozen=True)
class KeptLetter:
    """One letter that came."""

    number: int
    to: str
    sender: str
    subject: str
    text: str
    identity: str
    at: str


class Mailbox:
    """What came, whoever it was for."""

    def __init__(self, faults: Callable[[], Faults]) -> None:
        self._faults = faults
        self._count = 0
        self.letters: deque[KeptLetter] = deque(maxlen=MOST_KEPT)

    async def start(self, host: str, port: int) -> asyncio.Server:
        """Listen for letters."""
        loop = asyncio.get_running_loop()
        return await loop.create_server(self._server, host, port)

    def _server(self) -> SMTP:
        return SMTP(self, data_size_limit=LARGEST, hostname="mail.example", ident="Vine Tag")

    async def handle_RCPT(
        self, server: SMTP, _session: Session, envelope: Envelope, address: str, _options: list[str]
    ) -> str:
        """Whether an address is taken (RFC 5321, section 3.3)."""
        box, _, domain = address.rpartition("@")
        fault = self._faults().strike("mail", "", domain.lower())
        kind = fault.kind if fault else ""
        if kind == "slow" and fault:
            await asyncio.sleep(fault.seconds)
        if kind == "later":
            return "451 4.7.1 Come back later"
        if kind == "refuse" or box.lower().startswith("nobody"):
            return "550 5.1.1 There is no such box"
        if kind == "hangup" and server.transport:
            server.transport.close()
        envelope.rcpt_tos.append(address)
        return "250 2.1.5 Good"

    async def handle_DATA(self, server: SMTP, _session: Session, envelope: Envelope) -> str:
        """Keep a letter."""
        content = envelope.content if isinstance(envelope.content, bytes) else b""
        message: Any = message_from_bytes(content, policy=policy.default)
        body = message.get_body(("plain",))
        for to in envelope.rcpt_tos:
            self._count += 1
            self.letters.append(
                KeptLetter(
                    self._count,
                    to,
                    str(envelope.mail_from or ""),
                    str(message["Subject"] or "").strip(),
                    str(body.get_content()) if body else "",
                    str(message["Message-ID"] or ""),
                    datetime.now(UTC).isoformat(timespec="seconds"),
                )
            )
            fault = self._faults().strike("mail", "", to.rpartition("@")[2].lower())
            if fault and fault.kind == "hangup-after" and server.transport:
                server.transport.close()
        return "250 2.0.0 Kept"


def _page(letters: list[KeptLetter]) -> str:
    parts = [
        "<!doctype html><html lang=en><meta charset=utf-8>"
        "<meta name=viewport content='width=device-width'><title>Simulated mail</title>"
        "<style>body{font:16px/1.5 sans-serif;max-width:46rem;margin:2rem auto;padding:0 1rem}"
        "article{border-top:1px solid #999;padding:1rem 0}pre{white-space:pre-wrap}"
        "</style><h1>Simulated mail</h1><p>What the simulated mail server got. It sent none of it "
        "on.</p>"
    ]
    for one in letters:
        cells = {name: html.escape(str(value)) for name, value in asdict(one).items()}
        parts.append(
            "<article><h2>{subject}</h2><p>To {to}, {at}</p><pre>{text}</pre></article>".format(
                **cells
            )
        )
    if not letters:
        parts.append("<p>Nothing came yet.</p>")
    return "".join(parts)


def add_mail(app: web.Application, mailbox: Mailbox) -> None:
    """Where what came is read."""

    async def page(_request: web.Request) -> web.Response:
        return web.Response(text=_page(list(mailbox.letters)[::-1]), content_type="text/html")

    async def listing(_request: web.Request) -> web.Response:
        return web.json_response({"letters": [asdict(one) for one in mailbox.letters]})

    app.router.add_get("/mail", page)
    app.router.add_get("/_sim/mail", listing)
