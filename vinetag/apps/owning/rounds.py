"""One round of looking after names: each step stands alone, and may be killed at any line."""

from __future__ import annotations

import logging
from collections.abc import Callable
from typing import Final

from django.core.cache import cache

from vinetag.apps.owning.asking import ask_due
from vinetag.apps.owning.keeping import adopt_ordered
from vinetag.apps.owning.moving import adopt_moved, hear_of_moves
from vinetag.apps.owning.pricing import price_new
from vinetag.apps.owning.reminding import remind
from vinetag.apps.owning.renewing import adopt_renewed, renew_by_itself

__all__ = ["STEPS", "go_round"]

STEPS: Final[tuple[Callable[[], int], ...]] = (
    adopt_ordered, adopt_renewed, adopt_moved, hear_of_moves, ask_due, price_new, remind,
    renew_by_itself,
)  # fmt: skip
LONGEST: Final = 120

log = logging.getLogger(__name__)


def go_round() -> bool:
    """One round; False when somebody else is at it."""
    if not cache.add("owning-round", 1, LONGEST):
        return False
    try:
        for step in STEPS:
            try:
                step()
            except Exception:
                log.exception("%s failed; the next round tries it again", step.__name__)
    finally:
        cache.delete("owning-round")
    return True
