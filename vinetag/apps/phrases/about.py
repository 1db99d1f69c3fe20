"""What a person says of figures as a whole."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from django.utils import timezone

from vinetag.apps.accounts.errors import RefusedError
from vinetag.core.demand.reading import language_of
from vinetag.core.errors import Problem, add_words
from vinetag.core.extensions import COUNTRIES
from vinetag.core.money import currency_of

__all__ = ["About", "parse_about"]

add_words(
    {
        "demand_country_code": "“{value}” is no country: two letters of ISO 3166-1, such as IE.",
        "demand_currency_code": "“{value}” is no currency: three letters of ISO 4217.",
        "demand_language_code": "“{value}” is no language: a tag of BCP 47, such as en.",
        "demand_future": "Figures cannot be of a day that is still to come.",
    }
)


@dataclass(frozen=True, slots=True)
class About:
    """Where figures are from, and for lines that do not say it, the country, language and currency;
    the day they are of, None for today.
    """

    source: str
    country: str = ""
    language: str = ""
    currency: str = ""
    dated: date | None = None


def parse_about(given: About) -> About:
    """As it is kept, with a day. Raises RefusedError with every problem."""
    problems = []
    source = " ".join(given.source.split())[:60].replace("|", "/")
    country, currency = given.country.strip().upper(), given.currency.strip().upper()
    language = given.language.strip()
    if not source:
        problems.append(Problem("source", "blank"))
    if country and country not in COUNTRIES:
        problems.append(Problem("country", "demand_country_code", {"value": country[:10]}))
    if language and not language_of(language):
        problems.append(Problem("language", "demand_language_code", {"value": language[:20]}))
    if currency:
        try:
            currency_of(currency)
        except ValueError:
            problems.append(Problem("currency", "demand_currency_code", {"value": currency[:10]}))
    today = timezone.now().date()
    if given.dated and given.dated > today:
        problems.append(Problem("dated", "demand_future"))
    if problems:
        raise RefusedError(problems)
    return About(source, country, language_of(language), currency, given.dated or today)
