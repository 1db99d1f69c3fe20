"""One making at a time for each person, whatever windows and processes they ask from."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Final

from vinetag.apps.accounts.errors import ConflictError
from vinetag.apps.accounts.locking import held_alone

__all__ = ["making_of"]

# Seconds; the front (vinetag.config.asgi) lets no more than a few of one person wait.
PATIENCE: Final = 25


@contextmanager
def making_of(owner_id: int) -> Iterator[None]:
    """Wait until no other list of this person's is being made. Raises ConflictError ("making") when
    that takes too long. The lock is the connection's: it goes with a process that dies.
    """
    with held_alone(f"making-{owner_id}", PATIENCE) as mine:
        if not mine:
            raise ConflictError("making", "Names are still being made for you. Try again shortly.")
        yield
