"""Answers as they come, as server-sent events with a cursor."""

from __future__ import annotations

import asyncio
import json
import time
import uuid
from collections.abc import AsyncIterator, Callable
from concurrent.futures import ThreadPoolExecutor
from typing import Any, TypeVar

import redis.asyncio
from django.conf import settings
from django.contrib.auth import get_user
from django.contrib.sessions.backends.db import SessionStore
from django.core.serializers.json import DjangoJSONEncoder
from django.db import close_old_connections
from django.http import HttpRequest, HttpResponse, JsonResponse, StreamingHttpResponse
from redis.exceptions import RedisError

from vinetag.apps.accounts.errors import NotFoundError
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.answer_store import channel_of
from vinetag.apps.availability.api.serializers import CellSerializer, CheckSerializer
from vinetag.apps.availability.progress import watch
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import own_project

__all__ = ["stream_answers"]

# Seconds: how often progress is told, how often something is sent at all, how long a stream lasts
# before the browser is let reconnect, and how often it looks while Redis is away.
PROGRESS_EVERY = 0.5
ALIVE_EVERY = 15.0
LONGEST = 600.0
LOOK_EVERY = 1.0
RETRY_MS = 1_000
TOO_MANY = "Too many are watching just now. Answers come every few seconds instead."

# Streams use the database in these threads alone, so that they hold three connections, however
# many there are.
_threads = ThreadPoolExecutor(3, thread_name_prefix="streams")
# Seconds after which a seat nobody renewed is free, and how often a session is looked at.
SEAT_LASTS = 40.0
SESSION_EVERY = 5.0
T = TypeVar("T")


async def in_thread(work: Callable[[], T]) -> T:
    """Do it in one of the streams' threads."""

    def connected() -> T:
        close_old_connections()
        try:
            return work()
        finally:
            close_old_connections()

    return await asyncio.get_running_loop().run_in_executor(_threads, connected)


async def stream_answers(
    request: HttpRequest, project_id: int
) -> HttpResponse | StreamingHttpResponse:
    """`answers` events with cells, each with the number of its last answer as its id, and
    `progress` events with the last check. A reconnecting browser sends the id back and misses
    nothing; `after` in the address says where to begin. It ends when the session does.
    """
    person = await in_thread(lambda: _person(request))
    if person is None:
        return _refused(403, "not_authenticated", "Sign in first.")
    try:
        project = await in_thread(lambda: own_project(person, project_id))
    except NotFoundError:
        return _refused(404, "not_found", "There is nothing here.")
    after = request.headers.get("Last-Event-ID") or request.GET.get("after", "")
    if after and not (after.isascii() and after.isdecimal() and len(after) < 18):
        return _refused(400, "problems", "The cursor is a number.")
    seat = uuid.uuid4().hex
    if not await seats.take(seat, person.pk):
        response = _refused(503, "too_many_streams", TOO_MANY)
        response.headers["Retry-After"] = "15"
        return response
    events = StreamingHttpResponse(
        _events(request, person, project, int(after) if after else None, seat),
        content_type="text/event-stream",
    )
    events.headers["Cache-Control"] = "no-store"
    events.headers["X-Accel-Buffering"] = "no"
    return events


def _person(request: HttpRequest) -> User | None:
    """Whose session it is, as it is in the database now."""
    key = request.session.session_key
    if key is None:
        return None
    fresh = HttpRequest()
    fresh.session = SessionStore(key)
    person = get_user(fresh)
    return person if isinstance(person, User) and person.is_active else None


def _refused(status: int, code: str, message: str) -> HttpResponse:
    return JsonResponse({"code": code, "message": message, "problems": []}, status=status)


async def _events(
    request: HttpRequest, person: User, project: Project, number: int | None, seat: str
) -> AsyncIterator[str]:
    ends = time.monotonic() + LONGEST
    sent: object = None
    alive = sent_at = 0.0
    looked_at = time.monotonic()
    listening = _Listening(project.pk)
    try:
        await listening.begin()
        yield f"retry: {RETRY_MS}\n\n"
        while time.monotonic() < ends:
            if time.monotonic() - looked_at > SESSION_EVERY:
                looked_at = time.monotonic()
                now = await in_thread(lambda: _person(request))
                if now is None or now.pk != person.pk:
                    return
                await seats.keep(seat, person.pk)
            seen = await in_thread(lambda: _look(project, number))  # noqa: B023 - done at once
            if seen["cells"] or number is None:
                number = seen["number"]
                yield _event("answers", {"cells": seen["cells"]}, number)
            if seen["check_run"] != sent:
                sent, sent_at = seen["check_run"], time.monotonic()
                yield _event("progress", seen["check_run"])
            elif time.monotonic() - max(alive, sent_at) > ALIVE_EVERY:
                alive = time.monotonic()
                yield ": still here\n\n"
            if not seen["more"]:
                active = (seen["check_run"] or {}).get("state") in ("queued", "running")
                await listening.wait(PROGRESS_EVERY if active else SESSION_EVERY)
    finally:
        await seats.leave(seat, person.pk)
        await listening.end()


def _look(project: Project, number: int | None) -> dict[str, Any]:
    """What there is to tell."""
    found = watch(project, number)
    check = CheckSerializer(found.check_run).data if found.check_run else None
    return {
        "check_run": check,
        "cells": CellSerializer(found.cells, many=True).data,
        "number": found.number,
        "more": found.more,
    }


def _event(kind: str, data: object, number: int | None = None) -> str:
    mark = "" if number is None else f"id: {number}\n"
    return f"event: {kind}\n{mark}data: {json.dumps(data, cls=DjangoJSONEncoder)}\n\n"


class _Seats:
    """How many streams there are, counted in Redis for all processes, by this process alone while
    that is away. A seat of a process that died is free after SEAT_LASTS seconds.
    """

    _TAKE = """
redis.call('ZREMRANGEBYSCORE', KEYS[1], '-inf', ARGV[2])
redis.call('ZREMRANGEBYSCORE', KEYS[2], '-inf', ARGV[2])
if redis.call('ZCARD', KEYS[1]) >= tonumber(ARGV[4]) then return 0 end
if redis.call('ZCARD', KEYS[2]) >= tonumber(ARGV[5]) then return 0 end
for i = 1, 2 do
  redis.call('ZADD', KEYS[i], ARGV[3], ARGV[1])
  redis.call('EXPIRE', KEYS[i], 3600)
end
return 1
"""

    def __init__(self) -> None:
        self._own: dict[str, tuple[int, float]] = {}

    async def take(self, seat: str, person: int) -> bool:
        """Take a seat; False when there is none, of this person's or at all."""
        now = time.time()
        limits = settings.MOST_STREAMS, settings.MOST_STREAMS_OF_ONE
        taken = await self._redis(
            lambda client: client.eval(
                self._TAKE, 2, *_keys(person), seat, now, now + SEAT_LASTS, *limits
            )
        )
        self._own = {s: kept for s, kept in self._own.items() if kept[1] > now}
        if taken is None:
            of_one = sum(of == person for of, _ in self._own.values())
            taken = len(self._own) < limits[0] and of_one < limits[1]
        if taken:
            self._own[seat] = person, now + SEAT_LASTS
        return bool(taken)

    async def keep(self, seat: str, person: int) -> None:
        """It is still taken."""
        ends = time.time() + SEAT_LASTS
        self._own[seat] = person, ends
        for key in _keys(person):
            await self._redis(lambda client: client.zadd(key, {seat: ends}))  # noqa: B023 - at once

    async def leave(self, seat: str, person: int) -> None:
        """Give it back."""
        self._own.pop(seat, None)
        for key in _keys(person):
            await self._redis(lambda client: client.zrem(key, seat))  # noqa: B023 - done at once

    async def _redis(self, work: Callable[[redis.asyncio.Redis], Any]) -> Any:
        """What Redis says, None while it is away."""
        client = redis.asyncio.Redis.from_url(
            settings.REDIS_URL, socket_connect_timeout=0.5, socket_timeout=1
        )
        try:
            return await work(client)
        except RedisError:
            return None
        finally:
            await client.aclose()


def _keys(person: int) -> tuple[str, str]:
    return "vinetag:streams", f"vinetag:streams:{person}"


seats = _Seats()


class _Listening:
    """Waits for the project's channel, or, while Redis is away, for a second."""

    def __init__(self, project_id: int) -> None:
        self._client = redis.asyncio.Redis.from_url(settings.REDIS_URL, socket_connect_timeout=1)
        self._channel = self._client.pubsub()
        self._project_id, self._there = project_id, False

    async def begin(self) -> None:
        try:
            await self._channel.subscribe(channel_of(self._project_id))
            self._there = True
        except RedisError:
            self._there = False

    async def wait(self, seconds: float) -> None:
        if not self._there:
            await asyncio.sleep(LOOK_EVERY)
            await self.begin()
            return
        try:
            async with asyncio.timeout(seconds):
                while not await self._channel.get_message(
                    ignore_subscribe_messages=True, timeout=seconds
                ):
                    pass
        except TimeoutError:
            return
        except RedisError:
            self._there = False

    async def end(self) -> None:
        try:
            await self._channel.aclose()  # type: ignore[no-untyped-call]
            await self._client.aclose()
        except RedisError:
            return
