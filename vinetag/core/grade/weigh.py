"""How the measures weigh in the grade, by purpose."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final

from vinetag.core.brief import Purpose

__all__ = ["WEIGHTS", "weigh"]

WEIGHTS: Final[Mapping[Purpose, Mapping[str, float]]] = {
    "brand": {"length": 0.40, "spelling": 0.35, "fit": 0.25},
    "mix": {"length": 0.33, "spelling": 0.33, "fit": 0.34},
    "descriptive": {"length": 0.20, "spelling": 0.30, "fit": 0.50},
}


def weigh(scores: Mapping[str, float], purpose: Purpose) -> float:
    """The weighted mean of the scores, 0 to 100, over the measures that gave one."""
    weights = WEIGHTS[purpose]
    total = sum(weights[name] for name in scores)
    return sum(weights[name] * score for name, score in scores.items()) / total if total else 0.0
