"""A simulated payment page: somebody is sent there, pays or not, and comes back; what became of it
is told by a signed message (Standard Webhooks: webhook-id, webhook-timestamp, webhook-signature),
and can be asked for. Described by /till/openapi.json. No card is asked for, and no money moves.
"""

from __future__ import annotations

import asyncio
import base64
import hashlib
import hmac
import html
import json
import re
import time
import uuid
from collections.abc import Callable
from decimal import Decimal, InvalidOperation
from importlib.resources import files
from typing import Any, Final

import aiohttp
from aiohttp import web

from standins.books import Books, Payment
from standins.faults import Fault, Faults

__all__ = ["Till"]

WAYS: Final = {"pay": "accepted", "decline": "declined", "leave": "abandoned"}
AMOUNT: Final = re.compile(r"\d{1,9}\.\d{2}")
TRIES: Final = (0.0, 0.5, 2.0, 5.0)
PAGE: Final = """<!doctype html><html lang=en><meta charset=utf-8>
<meta name=viewport content="width=device-width"><title>Simulated payment</title>
<style>body{{font:16px/1.5 sans-serif;max-width:34rem;margin:3rem auto;padding:0 1rem}}
strong{{font-size:2rem;display:block;margin:.5rem 0 1.5rem}}form{{display:inline}}
button{{font:inherit;padding:.7rem 1.2rem;margin:0 .5rem .5rem 0;border:1px solid #555;
background:#fff;cursor:pointer}}button.go{{background:#1f3d5a;color:#fff;border-color:#1f3d5a}}</style>
<h1>Simulated payment</h1><p>{about}</p><strong>{amount} {currency}</strong>{buttons}
<p>No money moves, and no card is asked for: this page stands in for one that would.</p>"""


class Till:
    """Payments, kept in the books. `secret` is known to whoever sends people here."""

    def __init__(self, books: Books, faults: Callable[[], Faults], secret: str) -> None:
        self._books, self._faults, self._secret = books, faults, secret
        self._telling: set[asyncio.Task[None]] = set()
        self._keys = {p.reference: p.id for p in books.payments.values()}

    def add(self, app: web.Application) -> None:
        """Its addresses."""
        app.router.add_get("/till/openapi.json", self.described)
        app.router.add_post("/till/payments", self.begin)
        app.router.add_get("/till/payments/{id}", self.look)
        app.router.add_post("/till/payments/{id}/refunds", self.refund)
        app.router.add_get("/till/pay/{id}", self.page)
        app.router.add_post("/till/pay/{id}/{way}", self.choose)

    async def described(self, _request: web.Request) -> web.Response:
        """The OpenAPI document."""
        text = files("standins").joinpath("data/till.openapi.json").read_text("utf-8")
        return web.Response(text=text, content_type="application/json")

    async def begin(self, request: web.Request) -> web.StreamResponse:
        """A payment somebody is to be sent to; the same reference is the same payment."""
        refused = await self._refused(request, "page")
        if refused is not None:
            return refused
        try:
            given = await request.json()
            wanted = ("reference", "amount", "currency", "about", "back", "notify")
            texts = {name: str(given[name])[:500] for name in wanted}
        except (ValueError, KeyError, TypeError):
            return _problem(400, "A payment needs reference, amount, currency, about, back, notify")
        if not AMOUNT.fullmatch(texts["amount"]) or Decimal(texts["amount"]) == 0:
            return _problem(400, "The amount is written like 12.50")
        found = self._keys.get(texts["reference"])
        if found is None:
            found = uuid.uuid4().hex
            self._keys[texts["reference"]] = found
            fields: dict[str, Any] = {**texts}
            self._keep(Payment(found, **fields))
        return web.json_response(self._document(self._books.payments[found], request), status=201)

    async def look(self, request: web.Request) -> web.StreamResponse:
        """What became of a payment."""
        refused = await self._refused(request, "look")
        if refused is not None:
            return refused
        return web.json_response(self._document(self._of(request), request))

    async def refund(self, request: web.Request) -> web.StreamResponse:
        """Money back; the same key is the same refund."""
        refused = await self._refused(request, "refund")
        if refused is not None:
            return refused
        payment = self._of(request)
        try:
            given = await request.json()
            key, amount = str(given["key"])[:80], Decimal(str(given["amount"]))
        except (ValueError, KeyError, TypeError, InvalidOperation):
            return _problem(400, "A refund needs key and amount")
        back = sum((Decimal(one) for one in payment.refunds.values()), Decimal(0))
        if key not in payment.refunds:
            if payment.state != "accepted" or back + amount > Decimal(payment.amount):
                return _problem(409, "There is not so much to give back")
            payment.refunds[key] = f"{amount:.2f}"
            self._keep(payment)
        fault = self._faults().strike("till", "", "refund")
        if fault and fault.kind == "hangup" and request.transport:
            request.transport.close()
        return web.json_response({"key": key, "amount": payment.refunds[key]}, status=201)

    async def page(self, request: web.Request) -> web.StreamResponse:
        """Where somebody pays."""
        payment = self._of(request)
        words = {"pay": "Pay", "decline": "Let it be declined", "leave": "Go back without paying"}
        buttons = "".join(
            f"<form method=post action='/till/pay/{payment.id}/{way}'>"
            f"<button class='{'go' if way == 'pay' else ''}'>{word}</button></form>"
            for way, word in words.items()
        )
        if payment.state != "open":
            buttons = (
                f"<p>This payment is {payment.state}.</p>"
                f"<p><a href='{html.escape(payment.back)}'>Go back</a></p>"
            )
        shown = {name: html.escape(getattr(payment, name)) for name in ("about", "currency")}
        text = PAGE.format(amount=f"{Decimal(payment.amount):,.2f}", buttons=buttons, **shown)
        return web.Response(text=text, content_type="text/html")

    async def choose(self, request: web.Request) -> web.StreamResponse:
        """What somebody pressed: the first counts."""
        payment = self._of(request)
        state = WAYS.get(request.match_info["way"])
        if state is None:
            raise web.HTTPNotFound
        if payment.state == "open":
            payment.state = state
            self._keep(payment)
            self._tell(payment)
        raise web.HTTPSeeOther(payment.back)

    def _keep(self, payment: Payment) -> None:
        with self._books.change():
            self._books.put("payment", payment.id, payment)

    def _of(self, request: web.Request) -> Payment:
        payment = self._books.payments.get(request.match_info["id"])
        if payment is None:
            raise web.HTTPNotFound
        return payment

    def _document(self, payment: Payment, request: web.Request) -> dict[str, Any]:
        back = sum((Decimal(one) for one in payment.refunds.values()), Decimal(0))
        return {
            "id": payment.id,
            "reference": payment.reference,
            "state": payment.state,
            "amount": payment.amount,
            "currency": payment.currency,
            "refunded": f"{back:.2f}",
            "page": f"{request.url.origin()}/till/pay/{payment.id}",
        }

    async def _refused(self, request: web.Request, part: str) -> web.StreamResponse | None:
        word = request.headers.get("Authorization", "")
        if not hmac.compare_digest(word.encode(), f"Bearer {self._secret}".encode()):
            return _problem(401, "Who are you?")
        fault = self._faults().strike("till", "", part)
        if fault and fault.kind == "slow":
            await asyncio.sleep(fault.seconds)
        if fault and fault.kind == "500":
            return _problem(500, "Something broke")
        if fault and fault.kind == "nonsense":
            return web.Response(text="Welcome", content_type="text/html")
        return None

    def _tell(self, payment: Payment) -> None:
        fault = self._faults().strike("till", "", "notice")
        if fault and fault.kind == "never":
            return
        times = 2 if fault and fault.kind == "twice" else 1
        for _ in range(times):
            task = asyncio.create_task(self._send(payment, fault))
            self._telling.add(task)
            task.add_done_callback(self._telling.discard)

    async def _send(self, payment: Payment, fault: Fault | None) -> None:
        """The message, again where nobody took it."""
        if fault and fault.kind == "late":
            await asyncio.sleep(fault.seconds)
        number = f"msg_{payment.id}"
        names = ("id", "reference", "state", "amount", "currency")
        body = json.dumps({name: getattr(payment, name) for name in names}).encode()
        for wait in TRIES:
            await asyncio.sleep(wait)
            headers = self._signed(number, body)
            try:
                timeout = aiohttp.ClientTimeout(total=5)
                async with (
                    aiohttp.ClientSession(timeout=timeout) as session,
                    session.post(payment.notify, data=body, headers=headers) as reply,
                ):
                    if reply.status < 300:
                        return
            except (aiohttp.ClientError, TimeoutError, OSError):
                continue

    def _signed(self, number: str, body: bytes) -> dict[str, str]:
        at = str(int(time.time()))
        about = b".".join((number.encode(), at.encode(), body))
        digest = hmac.new(self._secret.encode(), about, hashlib.sha256).digest()
        return {
            "Content-Type": "application/json",
            "webhook-id": number,
            "webhook-timestamp": at,
            "webhook-signature": f"v1,{base64.b64encode(digest).decode()}",
        }


def _problem(status: int, title: str) -> web.Response:
    """What is wrong (RFC 9457)."""
    body = json.dumps({"title": title, "status": status})
    return web.Response(text=body, status=status, content_type="application/problem+json")
