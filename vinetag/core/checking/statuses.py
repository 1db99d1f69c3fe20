"""What a full name can be: its words, its looks, whether it can be had, and how long that holds."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import timedelta
from typing import Final, Literal, get_args

__all__ = ["LIFETIMES", "STATUSES", "STATUS_KINDS", "Mark", "Status", "StatusKind", "buyable"]

Status = Literal["open", "premium", "taken", "offered", "dropping", "reserved", "barred", "unsure"]
STATUSES: Final[tuple[Status, ...]] = get_args(Status)
# Shapes with their colours, as the interface draws them.
Mark = Literal[
    "bud", "stone", "stake", "price-tag", "falling", "fence", "gate", "leaf", "beads", "dash"
]


@dataclass(frozen=True, slots=True)
class StatusKind:
    """`word` and what it `means`, for a person; `mark`: its shape; `worth`: its place in a column
    ordered by what can be had, 0 the best; `buyable`: it can be registered now; `lifetime`: how
    long an answer may stand in for asking again, None for what is no answer.
    """

    name: str
    word: str
    means: str
    mark: Mark
    worth: int
    lifetime: timedelta | None = None
    buyable: bool = False


# Taken names stay taken for long; open ones may be gone any moment; not knowing lasts shortest.
# What rules say is worked out anew every time. The last two are no answers.
STATUS_KINDS: Final[Mapping[str, StatusKind]] = {
    kind.name: kind
    for kind in (
        StatusKind(
            "open", "open", "can be registered at the usual price", "bud", 0,
            timedelta(minutes=15), buyable=True,
        ),
        StatusKind(
            "premium", "premium", "can be registered, at a price of its own", "stone", 1,
            timedelta(minutes=30), buyable=True,
        ),
        StatusKind("taken", "taken", "registered", "stake", 7, timedelta(days=3)),
        StatusKind(
            "offered", "offered", "registered, and its holder or an auction sells it", "price-tag",
            3, timedelta(hours=6),
        ),
        StatusKind(
            "dropping", "dropping", "registered, and on its way out", "falling", 2,
            timedelta(hours=2),
        ),
        StatusKind(
            "reserved", "reserved", "held back by the registry", "fence", 6, timedelta(days=3)
        ),
        StatusKind(
            "barred", "barred", "not allowed for this owner or with this label", "gate", 8,
            timedelta(0),
        ),
        StatusKind("unsure", "unsure", "could not be found out", "leaf", 4, timedelta(seconds=20)),
        StatusKind("waiting", "waiting", "asked, not answered yet", "beads", 5),
        StatusKind("unasked", "not asked", "never asked", "dash", 5),
    )
}  # fmt: skip
LIFETIMES: Final[Mapping[Status, timedelta]] = {
    status: STATUS_KINDS[status].lifetime or timedelta(0) for status in STATUSES
}


def buyable() -> tuple[Status, ...]:
    """The statuses of what can be registered now, the usual price first."""
    return tuple(status for status in STATUSES if STATUS_KINDS[status].buyable)
