"""What vetting adds: nothing to files and pages yet."""

from vinetag.apps.accounts.joining import Joined

__all__ = ["JOINED"]

JOINED = Joined()
