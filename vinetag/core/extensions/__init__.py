"""Extensions: which there are, what they are used for, and who may register under them."""

from vinetag.core.extensions.catalogue import (
    COLUMNS,
    KINDS,
    WORKS,
    Catalogue,
    Entry,
    read_catalogue,
    shipped_catalogue,
    write_catalogue,
)
from vinetag.core.extensions.eligibility import COUNTRIES, OWNER_KINDS, RULES, Eligible, eligible
from vinetag.core.extensions.known import known_extensions, parse_extension
from vinetag.core.extensions.proposal import Costing, Means, Proposed, propose
from vinetag.core.extensions.rules import Barred, barred

__all__ = [
    "COLUMNS", "COUNTRIES", "KINDS", "OWNER_KINDS", "RULES", "WORKS", "Barred", "Catalogue",
    "Costing", "Eligible", "Entry", "Means", "Proposed", "barred", "eligible", "known_extensions",
    "parse_extension", "propose", "read_catalogue", "shipped_catalogue", "write_catalogue",
]  # fmt: skip
