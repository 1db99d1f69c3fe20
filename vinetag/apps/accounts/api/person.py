"""Who asks."""

from __future__ import annotations

from rest_framework.exceptions import NotAuthenticated
from rest_framework.request import Request

from vinetag.apps.accounts.models import User

__all__ = ["person_of"]


def person_of(request: Request) -> User:
    """The person signed in. Raises NotAuthenticated for a visitor."""
    if not isinstance(request.user, User):
        raise NotAuthenticated
    return request.user
