"""What stands against moving a name to another seller, told before it bites."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from typing import Any, Final

__all__ = ["SETTLED", "Trap", "traps_of"]

# Registries keep a name where it was registered, or moved to, for so long.
SETTLED: Final = timedelta(days=60)
SOON: Final = timedelta(days=10)
A_YEAR: Final = timedelta(days=365)
MOST: Final = timedelta(days=3_652)

_WORDS: Final = {
    "locked": "It is locked against moving. Open it at its seller first.",
    "open_first": "It is locked against moving. Open it first.",
    "opened": "It is locked against moving; it is opened for that, and locked again once it is "
    "here.",
    "forbidden": "The registry itself keeps it from being moved. Ask its seller why.",
    "settled": "It was registered, or moved, less than 60 days ago: it can be moved from {day} on.",
    "moving": "Somebody asked to move it already.",
    "lapsed": "It was not renewed. Have it back where it is first; then it can be moved.",
    "held": "It is kept out of the world (on hold). Settle that with its seller first.",
    "nobody": "The registry says that nobody has it: there is nothing to move.",
    "runs_out": "It runs out on {day}, and moving can take five days and more. Renew it where it "
    "is if that is too close.",
    "ten_years": "It is paid for ten years ahead nearly: the year that comes with moving is cut "
    "short, or lost.",
    "signed": "It is signed (DNSSEC). Its keys go with it; if its present seller signs for you, "
    "take the key away first and let a few days pass.",
    "servers": "It uses the name servers of its present seller, who may stop answering for it. "
    "Put its records elsewhere first.",
    "unknown": "The registry was not asked of late, so what stands against it may not all be "
    "known.",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Trap:
    """Something to know; it `bars` moving, or is only told."""

    code: str
    bars: bool
    args: Mapping[str, Any] = field(default_factory=dict)

    def text(self) -> str:
        """As a sentence."""
        return _WORDS[self.code].format(**self.args)


def traps_of(
    statuses: Collection[str], now: datetime, *, registered: datetime | None = None,
    moved: datetime | None = None, expires: datetime | None = None, ours: bool = False,
    taken: bool = True, asked: bool = True, signed: bool = False, own_servers: bool = False,
) -> Sequence[Trap]:  # fmt: skip
    """What bars moving first. `statuses` are words of EPP or RDAP; `ours` where our own account has
    it; `asked` whether the registry said so lately; `own_servers` where it uses its seller's.
    """
    if not taken:
        return [Trap("nobody", True)]
    words = {status.replace(" ", "").lower() for status in statuses}
    found = []
    if words & {"redemptionperiod", "pendingdelete"}:
        found.append(Trap("lapsed", True))
    elif words & {"clienthold", "serverhold"}:
        found.append(Trap("held", True))
    if "servertransferprohibited" in words:
        found.append(Trap("forbidden", True))
    if "pendingtransfer" in words:
        found.append(Trap("moving", True))
    last = max(filter(None, (registered, moved)), default=None)
    if last is not None and now - last < SETTLED:
        found.append(Trap("settled", True, {"day": _day(last + SETTLED)}))
    if "clienttransferprohibited" in words:
        found.append(Trap("opened", False) if ours else Trap("locked", True))
    if expires is not None and expires - now < SOON:
        found.append(Trap("runs_out", False, {"day": _day(expires)}))
    if expires is not None and expires + A_YEAR > now + MOST:
        found.append(Trap("ten_years", False))
    if signed:
        found.append(Trap("signed", False))
    if own_servers:
        found.append(Trap("servers", False))
    if not asked:
        found.append(Trap("unknown", False))
    return sorted(found, key=lambda trap: not trap.bars)


def _day(at: datetime) -> str:
    return f"{at:%d %B %Y}".lstrip("0")
