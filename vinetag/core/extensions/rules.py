"""What rules alone say about a full name, before anyone is asked."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final, Literal

from vinetag.core.extensions.catalogue import Entry
from vinetag.core.extensions.eligibility import eligible
from vinetag.core.extensions.known import is_suffix
from vinetag.core.names import FullName

__all__ = ["Barred", "barred"]

# RFC 6761 section 6.5, and specification 5 of the registry agreement of newer extensions.
EXAMPLES: Final = frozenset({"com", "net", "org"})
REGISTRYS_OWN: Final = frozenset({"nic", "rdds", "whois", "www"})


@dataclass(frozen=True, slots=True)
class Barred:
    """Why a name cannot be had, as a sentence; `status` says in which way."""

    status: Literal["barred", "reserved"]
    sentence: str


def barred(name: FullName, entry: Entry, country: str = "", kind: str = "") -> Barred | None:
    """What the catalogue's rules and the owner's country and kind rule out; None for nothing."""
    label, extension = name.label, name.extension
    idn = label.startswith("xn--")
    if idn and not entry.idn:
        return Barred("barred", f"Names under .{extension} use the letters a to z only.")
    if len(label) < entry.letters_min:
        return Barred(
            "barred", f"Names under .{extension} have at least {entry.letters_min} characters."
        )
    if len(label) > entry.letters_max:
        return Barred(
            "barred", f"Names under .{extension} have at most {entry.letters_max} characters."
        )
    if len(str(name)) > 253:
        return Barred("barred", "A full name has at most 253 characters.")
    if entry.eligibility != "open":
        may = eligible(entry.eligibility, country, kind)
        if may.may == "no":
            return Barred("barred", may.sentence)
    if is_suffix(str(name)):
        return Barred("reserved", f"“{name}” is itself an extension.")
    if label == "example" and extension in EXAMPLES:
        return Barred("reserved", "“example” is held back for documentation (RFC 6761).")
    if entry.kind == "newer" and label in REGISTRYS_OWN:
        return Barred("reserved", f"“{label}” is held back for the registry itself.")
    return None
