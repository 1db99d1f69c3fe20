"""So many requests of one address: for what anybody may ask, signed in or not."""

from __future__ import annotations

from rest_framework.request import Request
from rest_framework.throttling import ScopedRateThrottle
from rest_framework.views import APIView

__all__ = ["ByAddress"]


class ByAddress(ScopedRateThrottle):
    """The view's scope, counted by address whoever is signed in."""

    def get_cache_key(self, request: Request, view: APIView) -> str:  # noqa: ARG002 - as DRF calls it
        return f"throttle:{self.scope}:{self.get_ident(request)}"
