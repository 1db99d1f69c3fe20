"""Sharing an amount out to the cent."""

from __future__ import annotations

from collections.abc import Sequence
from decimal import ROUND_DOWN, Decimal

__all__ = ["share_out"]

CENT = Decimal("0.01")


def share_out(amount: Decimal, by: Sequence[Decimal]) -> list[Decimal]:
    """The amount in parts as large as `by`, each a whole number of cents, that add up to it: parts
    are rounded towards 0, and the cents left go to those that lost most (the method of the largest
    remainder), the earlier first. An amount below 0 is shared out in the same way. Raises
    ValueError where there is something to share and nothing to share by.
    """
    whole = sum(by, Decimal(0))
    if amount != amount.quantize(CENT):
        raise ValueError("the amount is no whole number of cents")
    if not amount:
        return [Decimal("0.00") for _ in by]
    if whole <= 0 or any(part < 0 for part in by):
        raise ValueError("there is nothing to share by")
    exact = [amount * part / whole for part in by]
    parts = [part.quantize(CENT, ROUND_DOWN) for part in exact]
    left = int((amount - sum(parts, Decimal(0))) / CENT)
    step = CENT if left >= 0 else -CENT
    lost = sorted(range(len(by)), key=lambda k: (-abs(exact[k] - parts[k]), k))
    for place in range(abs(left)):
        parts[lost[place % len(lost)]] += step
    return parts
