"""What the evaluations share."""

from __future__ import annotations

import zlib
from collections.abc import Sequence

import numpy as np

__all__ = ["area_under_curve", "for_tuning"]


def for_tuning(text: str) -> bool:
    """Whether an item belongs to the half that constants were tuned on; the others judge."""
    return zlib.crc32(text.encode()) % 2 == 0


def area_under_curve(higher: Sequence[float], lower: Sequence[float]) -> float:
    """The chance that one of `higher` scores above one of `lower`, ties counting half."""
    values = np.concatenate([np.asarray(higher, float), np.asarray(lower, float)])
    _, places, counts = np.unique(values, return_inverse=True, return_counts=True)
    ends = np.cumsum(counts)
    ranks = (ends - (counts - 1) / 2)[places]
    first, second = len(higher), len(lower)
    return float((ranks[:first].sum() - first * (first + 1) / 2) / (first * second))
