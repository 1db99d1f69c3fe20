"""What sharing adds: words."""

from vinetag.apps.accounts.joining import Joined

__all__ = ["JOINED"]

JOINED = Joined(
    words={
        "not_shared": "“{value}” is not among the names shared.",
        "share_end": "Choose an end in the future, within a year.",
    }
)
