"""Every address: the API under /api, and the interface for all else."""

from __future__ import annotations

import logging
import sys

from django.conf import settings
from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import render
from django.urls import include, path, re_path
from django.views.decorators.csrf import ensure_csrf_cookie
from redis.exceptions import RedisError

from vinetag.apps.accounts.api.problems import AWAY

__all__ = ["csrf_failure", "handler400", "handler404", "handler500", "urlpatterns"]


@ensure_csrf_cookie
def interface(request: HttpRequest) -> HttpResponse:
    """The page that holds the interface, for every address the router in the browser knows."""
    response = render(request, "index.html")
    response.headers["Cache-Control"] = "no-cache"
    return response


def _error(status: int, code: str, message: str) -> JsonResponse:
    """As vinetag.apps.accounts.api.problems has them, for what goes wrong outside of a view."""
    document = {"code": code, "message": message, "problems": []}
    return JsonResponse(document, status=status)


def missing(_request: HttpRequest, exception: Exception | None = None) -> JsonResponse:  # noqa: ARG001 - given by Django
    """An address that does not exist."""
    return _error(404, "not_found", "There is nothing here.")


def refused(_request: HttpRequest, exception: Exception | None = None) -> JsonResponse:  # noqa: ARG001 - given by Django
    """A request that makes no sense."""
    return _error(400, "problems", "This request makes no sense.")


def failed(_request: HttpRequest) -> JsonResponse:
    """Something went wrong here. When it is the database, or Redis, it is said to be for now."""
    error = sys.exc_info()[1]
    if isinstance(error, OperationalError | InterfaceError | RedisError):
        response = _error(503, "unavailable", AWAY)
        response.headers["Retry-After"] = "5"
        return response
    return _error(500, "fault", "Something went wrong here. What you entered is still there.")


def csrf_failure(_request: HttpRequest, reason: str = "") -> JsonResponse:
    """A form sent from a page that has gone stale, or from elsewhere."""
    logging.getLogger("vinetag.security").warning("a request without its token: %s", reason)
    return _error(403, "csrf", "This page is out of date. Reload it and try again.")


handler400, handler404, handler500 = refused, missing, failed

urlpatterns = [
    *(path("api/", include(f"{app}.api.urls")) for app in settings.JOINED_APPS),
    re_path(r"^api/", missing),
    re_path(r"^(?!assets/|fonts/).*$", interface),
]
