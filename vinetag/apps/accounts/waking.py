"""Sending messages to workers."""

from __future__ import annotations

import logging
from collections.abc import Callable

__all__ = ["wake"]

log = logging.getLogger(__name__)


def wake(send: Callable[[], object]) -> None:
    """Send a message to the workers. Whatever keeps it from being sent, the work is in the database
    and waits for the schedule.
    """
    try:
        send()
    except Exception as error:
        log.warning("The queue cannot be reached (%s); it starts when it is back.", error)
