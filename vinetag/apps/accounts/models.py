"""Who uses the application."""

from __future__ import annotations

from django.contrib.auth.models import AbstractUser
from django.db import models

__all__ = ["User"]


class User(AbstractUser):
    """A person with an account; `preferences` are how they like things, as PreferencesSerializer
    has them, without what was left as it is.
    """

    preferences = models.JSONField(default=dict)
