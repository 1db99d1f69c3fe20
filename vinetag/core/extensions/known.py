"""The catalogue of extensions a brief may name."""

from __future__ import annotations

from contextlib import suppress
from functools import cache
from importlib.resources import files

import idna
from publicsuffixlist import PublicSuffixList

from vinetag.core.errors import ExtensionError, Problem

__all__ = ["is_suffix", "known_extensions", "parse_extension"]


@cache
def _suffixes() -> PublicSuffixList:
    return PublicSuffixList(accept_unknown=False, only_icann=True)


def is_suffix(name: str) -> bool:
    """Whether names are registered under it by a registry, as the public suffix list has it
    (publicsuffix.org; its section of private owners is left out).
    """
    return bool(_suffixes().is_public(name))


@cache
def _catalogue() -> tuple[frozenset[str], frozenset[str]]:
    """Extensions names are registered under, and those that only carry others."""
    text = files("vinetag.core.lexicon").joinpath("data/extensions.txt").read_text("ascii")
    lines = [line for line in text.split("\n") if line and not line.startswith("#")]
    rows = files("vinetag.core.extensions").joinpath("catalogue.csv").read_text("utf-8")
    described = {row.partition(",")[0] for row in rows.splitlines()[1:]}
    open_ = described | {line for line in lines if not line.startswith("-")}
    return frozenset(open_), frozenset(line[1:] for line in lines if line.startswith("-"))


def known_extensions() -> frozenset[str]:
    """Every extension names are registered under, without the leading dot."""
    return _catalogue()[0]


def parse_extension(text: str, path: str = "extension", *, new: bool = False) -> str:
    """Read a typed extension (`.COM`, `co.nz`) into the form it is known by; `new` takes one names
    are registered under by the public suffix list, though it is not known here.

    Raises ExtensionError when it is blank or not known.
    """
    value = text.strip().lower().removeprefix(".")
    if not value:
        raise ExtensionError(Problem(path, "extension_blank"))
    if not value.isascii():
        with suppress(idna.IDNAError, UnicodeError):
            value = idna.encode(value, uts46=True).decode("ascii")
    registrable, carriers = _catalogue()
    if value in carriers:
        raise ExtensionError(Problem(path, "extension_two_level", {"value": value}))
    if value not in registrable and not (new and is_suffix(value)):
        raise ExtensionError(Problem(path, "extension_unknown", {"value": value[:63]}))
    return value
