"""Amounts of money: decimal, each in one currency, never set against one of another.

`Money` is that of py-moneyed: comparing or adding amounts of unlike currencies raises TypeError.
"""

from __future__ import annotations

from decimal import Decimal, InvalidOperation
from typing import Final

from moneyed import CurrencyDoesNotExist, Money, get_currency

__all__ = ["DEAREST", "PLACES", "Money", "amount_of", "currency_of", "neat", "thousandths"]

# No currency of ISO 4217 in use has more decimal places.
PLACES: Final = 3
DEAREST: Final = Decimal(10**9)


def currency_of(code: str) -> str:
    """The code, when it is one of ISO 4217. Raises ValueError."""
    try:
        return str(get_currency(code).code)
    except (CurrencyDoesNotExist, AttributeError) as error:
        raise ValueError(
            f"{code!s:.10} is no currency: ISO 4217 has three capital letters"
        ) from error


def amount_of(value: object) -> Decimal:
    """A number, or one written in digits, as an exact amount of at most PLACES decimal places, the
    rest rounded half to even. A float is taken for what it prints as. Raises ValueError when it is
    no number, not finite, below 0 or above DEAREST.
    """
    try:
        amount = Decimal(str(value))
        if not amount.is_finite() or not 0 <= amount <= DEAREST:
            raise ValueError(f"{value!s:.40} is no amount from 0 to {DEAREST:,}")
        exact = amount.quantize(Decimal(1).scaleb(-PLACES))
    except InvalidOperation as error:
        raise ValueError(f"{value!s:.40} is no amount") from error
    return neat(exact)


def neat(amount: Decimal) -> Decimal:
    """The same amount without noughts at its end, and never in powers of ten: 12.500 is 12.5."""
    short = amount.normalize()
    return short.quantize(Decimal(1)) if short.as_tuple().exponent > 0 else short  # type: ignore[operator]


def thousandths(amount: Decimal) -> int:
    """The amount in thousandths of its currency, exactly."""
    return int(amount_of(amount).scaleb(PLACES))
