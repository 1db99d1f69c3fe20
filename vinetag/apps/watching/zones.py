"""Time zones by name (IANA)."""

from __future__ import annotations

from functools import lru_cache
from zoneinfo import ZoneInfo

__all__ = ["zone_of"]


@lru_cache(256)
def zone_of(name: str) -> ZoneInfo | None:
    """The zone of that name, None where there is none."""
    if not name or len(name) > 60 or name.startswith(("/", ".")):
        return None
    try:
        return ZoneInfo(name)
    except (ValueError, OSError, KeyError):
        return None
