"""How errors leave the API: {code, message, problems: [{path, code, message}]}."""

from __future__ import annotations

from typing import Any

from django.http import Http404
from rest_framework import serializers
from rest_framework.exceptions import APIException, NotAuthenticated, Throttled, ValidationError
from rest_framework.response import Response
from rest_framework.views import exception_handler

from vinetag.apps.accounts.errors import ConflictError, NotFoundError, RefusedError
from vinetag.core.errors import CoreError

__all__ = ["ErrorSerializer", "handle"]


class ProblemSerializer(serializers.Serializer[Any]):
    path = serializers.CharField()
    code = serializers.CharField()
    message = serializers.CharField()


class ErrorSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    message = serializers.CharField()
    problems = ProblemSerializer(many=True)


def handle(error: Exception, context: dict[str, Any]) -> Response | None:
    """The response for an error; None lets Django answer 500."""
    if isinstance(error, NotFoundError | Http404):
        return _reply(404, "not_found", "There is nothing here.")
    if isinstance(error, ConflictError):
        return _reply(409, error.code, error.message)
    if isinstance(error, RefusedError | CoreError):
        return _reply(400, "problems", "Some of this needs another look.", _told(error.problems))
    if isinstance(error, ValidationError):
        return _reply(400, "problems", "Some of this needs another look.", _flat(error.detail))
    if isinstance(error, Throttled):
        seconds = int(error.wait or 60)
        return _reply(429, "throttled", f"Too many tries. Wait {seconds} seconds.")
    if isinstance(error, NotAuthenticated):
        return _reply(403, "not_authenticated", "Your session has ended. Sign in again.")
    response = exception_handler(error, context)
    if response is not None and isinstance(error, APIException):
        return _reply(response.status_code, str(error.get_codes()), str(error.detail))
    return response


def _told(problems: Any) -> list[dict[str, str]]:
    return [{"path": p.path, "code": p.code, "message": p.text()} for p in problems]


def _flat(detail: Any, path: str = "") -> list[dict[str, str]]:
    """A serializer's nested errors as a list with paths."""
    if isinstance(detail, dict):
        return [
            p
            for key, value in detail.items()
            for p in _flat(value, path if key == "non_field_errors" else _under(path, key))
        ]
    if isinstance(detail, list):
        if all(not isinstance(item, dict | list) for item in detail):
            return [
                {"path": path, "code": getattr(item, "code", "invalid"), "message": str(item)}
                for item in detail
            ]
        return [p for i, item in enumerate(detail) for p in _flat(item, _under(path, i))]
    return [{"path": path, "code": getattr(detail, "code", "invalid"), "message": str(detail)}]


def _under(path: str, key: object) -> str:
    return f"{path}.{key}" if path else str(key)


def _reply(
    status: int, code: str, message: str, problems: list[dict[str, str]] | None = None
) -> Response:
    return Response({"code": code, "message": message, "problems": problems or []}, status=status)
