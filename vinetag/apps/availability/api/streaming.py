"""Answers as they come, as server-sent events with a cursor."""

from __future__ import annotations

import asyncio
import json
import time
from collections.abc import AsyncIterator
from typing import Any

import redis.asyncio
from asgiref.sync import sync_to_async
from django.conf import settings
from django.core.serializers.json import DjangoJSONEncoder
from django.db import connection
from django.http import HttpRequest, HttpResponse, JsonResponse, StreamingHttpResponse
from redis.exceptions import RedisError

from vinetag.apps.accounts.errors import NotFoundError
from vinetag.apps.availability.api.serializers import CellSerializer, CheckSerializer
from vinetag.apps.availability.storing import channel_of
from vinetag.apps.availability.watching import watch
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

_open = 0


async def stream_answers(request: HttpRequest, project_id: int) -> HttpResponse:
    """`answers` events with cells, each with the number of its last answer as its id, and
    `progress` events with the last check. A reconnecting browser sends the id back and misses
    nothing; `after` in the address says where to begin.
    """
    person = await request.auser()
    if not person.is_authenticated:
        return _refused(403, "not_authenticated", "Sign in first.")
    try:
        project = await sync_to_async(own_project)(person, project_id)
    except NotFoundError:
        return _refused(404, "not_found", "There is nothing here.")
    after = request.headers.get("Last-Event-ID") or request.GET.get("after", "")
    if after and not after.isdecimal():
        return _refused(400, "problems", "The cursor is a number.")
    if _open >= settings.MOST_STREAMS:
        return _refused(503, "too_many_streams", "Too many are watching. Answers come every few s.")
    response = StreamingHttpResponse(
        _events(project, int(after) if after else None), content_type="text/event-stream"
    )
    response.headers["Cache-Control"] = "no-store"
    response.headers["X-Accel-Buffering"] = "no"
    return response


def _refused(status: int, code: str, message: str) -> HttpResponse:
    return JsonResponse({"code": code, "message": message, "problems": []}, status=status)


async def _events(project: Project, number: int | None) -> AsyncIterator[str]:
    global _open
    _open += 1
    ends = time.monotonic() + LONGEST
    told: object = None
    alive = told_at = 0.0
    listening = _Listening(project.pk)
    try:
        await listening.begin()
        yield f"retry: {RETRY_MS}\n\n"
        while time.monotonic() < ends:
            seen = await sync_to_async(_look)(project, number)
            if seen["cells"] or number is None:
                number = seen["number"]
                yield _event("answers", {"cells": seen["cells"]}, number)
            if seen["check_run"] != told:
                told, told_at = seen["check_run"], time.monotonic()
                yield _event("progress", seen["check_run"])
            elif time.monotonic() - max(alive, told_at) > ALIVE_EVERY:
                alive = time.monotonic()
                yield ": still here\n\n"
            if not seen["more"]:
                active = (seen["check_run"] or {}).get("state") in ("queued", "running")
                await listening.wait(PROGRESS_EVERY if active else ALIVE_EVERY)
    finally:
        _open -= 1
        await listening.end()


def _look(project: Project, number: int | None) -> dict[str, Any]:
    """What there is to tell, letting go of the database at once: a stream lasts long."""
    try:
        found = watch(project, number)
        check = CheckSerializer(found.check_run).data if found.check_run else None
        return {
            "check_run": check,
            "cells": CellSerializer(found.cells, many=True).data,
            "number": found.number,
            "more": found.more,
        }
    finally:
        connection.close()


def _event(kind: str, data: object, number: int | None = None) -> str:
    mark = "" if number is None else f"id: {number}\n"
    return f"event: {kind}\n{mark}data: {json.dumps(data, cls=DjangoJSONEncoder)}\n\n"


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
            await self._channel.aclose()
            await self._client.aclose()
        except RedisError:
            return
