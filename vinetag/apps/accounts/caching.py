"""The cache: Redis, and while that is away the memory of this process."""

from __future__ import annotations

import json
import logging
import time
from collections.abc import Callable
from typing import Any, Final

from django.core.cache.backends.locmem import LocMemCache
from django.core.cache.backends.redis import RedisCache
from redis.exceptions import RedisError

__all__ = ["JsonSerializer", "SteadyCache"]

# Seconds for which Redis is not tried again.
AWAY: Final = 3.0

log = logging.getLogger(__name__)


class JsonSerializer:
    """Values as JSON: whoever can write to Redis can make nothing run here."""

    def dumps(self, value: Any) -> int | bytes:
        """Integers as they are, for INCR; all else as JSON. Raises TypeError for other values."""
        return value if type(value) is int else json.dumps(value).encode()

    def loads(self, stored: bytes) -> Any:
        """What dumps wrote."""
        return json.loads(stored)


class SteadyCache(RedisCache):
    """Redis' cache; while it cannot be reached, one in memory, so that limits still hold for a
    process and nothing fails.
    """

    def __init__(self, server: Any, params: dict[str, Any]) -> None:
        options = {"serializer": JsonSerializer, **params.get("OPTIONS", {})}
        super().__init__(server, {**params, "OPTIONS": options})
        self._instead = LocMemCache("steady", {})
        self._away_until = 0.0

    def _try(self, work: Callable[[], Any], instead: Callable[[], Any]) -> Any:
        if time.monotonic() >= self._away_until:
            try:
                return work()
            except (RedisError, OSError) as error:
                log.warning(
                    "Redis cannot be reached (%s); this process remembers by itself.", error
                )
                self._away_until = time.monotonic() + AWAY
        return instead()

    def add(self, *args: Any, **more: Any) -> Any:
        return self._try(lambda: super(SteadyCache, self).add(*args, **more),
                         lambda: self._instead.add(*args, **more))  # fmt: skip

    def get(self, *args: Any, **more: Any) -> Any:
        return self._try(lambda: super(SteadyCache, self).get(*args, **more),
                         lambda: self._instead.get(*args, **more))  # fmt: skip

    def set(self, *args: Any, **more: Any) -> Any:
        return self._try(lambda: super(SteadyCache, self).set(*args, **more),
                         lambda: self._instead.set(*args, **more))  # fmt: skip

    def touch(self, *args: Any, **more: Any) -> Any:
        return self._try(lambda: super(SteadyCache, self).touch(*args, **more),
                         lambda: self._instead.touch(*args, **more))  # fmt: skip

    def delete(self, *args: Any, **more: Any) -> Any:
        self._instead.delete(*args, **more)
        return self._try(lambda: super(SteadyCache, self).delete(*args, **more), lambda: False)

    def incr(self, *args: Any, **more: Any) -> Any:
        return self._try(lambda: super(SteadyCache, self).incr(*args, **more),
                         lambda: self._instead.incr(*args, **more))  # fmt: skip

    def clear(self) -> Any:
        self._instead.clear()
        return self._try(lambda: super(SteadyCache, self).clear(), lambda: False)
