"""Faults on request: how often the service misbehaves, and how."""

from __future__ import annotations

import random
from dataclasses import asdict, dataclass, fields
from typing import Any

__all__ = ["KINDS", "Faults"]

KINDS = ("none", "slow", "429", "500", "nonsense", "webpage", "hangup")


@dataclass(slots=True)
class Faults:
    """`kind` happens to the share `rate` (0 to 1) of requests; `seconds` is the delay of "slow" and
    the Retry-After of "429"; `extension`, when given, is the only one that suffers.
    """

    kind: str = "none"
    rate: float = 1.0
    seconds: float = 1.0
    extension: str = ""

    def strikes(self, extension: str, rng: random.Random) -> bool:
        """Whether this request suffers."""
        aimed = not self.extension or self.extension == extension
        return self.kind != "none" and aimed and rng.random() < self.rate

    def document(self) -> dict[str, Any]:
        """As JSON."""
        return asdict(self)

    @classmethod
    def read(cls, document: object) -> Faults:
        """Read what document() wrote; raises ValueError saying what is wrong."""
        if not isinstance(document, dict):
            raise ValueError("an object is wanted")
        unknown = set(document) - {f.name for f in fields(cls)}
        if unknown:
            raise ValueError(f"unknown: {', '.join(sorted(unknown))}")
        faults = cls(**document)
        if faults.kind not in KINDS:
            raise ValueError(f"kind is one of {', '.join(KINDS)}")
        if not (isinstance(faults.rate, int | float) and 0 <= faults.rate <= 1):
            raise ValueError("rate runs from 0 to 1")
        if not (isinstance(faults.seconds, int | float) and 0 <= faults.seconds <= 3600):
            raise ValueError("seconds runs from 0 to 3600")
        return faults
