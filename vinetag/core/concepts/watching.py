"""What can be watched, and what there is to tell of it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final, Literal, get_args

__all__ = [
    "HAPPENING_NAMES",
    "WATCH_KINDS",
    "WATCH_NAMES",
    "HappeningName",
    "WatchKind",
    "WatchName",
]

WatchName = Literal["name", "label", "expiry", "hunt", "price"]
WATCH_NAMES: Final[tuple[WatchName, ...]] = get_args(WatchName)
# A status is another; what is asked for it, and how it is offered; an auction's end put off; when
# it may become open, or runs out; what a registry's own price is; that a moment is near; names a
# search found; a seller's list; what comes or came of a name one owns.
HappeningName = Literal[
    "status",
    "price",
    "kind",
    "extended",
    "drops",
    "expires",
    "terms",
    "near",
    "found",
    "listed",
    "owned",
]
HAPPENING_NAMES: Final[tuple[HappeningName, ...]] = get_args(HappeningName)


@dataclass(frozen=True, slots=True)
class WatchKind:
    """`word`: as a person sees it; `means`: a sentence on what is told; `of_names`: full names are
    asked about for it.
    """

    name: WatchName
    word: str
    means: str
    of_names: bool = True


WATCH_KINDS: Final[Mapping[WatchName, WatchKind]] = {
    kind.name: kind
    for kind in (
        WatchKind(
            "name", "full name", "Whatever becomes of it: its status, its offers, its dates."
        ),
        WatchKind("label", "name", "The same, under each of some extensions."),
        WatchKind(
            "expiry", "running out", "When it runs out, whether it is renewed, when it is let go."
        ),
        WatchKind(
            "hunt", "search of the hunt", "Names that markets list anew, or for less.", False
        ),
        WatchKind("price", "seller’s price", "What a seller’s list asks for an extension.", False),
    )
}
