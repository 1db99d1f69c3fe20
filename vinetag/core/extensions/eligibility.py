"""Who may register under an extension. A guide: the registry's own rules decide."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final, Literal

__all__ = ["COUNTRIES", "OWNER_KINDS", "RULES", "Eligible", "eligible"]

OWNER_KINDS: Final = ("person", "company", "association")
EU: Final = frozenset(
    "AT BE BG HR CY CZ DK EE FI FR DE GR HU IE IT LV LT LU MT NL PL PT RO SK SI ES SE".split()
)
EEA: Final = EU | {"IS", "LI", "NO"}
COUNTRIES: Final[Mapping[str, str]] = {
    "AE": "United Arab Emirates", "AI": "Anguilla", "AR": "Argentina", "AT": "Austria",
    "AU": "Australia", "BE": "Belgium", "BG": "Bulgaria", "BR": "Brazil", "CA": "Canada",
    "CC": "Cocos Islands", "CH": "Switzerland", "CL": "Chile", "CN": "China", "CO": "Colombia",
    "CV": "Cabo Verde", "CY": "Cyprus", "CZ": "Czechia", "DE": "Germany", "DK": "Denmark",
    "EE": "Estonia", "EG": "Egypt", "ES": "Spain", "EU": "European Union", "FI": "Finland",
    "FM": "Micronesia", "FR": "France", "GB": "United Kingdom", "GG": "Guernsey", "GR": "Greece",
    "HK": "Hong Kong", "HR": "Croatia", "HU": "Hungary", "ID": "Indonesia", "IE": "Ireland",
    "IL": "Israel", "IN": "India", "IO": "British Indian Ocean Territory", "IS": "Iceland",
    "IT": "Italy", "JP": "Japan", "KE": "Kenya", "KR": "South Korea", "LI": "Liechtenstein",
    "LT": "Lithuania", "LU": "Luxembourg", "LV": "Latvia", "ME": "Montenegro", "MT": "Malta",
    "MX": "Mexico", "MY": "Malaysia", "NG": "Nigeria", "NL": "Netherlands", "NO": "Norway",
    "NZ": "New Zealand", "PE": "Peru", "PH": "Philippines", "PL": "Poland", "PT": "Portugal",
    "RO": "Romania", "SE": "Sweden", "SG": "Singapore", "SI": "Slovenia", "SK": "Slovakia",
    "TH": "Thailand", "TO": "Tonga", "TR": "Turkey", "TV": "Tuvalu", "TW": "Taiwan",
    "UA": "Ukraine", "US": "United States", "VN": "Vietnam", "ZA": "South Africa",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Rule:
    """`where`: countries whose residents may register, all when empty; `kinds`: what the owner has
    to be; `others`: whether someone else may still qualify, so that nothing is ruled out.
    """

    sentence: str
    where: frozenset[str] = frozenset()
    kinds: tuple[str, ...] = OWNER_KINDS
    others: bool = False


def _in(*codes: str) -> frozenset[str]:
    return frozenset(codes)


RULES: Final[Mapping[str, Rule]] = {
    "open": Rule("Open to everyone."),
    "ie": Rule("The owner needs a connection with Ireland.", _in("IE"), others=True),
    "us": Rule("The owner needs a nexus with the United States.", _in("US"), others=True),
    "ca": Rule("The owner needs a presence in Canada, or a trade mark there.", _in("CA")),
    "au": Rule("The owner needs a presence in Australia, or a trade mark there.", _in("AU")),
    "eu": Rule("For residents and citizens of the EU and the EEA, and firms there.", EEA),
    "fr": Rule("For owners in the EU, the EEA or Switzerland.", EEA | {"CH"}),
    "it": Rule(
        "For owners in the EU, the EEA, Switzerland or the United Kingdom.", EEA | {"CH", "GB"}
    ),
    "no": Rule("For organisations registered in Norway, and people with an ID there.", _in("NO")),
    "br": Rule("For owners with a tax number in Brazil.", _in("BR")),
    "ar": Rule("For owners with a tax number in Argentina.", _in("AR"), others=True),
    "jp": Rule("The owner needs an address in Japan.", _in("JP")),
    "jp_company": Rule(
        "For companies registered in Japan, one name each.", _in("JP"), ("company",)
    ),
    "sg": Rule("The owner needs an address or an agent in Singapore.", _in("SG"), others=True),
    "hk": Rule("For businesses registered in Hong Kong.", _in("HK"), ("company",)),
    "person": Rule("For people, under their own names.", kinds=("person",)),
    "lawyer": Rule("For those admitted to practise law, and their firms.", others=True),
    "pledge": Rule("The owner gives a pledge to act for the environment.", others=True),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Eligible:
    """`may`: "yes", "no", or "ask" where the rule cannot tell from country and kind alone."""

    may: Literal["yes", "no", "ask"]
    sentence: str


def eligible(rule_name: str, country: str, kind: str) -> Eligible:
    """Whether an owner in `country` ("" when not said) of `kind` ("" likewise) may register."""
    rule = RULES.get(rule_name, RULES["open"])
    home = not rule.where or country in rule.where
    right_kind = not kind or kind in rule.kinds
    if rule_name == "open" or rule_name not in RULES:
        return Eligible("yes", rule.sentence)
    if not right_kind and not rule.others:
        return Eligible("no", rule.sentence)
    if not rule.where and rule.kinds != OWNER_KINDS and kind:
        return Eligible("yes", rule.sentence)
    if not rule.where or (rule.where and not country) or (country == "EU" and not home):
        return Eligible("ask", rule.sentence)
    if home and right_kind:
        return Eligible("yes" if kind or rule.kinds == OWNER_KINDS else "ask", rule.sentence)
    return Eligible("ask" if rule.others else "no", rule.sentence)
