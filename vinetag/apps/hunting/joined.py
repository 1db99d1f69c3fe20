"""What the hunt adds: nothing of its own yet beside its addresses."""

from __future__ import annotations

from vinetag.apps.accounts.joining import Joined

__all__ = ["JOINED"]

JOINED = Joined()
