"""Looking at a name from outside: who hears, sees, reads or owns something like it."""

from vinetag.core.vet.autocorrect import Correction, correction
from vinetag.core.vet.findings import Finding, advice_of, in_words
from vinetag.core.vet.handles import (
    Asked,
    HandleForm,
    handle_finding,
    handle_forms,
    handles_foreign,
    profile_says,
)
from vinetag.core.vet.landing import held_finding, land_of, mistyped_finding, protection
from vinetag.core.vet.mistypes import MISTYPE_KINDS, Mistype, Shares, elsewhere, mistypes
from vinetag.core.vet.platforms import Platform, read_platforms, shipped_platforms, write_platforms
from vinetag.core.vet.prior import SearchAnswer, prior_findings, searches
from vinetag.core.vet.protect import Chosen, Offer, Point, choose, curve
from vinetag.core.vet.said import Presented, presented, said_findings
from vinetag.core.vet.tongues import abroad_findings
from vinetag.core.vet.typed_extensions import typed_extensions

__all__ = [
    "MISTYPE_KINDS", "Asked", "Chosen", "Correction", "Finding", "HandleForm", "Mistype", "Offer",
    "Platform", "Point", "Presented", "SearchAnswer", "Shares", "abroad_findings", "advice_of",
    "choose", "correction", "curve", "elsewhere", "handle_finding", "handle_forms",
    "handles_foreign", "held_finding",
    "in_words", "land_of", "mistyped_finding", "mistypes", "presented", "prior_findings",
    "profile_says", "protection", "read_platforms", "said_findings", "searches",
    "shipped_platforms", "typed_extensions", "write_platforms",
]  # fmt: skip
