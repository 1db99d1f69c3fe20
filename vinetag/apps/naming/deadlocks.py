"""Transactions that meet those of the workers."""

from __future__ import annotations

import random
import time
from collections.abc import Callable
from functools import wraps
from typing import Final, ParamSpec, TypeVar

from django.db import OperationalError, connection

__all__ = ["again_when_deadlocked"]

P = ParamSpec("P")
T = TypeVar("T")

# Deadlock found; lock wait timeout exceeded.
CODES: Final = frozenset({1213, 1205})
TRIES: Final = 6
# Seconds to wait at most before the second try; twice that before the third, and so on.
APART: Final = 0.05


def again_when_deadlocked(work: Callable[P, T]) -> Callable[P, T]:
    """A function with a transaction of its own that is begun again, up to TRIES times, when the
    database broke it off to let another one through. Within a wider transaction, which is then lost
    as a whole, the error is passed on.
    """

    @wraps(work)
    def tried(*args: P.args, **kwargs: P.kwargs) -> T:
        for left in reversed(range(TRIES)):
            try:
                return work(*args, **kwargs)
            except OperationalError as error:
                if error.args[0] not in CODES or not left or connection.in_atomic_block:
                    raise
                # At once it would meet the same one again, which stores every fifth of a second.
                time.sleep((TRIES - left) * APART * random.uniform(0.5, 1))  # noqa: S311
        raise AssertionError("the last try returns or raises")

    return tried
