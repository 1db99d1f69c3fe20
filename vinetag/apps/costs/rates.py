"""Exchange rates in force: those that ship, and what was brought in since."""

from __future__ import annotations

from functools import lru_cache

from django.utils import timezone

from vinetag.apps.costs.models import RatesFile
from vinetag.core.cost import Rates
from vinetag.core.cost.bank_rates import joined_rates, read_bank_rates, shipped_rates

__all__ = ["bring_rates", "rates_in_force"]


def rates_in_force() -> Rates:
    """By day; a day that was brought in stands for the same day of those that ship."""
    newest = RatesFile.objects.order_by("-id").values_list("pk", flat=True).first()
    return shipped_rates() if newest is None else _joined(newest)


def bring_rates(text: str) -> Rates:
    """Take in the bank's file, of one day or of many; days brought before are kept. Raises
    BankRatesError with every problem and its line, and keeps nothing then.
    """
    read_bank_rates(text)
    RatesFile.objects.create(content=RatesFile.packed(text), brought_at=timezone.now())
    return rates_in_force()


@lru_cache(maxsize=4)
def _joined(newest: int) -> Rates:
    rates = shipped_rates()
    for row in RatesFile.objects.filter(pk__lte=newest).order_by("pk"):
        rates = joined_rates(rates, read_bank_rates(row.text))
    return rates
