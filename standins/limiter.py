"""Rate limits as a registry keeps them, counting who goes over."""

from __future__ import annotations

import time
from collections import Counter
from dataclasses import dataclass, field
from typing import Any

__all__ = ["Limiter"]


@dataclass(slots=True)
class Limiter:
    """A token bucket a registry: `per_second` tokens come, at most `burst` are kept. A question
    without a token is a violation.
    """

    per_second: dict[str, float] = field(default_factory=dict)
    burst: float = 10.0
    asked: Counter[str] = field(default_factory=Counter)
    violations: Counter[str] = field(default_factory=Counter)
    _tokens: dict[str, tuple[float, float]] = field(default_factory=dict)

    def allows(self, registry: str, now: float | None = None) -> bool:
        """Count a question at `now` (seconds); whether it is within the limit."""
        self.asked[registry] += 1
        rate = self.per_second.get(registry) or self.per_second.get("*")
        if not rate:
            return True
        now = time.monotonic() if now is None else now
        tokens, before = self._tokens.get(registry, (self.burst, now))
        tokens = min(self.burst, tokens + (now - before) * rate)
        allowed = tokens >= 1
        self._tokens[registry] = (tokens - 1 if allowed else tokens, now)
        self.violations[registry] += not allowed
        return allowed

    def document(self) -> dict[str, Any]:
        """As JSON."""
        return {
            "per_second": self.per_second,
            "burst": self.burst,
            "asked": self.asked,
            "violations": +self.violations,
        }

    def change(self, document: object) -> None:
        """Take new limits from {"per_second": {registry or "*": rate}, "burst"} and count anew.
        Raises ValueError.
        """
        if not isinstance(document, dict) or not isinstance(document.get("per_second"), dict):
            raise ValueError('{"per_second": {"*": 50}} is wanted')
        rates = document["per_second"]
        if not all(isinstance(rate, int | float) and rate >= 0 for rate in rates.values()):
            raise ValueError("rates are numbers from 0")
        burst = document.get("burst", 10)
        if not isinstance(burst, int | float) or burst < 1:
            raise ValueError("burst is a number from 1")
        self.per_second, self.burst = dict(rates), float(burst)
        self.asked.clear()
        self.violations.clear()
        self._tokens.clear()
