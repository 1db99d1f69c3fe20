"""Countries, and how addresses are written there."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from typing import Final

import pycountry

__all__ = ["COUNTRIES", "Country", "country_named"]


@dataclass(frozen=True, slots=True)
class Country:
    """`code` of ISO 3166-1; what the part of the country is called in an address, and whether it
    has to be there; what the postcode is called, what it looks like, "" where anything may stand,
    and whether it has to be there; `example` of one.
    """

    code: str
    name: str
    region: str = "Region"
    needs_region: bool = False
    postcode: str = "Postcode"
    needs_postcode: bool = True
    pattern: str = ""
    example: str = ""

    def writes(self, postcode: str) -> bool:
        """Whether a postcode looks like one of there."""
        return not self.pattern or bool(re.fullmatch(self.pattern, postcode.upper().strip()))


_FIVE, _FOUR, _SIX = r"\d{5}", r"\d{4}", r"\d{6}"
# Where addresses have more rules than a postcode.
_RULES: Final[Mapping[str, Mapping[str, object]]] = {
    "AU": {"region": "State", "needs_region": True, "pattern": _FOUR, "example": "2000"},
    "AT": {"pattern": _FOUR, "example": "1010"},
    "BE": {"pattern": _FOUR, "example": "1000"},
    "BR": {
        "region": "State", "needs_region": True, "postcode": "CEP", "pattern": r"\d{5}-?\d{3}",
        "example": "01310-100",
    },
    "CA": {
        "region": "Province", "needs_region": True, "pattern": r"[A-Z]\d[A-Z] ?\d[A-Z]\d",
        "example": "K1A 0B1",
    },
    "CH": {"pattern": _FOUR, "example": "3003"},
    "CN": {"region": "Province", "needs_region": True, "pattern": _SIX, "example": "100000"},
    "CZ": {"pattern": r"\d{3} ?\d{2}", "example": "110 00"},
    "DE": {"pattern": _FIVE, "example": "10115"},
    "DK": {"pattern": _FOUR, "example": "1050"},
    "ES": {"region": "Province", "pattern": _FIVE, "example": "28001"},
    "FI": {"pattern": _FIVE, "example": "00100"},
    "FR": {"pattern": _FIVE, "example": "75001"},
    "GB": {
        "region": "County", "pattern": r"[A-Z]{1,2}\d[A-Z\d]? ?\d[A-Z]{2}", "example": "EC1A 1BB",
    },
    "IE": {
        "region": "County", "postcode": "Eircode", "needs_postcode": False,
        "pattern": r"[A-Z]\d[\dW] ?[A-Z\d]{4}", "example": "T12 AB34",
    },
    "IN": {"region": "State", "needs_region": True, "postcode": "PIN", "pattern": _SIX},
    "IT": {"region": "Province", "needs_region": True, "postcode": "CAP", "pattern": _FIVE},
    "JP": {"region": "Prefecture", "needs_region": True, "pattern": r"\d{3}-?\d{4}"},
    "MX": {"region": "State", "needs_region": True, "pattern": _FIVE},
    "NL": {"pattern": r"\d{4} ?[A-Z]{2}", "example": "1012 AB"},
    "NO": {"pattern": _FOUR, "example": "0150"},
    "NZ": {"pattern": _FOUR, "example": "6011"},
    "PL": {"pattern": r"\d{2}-\d{3}", "example": "00-001"},
    "PT": {"pattern": r"\d{4}-\d{3}", "example": "1000-001"},
    "SE": {"pattern": r"\d{3} ?\d{2}", "example": "111 20"},
    "US": {
        "region": "State", "needs_region": True, "postcode": "ZIP code",
        "pattern": r"\d{5}(-\d{4})?", "example": "12207",
    },
}  # fmt: skip
# Where there are no postcodes, or hardly anybody writes one.
_WITHOUT: Final = frozenset(
    "AE AG AI AN AO AW BI BJ BO BS BW BZ CD CF CG CI CK CM DJ DM ER FJ GA GD GH GM GN GQ GY HK JM "
    "KE KI KM KN KP KY LC ML MO MR MS MU MW NR NU PA QA RW SB SC SL SR ST SY TD TF TG TK TL TO TT "
    "TV TZ UG VU YE ZW".split()
)


@cache
def _all() -> Mapping[str, Country]:
    found = {}
    for one in pycountry.countries:
        name = getattr(one, "common_name", one.name)
        rules = dict(_RULES.get(one.alpha_2, {}))
        if one.alpha_2 in _WITHOUT:
            rules["needs_postcode"] = False
        found[one.alpha_2] = Country(one.alpha_2, name, **rules)  # type: ignore[arg-type]
    return dict(sorted(found.items(), key=lambda item: item[1].name))


COUNTRIES: Final = _all()


def country_named(code: str) -> Country | None:
    """By its code of ISO 3166-1, None where there is none."""
    return COUNTRIES.get(code)
