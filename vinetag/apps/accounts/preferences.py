"""How a person likes things: looks, formats, and what new projects begin with."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, fields
from typing import Annotated, Any, ClassVar, Final

from pydantic import AfterValidator, ConfigDict, Field

from vinetag.apps.accounts.models import User
from vinetag.core.brief.fields import Extension, MeasureWeights
from vinetag.core.documents import Amount, Document, OneOf, each_once
from vinetag.core.errors import CoreError

__all__ = ["Preferences", "changed", "preferences_of", "preferences_schema"]

THEMES: Final = ("system", "light", "dark")
DENSITIES: Final = ("dense", "usual", "roomy")
LOCALES: Final = ("en", "en-GB", "en-IE", "de", "fr", "es", "sv", "nl", "pt")
CURRENCIES: Final = ("", "EUR", "USD", "GBP", "SEK", "CHF", "CAD", "AUD", "NZD")


class PreferencesError(CoreError):
    """Preferences have one or more problems, each at a path."""


@dataclass(frozen=True, slots=True)
class Preferences:
    """How a person likes things, as the settings keep it."""

    __pydantic_config__: ClassVar[ConfigDict] = ConfigDict(extra="forbid")

    theme: Annotated[str, OneOf(THEMES)] = "system"
    density: Annotated[str, OneOf(DENSITIES)] = "usual"
    locale: Annotated[str, OneOf(LOCALES), Field(description="For numbers and dates (BCP 47)")] = (
        "en"
    )
    currency: Annotated[
        str,
        OneOf(CURRENCIES),
        Field(description="To show prices in; empty for the seller's own"),
    ] = ""
    rate: Annotated[
        Annotated[float, Amount(0.0001, 100_000)] | None,
        Field(description="What one euro is in that currency, by the person's own reckoning"),
    ] = None
    weights: Annotated[MeasureWeights, Field(description="Of the measures, for new projects")] = ()
    extensions: Annotated[
        tuple[Extension, ...],
        Field(max_length=20, description="For new projects, in order"),
        AfterValidator(each_once),
    ] = ()
    letter_keys: Annotated[
        bool, Field(strict=True, description="Keys of one letter do something (WCAG 2.1.4)")
    ] = True
    toured: Annotated[bool, Field(strict=True, description="The tour was taken or put away")] = (
        False
    )


_DOCUMENT: Final = Document(Preferences, PreferencesError)


def preferences_of(person: User) -> dict[str, Any]:
    """How the person likes things, complete. What another version kept, and is not known here,
    gives way to the usual.
    """
    known = {field.name for field in fields(Preferences)}
    kept = {name: value for name, value in person.preferences.items() if name in known}
    try:
        return _DOCUMENT.write(_DOCUMENT.read(kept))
    except PreferencesError:
        return _DOCUMENT.write(Preferences())


def changed(now: Mapping[str, Any], part: Mapping[str, Any]) -> dict[str, Any]:
    """What is kept once a part of it is changed. Raises PreferencesError with every problem."""
    return _DOCUMENT.write(_DOCUMENT.read({**now, **part}))


def preferences_schema() -> dict[str, Any]:
    """The JSON Schema of a person's preferences."""
    return _DOCUMENT.schema("Preferences", str(Preferences.__doc__))
