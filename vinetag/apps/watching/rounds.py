"""One round of watching, again and again: what is due is asked, what changed is told, letters go.

Each step stands alone and may be killed at any line; one that fails leaves the others be. One round
at a time, on whichever machine: the lock is the database connection's, and goes with it.
"""

from __future__ import annotations

import logging
from collections.abc import Callable
from typing import Final

from vinetag.apps.accounts.locking import held_alone
from vinetag.apps.watching.asking import adopt_answers, ask_due
from vinetag.apps.watching.letters import send_letters, write_letters
from vinetag.apps.watching.searching import look_at_prices, look_at_searches
from vinetag.apps.watching.telling import remind, tell_changes
from vinetag.apps.watching.watches import end_overdue, forget_old

__all__ = ["STEPS", "go_round"]

STEPS: Final[tuple[Callable[[], int], ...]] = (
    end_overdue,
    tell_changes,
    adopt_answers,
    ask_due,
    tell_changes,
    remind,
    look_at_searches,
    look_at_prices,
    write_letters,
    send_letters,
    forget_old,
)

log = logging.getLogger(__name__)


def go_round() -> bool:
    """One round; False when somebody else is at it."""
    with held_alone("watching") as mine:
        if not mine:
            return False
        for step in STEPS:
            try:
                step()
            except Exception:
                log.exception("%s failed; the next round tries it again", step.__name__)
    return True
