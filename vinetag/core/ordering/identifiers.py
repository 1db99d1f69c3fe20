"""Numbers some registries ask of owners, each checked by its own rule (python-stdnum)."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Final

from stdnum import exceptions
from stdnum.ar import cuit, dni
from stdnum.au import abn, acn
from stdnum.br import cnpj, cpf
from stdnum.eu import vat
from stdnum.gb import vat as gb_vat
from stdnum.it import codicefiscale
from stdnum.jp import cn
from stdnum.no import fodselsnummer, orgnr

__all__ = ["IDENTIFIERS", "Identifier", "needed_for"]


@dataclass(frozen=True)
class Identifier:
    """A number: what it is called, and an `example` that holds."""

    code: str
    name: str
    example: str
    check: Callable[[str], Any]

    def problem(self, value: str) -> str:
        """What is wrong with a number, "" where nothing is."""
        try:
            self.check(value)
        except exceptions.InvalidLength:
            return "It has too many or too few characters."
        except exceptions.InvalidChecksum:
            return "Its check digit does not fit: one of its digits is mistyped."
        except exceptions.InvalidFormat:
            return "It is not written like one."
        except exceptions.ValidationError:
            return "There is no such number."
        return ""


IDENTIFIERS: Final[Mapping[str, Identifier]] = {
    one.code: one
    for one in (
        Identifier("vat", "VAT number", "IE6433435F", lambda value: _vat(value)),
        Identifier("ar_cuit", "CUIT (Argentina)", "20-05536168-2", cuit.validate),
        Identifier("ar_dni", "DNI (Argentina)", "20.123.456", dni.validate),
        Identifier("au_abn", "ABN (Australia)", "83 914 571 673", abn.validate),
        Identifier("au_acn", "ACN (Australia)", "004 085 616", acn.validate),
        Identifier("br_cnpj", "CNPJ (Brazil)", "16.727.230/0001-97", cnpj.validate),
        Identifier("br_cpf", "CPF (Brazil)", "390.533.447-05", cpf.validate),
        Identifier("it_cf", "Codice fiscale", "RCCMNL83S18D969H", codicefiscale.validate),
        Identifier("jp_cn", "Corporate number (Japan)", "5-8356-7825-6246", cn.validate),
        Identifier("no_org", "Organisation number (Norway)", "988 077 917", orgnr.validate),
        Identifier("no_id", "National identity number (Norway)", "15108695088",
                   fodselsnummer.validate),
    )
}  # fmt: skip
# By the rule of an extension and the kind of owner: any one of these will do.
_NEEDED: Final[Mapping[str, Mapping[str, Sequence[str]]]] = {
    "ar": {"person": ("ar_dni", "ar_cuit"), "organisation": ("ar_cuit",)},
    "au": {"person": ("au_abn",), "organisation": ("au_abn", "au_acn")},
    "br": {"person": ("br_cpf",), "organisation": ("br_cnpj",)},
    "it": {"person": ("it_cf",), "organisation": ("vat", "it_cf")},
    "jp_company": {"person": (), "organisation": ("jp_cn",)},
    "no": {"person": ("no_id",), "organisation": ("no_org",)},
}


def needed_for(rule: str, kind: str) -> Sequence[Identifier]:
    """What an owner of a kind (person, organisation) needs one of by the rule of an extension; none
    where nothing is.
    """
    return [IDENTIFIERS[code] for code in _NEEDED.get(rule, {}).get(kind, ())]


def _vat(value: str) -> str:
    """Of the European Union or the United Kingdom."""
    text = value.strip().upper()
    return str(gb_vat.validate(text) if text.startswith("GB") else vat.validate(text))
