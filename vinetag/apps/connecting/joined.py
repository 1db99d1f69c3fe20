"""What connecting adds: nothing that is made up together."""

from vinetag.apps.accounts.joining import Joined

__all__ = ["JOINED"]

JOINED = Joined()
