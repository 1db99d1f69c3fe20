"""Response headers that keep pages from loading anything from elsewhere."""

from __future__ import annotations

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

__all__ = ["ContentSecurityPolicy"]

POLICY = (
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
    "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
)


class ContentSecurityPolicy:
    """Adds the policy. Inline styles are allowed because the styling library writes them."""

    sync_capable = True
    async_capable = False

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        response = self.get_response(request)
        response.headers["Content-Security-Policy"] = POLICY
        return response
