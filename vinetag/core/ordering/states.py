"""The steps of buying one name."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final, Literal, cast

__all__ = ["FINAL", "NEXT", "State", "StateError", "advance", "words_of"]

State = Literal[
    "planned", "asked", "agreed", "paid", "sent", "pending", "registered", "failed", "refunded",
]  # fmt: skip

# From which to which. What was sent may turn out not to have arrived: then it is paid for again
# as before. Nothing leads out of registered, nor out of refunded.
NEXT: Final[Mapping[State, frozenset[State]]] = {
    "planned": frozenset({"asked", "failed"}),
    "asked": frozenset({"planned", "agreed", "failed"}),
    "agreed": frozenset({"paid", "failed"}),
    "paid": frozenset({"sent", "failed"}),
    "sent": frozenset({"paid", "pending", "registered", "failed"}),
    "pending": frozenset({"registered", "failed"}),
    "registered": frozenset(),
    "failed": frozenset({"refunded"}),
    "refunded": frozenset(),
}
FINAL: Final = frozenset({"registered", "refunded"})
_WORDS: Final[Mapping[State, str]] = {
    "planned": "planned",
    "asked": "asked about",
    "agreed": "to be paid",
    "paid": "paid, not sent yet",
    "sent": "sent, not answered yet",
    "pending": "waiting for the registry",
    "registered": "registered",
    "failed": "not registered",
    "refunded": "not registered, money given back",
}


class StateError(ValueError):
    """A name cannot go from one step to another."""


def advance(now: str, to: State) -> State:
    """The step a name is in afterwards. Raises StateError where it cannot get there from `now`."""
    if now == to:
        return to
    if to not in NEXT.get(cast(State, now), frozenset()):
        raise StateError(f"from {now} to {to}")
    return to


def words_of(state: str) -> str:
    """The step in words."""
    return _WORDS.get(cast(State, state), state)
