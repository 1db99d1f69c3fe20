"""How the measures weigh in the grade, by purpose or as the person set them."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final

from vinetag.core.brief import Brief
from vinetag.core.concepts import MEASURE_KINDS, PURPOSES, Purpose

__all__ = ["EXPONENT", "PRESETS", "enough", "power_mean", "shares", "weigh", "weights_of"]

# From 0 (not counted) to 10, as the sliders have them.
PRESETS: Final[Mapping[Purpose, Mapping[str, int]]] = {
    purpose: {kind.name: kind.weights[purpose] for kind in MEASURE_KINDS} for purpose in PURPOSES
}
# A power mean: 1 would be the plain average, 0 the geometric mean, where one nought spoils all.
EXPONENT: Final = 0.4


def weights_of(brief: Brief) -> Mapping[str, int]:
    """The person's weights, or the preset of the brief's purpose."""
    return dict(brief.weights) or PRESETS[brief.purpose]


def shares(weights: Mapping[str, int]) -> Mapping[str, float]:
    """Each measure's share of the grade, 0 to 1; all alike when every weight is nought."""
    total = sum(weights.values())
    if not total:
        return dict.fromkeys(weights, 1 / len(weights)) if weights else {}
    return {name: weight / total for name, weight in weights.items()}


def enough(scores: Mapping[str, float], weights: Mapping[str, int]) -> bool:
    """Whether the measures that gave a score have half of the weight, so that there is a grade."""
    known = sum(weight for name, weight in weights.items() if name in scores)
    return 2 * known >= sum(weights.values()) if any(weights.values()) else bool(scores)


def weigh(scores: Mapping[str, float], weights: Mapping[str, int]) -> float:
    """The weighted power mean of the scores (0 to 100) with exponent EXPONENT, over the measures
    that gave one; 0 when none did.

    A weakness is not made good by strengths elsewhere: a name nobody can spell stays poor however
    short it is. Below 1, the exponent pulls the mean towards the low scores, the more the lower
    they are (H. Bullen, Handbook of Means and Their Inequalities, 2003, ch. 3).
    """
    return power_mean(scores, shares({name: weights.get(name, 0) for name in scores}))


def power_mean(scores: Mapping[str, float], share: Mapping[str, float]) -> float:
    """As `weigh`, by shares that add up to 1."""
    mean = sum(share[name] * score**EXPONENT for name, score in scores.items())
    return float(mean ** (1 / EXPONENT))
