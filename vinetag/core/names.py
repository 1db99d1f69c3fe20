"""Labels, extensions and full names, by the rules of the DNS.

Rules: RFC 1035 section 2.3.4 (1 to 63 octets), RFC 5890 (LDH labels), RFC 5891 section 4.2.3
(no hyphens in the third and fourth place unless an A-label), UTS 46 for typed input.
"""

from __future__ import annotations

import unicodedata
from typing import NamedTuple

import idna

from vinetag.core.errors import LabelError, Problem

__all__ = [
    "LDH", "FullName", "folded", "is_ldh_label", "parse_label", "plain_words", "unicode_label",
]  # fmt: skip

LDH = frozenset("abcdefghijklmnopqrstuvwxyz0123456789-")


class FullName(NamedTuple):
    """A label with an extension: `inkpost` and `co.nz` make `inkpost.co.nz`."""

    label: str
    extension: str

    def __str__(self) -> str:
        return f"{self.label}.{self.extension}"

    @property
    def shown(self) -> str:
        """As a person writes it."""
        return f"{unicode_label(self.label)}.{self.extension}"


def is_ldh_label(text: str) -> bool:
    """Whether `text` is a lower-case letter-digit-hyphen label that can be registered.

    The quick test used on every candidate; it accepts no A-labels (`xn--…`).
    """
    return (
        0 < len(text) <= 63
        and text[0] != "-"
        and text[-1] != "-"
        and text[2:4] != "--"
        and LDH.issuperset(text)
    )


def parse_label(text: str) -> str:
    """Read a typed name into its ASCII label (an A-label when it has other letters).

    Raises LabelError, saying which character or rule is at fault.
    """
    typed = text.strip()
    if not typed:
        raise LabelError(Problem("label", "label_blank"))
    lowered = typed.lower()
    if is_ldh_label(lowered):
        return lowered
    if lowered.isascii():
        _refuse_ascii(lowered)
    try:
        mapped = idna.uts46_remap(typed, std3_rules=True, transitional=False)
        ascii_label = idna.alabel(mapped).decode("ascii")
    except (idna.IDNAError, UnicodeError) as error:
        detail = str(error)[:120]
        raise LabelError(
            Problem("label", "label_idna", {"value": typed[:40], "detail": detail})
        ) from error
    return ascii_label


def _refuse_ascii(label: str) -> None:
    """Raise for every ASCII text that is no LDH label; let a valid A-label pass."""
    if len(label) > 63:
        raise LabelError(Problem("label", "label_long", {"length": len(label)}))
    for character in label:
        if character not in LDH:
            raise LabelError(Problem("label", "label_character", {"character": character}))
    if label[0] == "-" or label[-1] == "-":
        raise LabelError(Problem("label", "label_edge_hyphen"))
    if not label.startswith("xn--"):
        raise LabelError(Problem("label", "label_reserved_hyphens"))


def unicode_label(label: str) -> str:
    """The label as a person writes it; the A-label itself where it cannot be decoded."""
    if not label.startswith("xn--"):
        return label
    try:
        return idna.ulabel(label)
    except (idna.IDNAError, UnicodeError):
        return label


# Letters that are no plain letter with a mark, as they are typed where they cannot be had.
_TYPED_AS = str.maketrans(
    {
        "ß": "ss", "æ": "ae", "œ": "oe", "ø": "o", "ł": "l", "đ": "d", "ð": "d", "þ": "th",
        "ı": "i", "ħ": "h", "ŋ": "n", "’": "'", "‘": "'", "–": "-", "—": "-",
    }
)  # fmt: skip


def folded(text: str) -> str:
    """The text in lower case with its accents taken off, as names are typed: Dún Laoghaire is dun
    laoghaire. Letters of other scripts stay.
    """
    plain = unicodedata.normalize("NFKD", text.lower().translate(_TYPED_AS))
    return unicodedata.normalize("NFC", "".join(c for c in plain if not unicodedata.combining(c)))


def plain_words(name: str) -> list[str]:
    """The name's words in a to z and digits; none when a character has no plain form."""
    text = folded(name.replace("&", " and ")).replace("'", "")
    kept = "".join(c if c.isascii() and c.isalnum() else " " if c.isascii() else "?" for c in text)
    return [] if "?" in kept else kept.split()
