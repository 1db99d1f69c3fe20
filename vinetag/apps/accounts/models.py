"""Who uses the application."""

from __future__ import annotations

from django.contrib.auth.models import AbstractUser
from django.db import models
from django.utils.crypto import salted_hmac

__all__ = ["User"]


class User(AbstractUser):
    """A person with an account; `preferences` are how they like things, as PreferencesSerializer
    has them, without what was left as it is. `is_demo` is the one anybody may enter where the demo
    is on. A session is good for its `round` of sessions only. `left_at`: the account was given up
    and is deleted by the schedule.
    """

    preferences = models.JSONField(default=dict)
    is_demo = models.BooleanField(default=False)
    round = models.PositiveIntegerField(default=0)
    left_at = models.DateTimeField(null=True, blank=True)

    def _get_session_auth_hash(self, secret: str | None = None) -> str:
        salt = "vinetag.apps.accounts.models.User.get_session_auth_hash"
        value = f"{self.password}:{self.round}"
        return salted_hmac(salt, value, secret=secret, algorithm="sha256").hexdigest()
