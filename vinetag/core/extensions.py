"""The catalogue of extensions a brief may name."""

from __future__ import annotations

from contextlib import suppress
from functools import cache
from importlib.resources import files

import idna

from vinetag.core.errors import ExtensionError, Problem

__all__ = ["known_extensions", "parse_extension"]


@cache
def _catalogue() -> tuple[frozenset[str], frozenset[str]]:
    """Extensions names are registered under, and those that only carry others."""
    text = files("vinetag.core.lexicon").joinpath("data/extensions.txt").read_text("ascii")
    lines = [line for line in text.split("\n") if line and not line.startswith("#")]
    open_ = frozenset(line for line in lines if not line.startswith("-"))
    return open_, frozenset(line[1:] for line in lines if line.startswith("-"))


def known_extensions() -> frozenset[str]:
    """Every extension names are registered under, without the leading dot."""
    return _catalogue()[0]


def parse_extension(text: str, path: str = "extension") -> str:
    """Read a typed extension (`.COM`, `co.nz`) into its catalogue form.

    Raises ExtensionError when it is blank or not in the catalogue.
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
    if value not in registrable:
        raise ExtensionError(Problem(path, "extension_unknown", {"value": value[:63]}))
    return value
