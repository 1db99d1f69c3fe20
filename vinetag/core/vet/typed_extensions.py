"""Which extensions people type who mean another: habit, the country's own, slips."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from typing import Final

__all__ = ["typed_extensions"]

# Shares are judgements, as nobody publishes how often people type a familiar ending by habit.
HABIT: Final = "com"
OF_NEW, OF_COUNTRY, OWN_COUNTRY, USUAL = 0.09, 0.05, 0.03, 0.006
USUALS: Final = ("net", "org")
SLIPS: Final[Mapping[str, Mapping[str, float]]] = {
    "com": {"co": 0.004, "cm": 0.0015, "om": 0.001},
    "co": {"com": 0.12},
    "net": {"com": 0.08, "ne": 0.0005},
    "org": {"com": 0.05, "or": 0.0003},
    "shop": {"shopping": 0.003, "store": 0.01},
    "store": {"shop": 0.01},
    "studio": {"studios": 0.01},
    "studios": {"studio": 0.02},
}


def typed_extensions(extension: str, country: str, known: Collection[str]) -> Mapping[str, float]:
    """By extension that is `known`, the share of those who mean a name under `extension` who type
    it; `country` is that of the people to be reached (ISO 3166-1, "" where it is not said).
    """
    last = extension.rsplit(".", 1)[-1]
    found: dict[str, float] = {}
    if extension != HABIT:
        found[HABIT] = OF_COUNTRY if len(last) == 2 else OF_NEW
    own = {"GB": "uk"}.get(country, country.lower())
    for other in (f"co.{own}", f"com.{own}", own) if own else ():
        if own != last and other in known:
            found[other] = OWN_COUNTRY
    if extension == HABIT or len(last) == 2:
        found |= dict.fromkeys(USUALS, USUAL)
    found |= SLIPS.get(extension, {})
    return {other: share for other, share in found.items() if other in known and other != extension}
