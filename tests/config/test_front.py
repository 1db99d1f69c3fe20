"""What stands before Django: hosts, headers, bounded bodies, and turns."""

from __future__ import annotations

import asyncio
import json
from typing import Any

import pytest

from vinetag.config.front import BoundedBodies, Bounds, Lane, SafeHeaders
from vinetag.config.front.messages import App, Message, Receive, Scope, Send


def scope(path: str = "/api/x", **headers: str) -> Scope:
    given = {"host": "127.0.0.1:8700", **headers}
    raw = [(k.replace("_", "-").encode(), v.encode()) for k, v in given.items()]
    return {
        "type": "http",
        "method": "POST",
        "path": path,
        "headers": raw,
        "client": ("1.2.3.4", 5),
    }


class Caller:
    """One request: its body in pieces, and what came back."""

    def __init__(self, *pieces: bytes, stalls: bool = False) -> None:
        self._pieces, self._stalls = list(pieces) or [b""], stalls
        self.taken = 0
        self.status = 0
        self.headers: dict[bytes, bytes] = {}
        self.body = b""

    async def receive(self) -> Message:
        if not self._pieces:
            await asyncio.Event().wait()
        if self._stalls and self.taken:
            await asyncio.Event().wait()
        self.taken += 1
        piece = self._pieces.pop(0)
        more = bool(self._pieces) or self._stalls
        return {"type": "http.request", "body": piece, "more_body": more}

    async def send(self, message: Message) -> None:
        if message["type"] == "http.response.start":
            self.status, self.headers = message["status"], dict(message["headers"])
        else:
            self.body += message.get("body", b"")

    async def call(self, app: App, at: Scope) -> Caller:
        await app(at, self.receive, self.send)
        return self

    @property
    def code(self) -> str:
        document = json.loads(self.body)
        assert {"code", "message", "problems"} == document.keys()
        return str(document["code"])


async def echo(_scope: Scope, receive: Receive, send: Send) -> None:
    body = b""
    while True:
        message = await receive()
        body += message.get("body", b"")
        if not message.get("more_body"):
            break
    await send({"type": "http.response.start", "status": 200, "headers": []})
    await send({"type": "http.response.body", "body": body})


async def test_other_hosts_are_refused_and_every_answer_is_guarded() -> None:
    app = SafeHeaders(echo, ["127.0.0.1"], hsts=300)
    for path in ("/index.html", "/assets/a.js", "/api/session"):
        fine = await Caller().call(app, scope(path))
        assert fine.status == 200
        assert b"default-src 'self'" in fine.headers[b"content-security-policy"]
        assert fine.headers[b"x-content-type-options"] == b"nosniff"
        assert fine.headers[b"strict-transport-security"] == b"max-age=300"
        assert (fine.headers.get(b"cache-control") == b"no-store") == path.startswith("/api/")
        for host in ("evil.example", "", "127.0.0.1.evil.example", "[::1"):
            other = await Caller().call(app, scope(path, host=host))
            assert (other.status, other.code) == (400, "host")
            assert b"content-security-policy" in other.headers


async def test_a_body_over_the_limit_is_refused_while_it_arrives() -> None:
    app = BoundedBodies(echo, lambda path: Bounds(1_000_000 if path == "/big" else 1_000, 5.0))
    assert (await Caller(b"a" * 600, b"b" * 400).call(app, scope())).body == b"a" * 600 + b"b" * 400
    endless = Caller(*[b"x" * 400] * 50)
    await endless.call(app, scope())
    assert (endless.status, endless.code, endless.taken) == (413, "too_large", 3)
    told = Caller(b"x" * 400)
    await told.call(app, scope(content_length="99999999999999999999"))
    assert (told.status, told.taken) == (413, 0)
    assert (await Caller(*[b"y" * 400] * 50).call(app, scope("/big"))).body == b"y" * 20_000


async def test_a_body_that_does_not_come_is_not_waited_for() -> None:
    app = BoundedBodies(echo, lambda _: Bounds(1_000, 0.05))
    slow = await Caller(b"a", b"b", stalls=True).call(app, scope())
    assert (slow.status, slow.code) == (408, "slow")


async def test_large_files_come_a_few_at_a_time() -> None:
    app = BoundedBodies(echo, lambda _: Bounds(1_000, 5.0, at_once=1))
    first = asyncio.create_task(Caller(b"a", stalls=True).call(app, scope()))
    await asyncio.sleep(0.01)
    second = await Caller(b"b").call(app, scope())
    assert (second.status, second.headers[b"retry-after"]) == (503, b"10")
    first.cancel()
    await asyncio.gather(first, return_exceptions=True)
    assert (await Caller(b"c").call(app, scope())).status == 200


class Slow:
    """An application that takes as long as it is told, and remembers whose turn it was."""

    def __init__(self) -> None:
        self.order: list[str] = []
        self.now = self.most = 0
        self.go_on = asyncio.Event()

    async def __call__(self, at: Scope, receive: Receive, send: Send) -> None:
        self.order.append(dict(at["headers"])[b"cookie"].decode().removeprefix("sessionid="))
        self.now += 1
        self.most = max(self.most, self.now)
        await self.go_on.wait()
        await asyncio.sleep(0)
        self.now -= 1
        await echo(at, receive, send)


def lane(app: App, **limits: Any) -> Lane:
    usual: dict[str, Any] = {"at_once": 2, "most": 50, "of_one": 20, "patience": 5.0}
    return Lane(app, **{**usual, **limits})


async def test_no_more_at_once_than_threads_and_callers_take_turns() -> None:
    app = Slow()
    line = lane(app)
    asking = [
        asyncio.create_task(Caller().call(line, scope(cookie="sessionid=a"))) for _ in range(12)
    ]
    await asyncio.sleep(0.01)
    asking.append(asyncio.create_task(Caller().call(line, scope(cookie="sessionid=b"))))
    await asyncio.sleep(0.01)
    app.go_on.set()
    done = await asyncio.gather(*asking)
    assert {one.status for one in done} == {200}
    assert app.most == 2
    # Twelve of one person stood there before; the other's turn came among the first all the same.
    assert app.order.index("b") <= 3


async def test_what_is_too_much_is_told_when_to_come_back() -> None:
    app = Slow()
    line = lane(app, at_once=1, most=3, of_one=2, patience=0.1)
    tasks = [
        asyncio.create_task(Caller().call(line, scope(cookie="sessionid=a"))) for _ in range(4)
    ]
    await asyncio.sleep(0.01)
    tasks += [
        asyncio.create_task(Caller().call(line, scope(cookie=f"sessionid={who}"))) for who in "bc"
    ]
    await asyncio.sleep(0.3)
    app.go_on.set()
    done = await asyncio.gather(*tasks)
    assert [one.status for one in done] == [200, 503, 503, 429, 503, 503]
    assert all(int(one.headers[b"retry-after"]) > 0 for one in done[1:])
    # Nobody's place was lost by those who gave up.
    again = await asyncio.gather(
        *(Caller().call(line, scope(cookie="sessionid=z")) for _ in range(2))
    )
    assert [one.status for one in again] == [200, 200]


async def test_who_leaves_while_waiting_gives_up_the_turn() -> None:
    app = Slow()
    line = lane(app, at_once=1)
    tasks = [
        asyncio.create_task(Caller().call(line, scope(cookie=f"sessionid={n}"))) for n in "abc"
    ]
    await asyncio.sleep(0.01)
    tasks[1].cancel()
    await asyncio.sleep(0.01)
    app.go_on.set()
    await asyncio.gather(*tasks, return_exceptions=True)
    assert app.order == ["a", "c"]


@pytest.mark.parametrize("cookie", ["", "sessionid", 'x="', "a=b; sessionid=k"])
async def test_any_cookie_has_a_caller(cookie: str) -> None:
    assert (await Caller().call(lane(echo), scope(cookie=cookie))).status == 200
