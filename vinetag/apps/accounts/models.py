"""Who uses the application."""

from __future__ import annotations

from django.contrib.auth.models import AbstractUser

__all__ = ["User"]


class User(AbstractUser):
    """A person with an account. Django's own fields, ready to be added to."""
