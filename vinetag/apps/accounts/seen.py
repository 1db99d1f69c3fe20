"""What a change was made from: the one way in which nobody writes over what another has written.

Who changes something sends the fields back as they saw them (or, where what they saw is long, its
version). Where one of them is otherwise by now, nothing is changed and they are told what is there.
"""

from __future__ import annotations

from collections.abc import Mapping

from vinetag.apps.accounts.errors import ConflictError

__all__ = ["CHANGED_ELSEWHERE", "Seen", "require_seen"]

Seen = Mapping[str, object] | None

CHANGED_ELSEWHERE = "changed_elsewhere"
MESSAGE = "This was changed in another window, or by someone else, meanwhile."


def require_seen(seen: Seen, now: Mapping[str, object], current: object = None) -> None:
    """Raises ConflictError (CHANGED_ELSEWHERE) when a field of `now` is not as it was `seen`, with
    `current`, or `now`, as what is there. Fields that were not seen may be anything; None for
    `seen` asks nothing. To be called where `now` cannot change before the change is stored.
    """
    if seen is not None and any(seen.get(key, now[key]) != now[key] for key in now):
        raise ConflictError(CHANGED_ELSEWHERE, MESSAGE, dict(now) if current is None else current)
