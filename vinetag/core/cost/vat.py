"""VAT numbers of the European Union: which country gave one, and whether it can be one."""

from __future__ import annotations

from stdnum.eu import vat
from stdnum.exceptions import InvalidComponent, ValidationError

from vinetag.core.cost.sellers import Buyer
from vinetag.core.errors import CoreError, Problem, add_words

__all__ = ["VatError", "buyer_of", "vat_country"]

LONGEST = 20

add_words(
    {
        "vat_country": "“{value}” begins with no country of the European Union, such as IE or DE.",
        "vat_number": "“{value}” is no VAT number of {country}: a character may be mistyped.",
    }
)


class VatError(CoreError):
    """A text is no VAT number."""


def buyer_of(country: str, number: str, *, privacy: bool, path: str = "vat") -> Buyer:
    """Who pays: a business where there is a VAT number, in the country that gave it unless another
    is named. Raises VatError with a problem at `path`.
    """
    given_by = vat_country(number, path) if number.strip() else ""
    return Buyer(country or given_by, bool(given_by), given_by, privacy)


def vat_country(number: str, path: str = "") -> str:
    """The country (ISO 3166-1) that gave a number, whose form and check digits are right; whether
    it is in use only the country's office can say. Raises VatError with a problem at `path`.
    """
    text = number.strip().upper()
    try:
        compact = vat.validate(text[: 2 * LONGEST])
    except InvalidComponent:
        raise VatError(Problem(path, "vat_country", {"value": text[:LONGEST]})) from None
    except ValidationError:
        country = "GR" if text[:2] == "EL" else text[:2]
        args = {"value": text[:LONGEST], "country": country}
        raise VatError(Problem(path, "vat_number", args)) from None
    return "GR" if compact[:2] == "EL" else str(compact[:2])
