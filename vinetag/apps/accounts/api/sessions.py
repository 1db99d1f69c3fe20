"""Who asks: Django's session, with the CSRF token asked of visitors too."""

from __future__ import annotations

from typing import Any

from drf_spectacular.authentication import SessionScheme
from rest_framework.authentication import SessionAuthentication
from rest_framework.request import Request

__all__ = ["StrictSession"]


class StrictSession(SessionAuthentication):
    """Session authentication that also protects signing in, which DRF's own leaves to visitors."""

    def authenticate(self, request: Request) -> Any:
        self.enforce_csrf(request)
        user = request._request.user
        return (user, None) if user.is_active else None


class StrictSessionScheme(SessionScheme):  # type: ignore[no-untyped-call]
    """Describes StrictSession in the OpenAPI document."""

    target_class = StrictSession  # type: ignore[assignment]
    name = "cookieAuth"
