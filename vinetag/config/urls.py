"""Every address: the API under /api, and the interface for all else."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import render
from django.urls import include, path, re_path
from django.views.decorators.csrf import ensure_csrf_cookie

__all__ = ["csrf_failure", "urlpatterns"]


@ensure_csrf_cookie
def interface(request: HttpRequest) -> HttpResponse:
    """The page that holds the interface, for every address the router in the browser knows."""
    response = render(request, "index.html")
    response.headers["Cache-Control"] = "no-cache"
    return response


def missing(_request: HttpRequest) -> JsonResponse:
    """An address under /api that does not exist."""
    return JsonResponse({"code": "not_found", "message": "There is nothing here."}, status=404)


def csrf_failure(_request: HttpRequest, reason: str = "") -> JsonResponse:
    """A form sent from a page that has gone stale, or from elsewhere."""
    message = "This page is out of date. Reload it and try again."
    return JsonResponse({"code": "csrf", "message": message, "reason": reason}, status=403)


urlpatterns = [
    path("api/", include("vinetag.apps.accounts.api.urls")),
    path("api/", include("vinetag.apps.naming.api.urls")),
    path("api/", include("vinetag.apps.availability.api.urls")),
    path("api/", include("vinetag.apps.shortlists.api.urls")),
    path("api/", include("vinetag.apps.sharing.api.urls")),
    path("api/", include("vinetag.apps.bench.api.urls")),
    re_path(r"^api/", missing),
    re_path(r"^(?!assets/|fonts/).*$", interface),
]
