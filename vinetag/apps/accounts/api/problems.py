"""How errors leave the API: {code, message, problems: [{path, code, message}]}."""

from __future__ import annotations

import logging
import math
from collections.abc import Iterable
from typing import Any

from django.db import DataError, InterfaceError, OperationalError
from django.http import Http404
from rest_framework import serializers
from rest_framework.exceptions import APIException, NotAuthenticated, Throttled, ValidationError
from rest_framework.response import Response
from rest_framework.views import exception_handler, set_rollback

from vinetag.apps.accounts.errors import ConflictError, NotFoundError, RefusedError
from vinetag.apps.accounts.guarding import TooManyTries
from vinetag.core.errors import CoreError, Problem

__all__ = ["AWAY", "ErrorSerializer", "ProblemSerializer", "handle", "told_problems"]

AWAY = "The database cannot be reached just now. Try again in some seconds."
AGAIN = "Some of this needs another look."
NOT_STORABLE = "Something in this cannot be stored. Look for very large or odd values."
SOME_SECONDS = 5

log = logging.getLogger(__name__)


class ProblemSerializer(serializers.Serializer[Any]):
    path = serializers.CharField()
    code = serializers.CharField()
    args = serializers.DictField(
        child=serializers.JSONField(),
        default=dict,
        help_text="What the message was made of, by the code's names",
    )
    message = serializers.CharField()


class ErrorSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    message = serializers.CharField()
    problems = ProblemSerializer(many=True)
    current = serializers.JSONField(
        required=False, help_text="With 409: what is there now, changed elsewhere meanwhile"
    )


def handle(error: Exception, context: dict[str, Any]) -> Response | None:
    """The response for an error; None lets Django answer 500."""
    set_rollback()
    if isinstance(error, OperationalError | InterfaceError):
        log.warning("The database failed: %s", error)
        return _later(503, "unavailable", AWAY, SOME_SECONDS)
    if isinstance(error, DataError):
        log.warning("Refused by the database: %s", error)
        return _reply(400, "problems", NOT_STORABLE)
    if isinstance(error, NotFoundError | Http404):
        return _reply(404, "not_found", "There is nothing here.")
    if isinstance(error, ConflictError):
        return _reply(409, error.code, error.message, current=error.current)
    if isinstance(error, RefusedError | CoreError):
        return _reply(
            400, "problems", "Some of this needs another look.", told_problems(error.problems)
        )
    if isinstance(error, ValidationError):
        return _reply(400, "problems", "Some of this needs another look.", _flat(error.detail))
    if isinstance(error, Throttled | TooManyTries):
        seconds = error.seconds if isinstance(error, TooManyTries) else getattr(error, "wait", None)
        seconds = math.ceil(60 if seconds is None else seconds)
        return _later(429, "throttled", f"Too many tries. Wait {_length(seconds)}.", seconds)
    if isinstance(error, NotAuthenticated):
        return _reply(403, "not_authenticated", "Your session has ended. Sign in again.")
    response = exception_handler(error, context)
    if response is not None and isinstance(error, APIException):
        return _reply(response.status_code, str(error.get_codes()), str(error.detail))
    return response


def _length(seconds: int) -> str:
    return f"{seconds} s" if seconds < 100 else f"{math.ceil(seconds / 60)} minutes"


Described = dict[str, object]


def told_problems(problems: Iterable[Problem]) -> list[Described]:
    """Problems as the API tells them."""
    return [problem.document() for problem in problems]


def _described(path: str, code: str, message: str) -> Described:
    return {"path": path, "code": code, "args": {}, "message": message}


def _flat(detail: Any, path: str = "") -> list[Described]:
    """A serializer's nested errors as a list with paths."""
    if isinstance(detail, dict):
        return [
            p
            for key, value in detail.items()
            for p in _flat(value, path if key == "non_field_errors" else _under(path, key))
        ]
    if isinstance(detail, list):
        if all(not isinstance(item, dict | list) for item in detail):
            return [_described(path, getattr(i, "code", "invalid"), str(i)) for i in detail]
        return [p for i, item in enumerate(detail) for p in _flat(item, _under(path, i))]
    return [_described(path, getattr(detail, "code", "invalid"), str(detail))]


def _under(path: str, key: object) -> str:
    return f"{path}.{key}" if path else str(key)


def _reply(
    status: int,
    code: str,
    message: str,
    problems: list[Described] | None = None,
    current: object = None,
) -> Response:
    body: dict[str, object] = {"code": code, "message": message, "problems": problems or []}
    if current is not None:
        body["current"] = current
    return Response(body, status=status)


def _later(status: int, code: str, message: str, seconds: int) -> Response:
    """Refused for now: when to come back is said for programs, too (RFC 9110 section 10.2.3)."""
    response = _reply(status, code, message)
    response.headers["Retry-After"] = str(seconds)
    return response
