"""How a name that somebody holds can be had, what it was used for before, and its way out."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final, Literal, get_args

__all__ = [
    "LEAVINGS",
    "LEAVING_KINDS",
    "OFFER_KINDS",
    "OFFER_NAMES",
    "PAST_USES",
    "PAST_USE_NAMES",
    "Leaving",
    "LeavingKind",
    "OfferKind",
    "OfferName",
    "PastUse",
    "PastUseName",
]  # fmt: skip

OfferName = Literal["fixed", "asking", "auction", "dropping"]
OFFER_NAMES: Final[tuple[OfferName, ...]] = get_args(OfferName)
Leaving = Literal["expired", "redemption", "pending"]
LEAVINGS: Final[tuple[Leaving, ...]] = get_args(Leaving)
PastUseName = Literal[
    "site", "parked", "adult", "gambling", "shop_copy", "medicines", "harmful", "bulk_mail"
]
PAST_USE_NAMES: Final[tuple[PastUseName, ...]] = get_args(PastUseName)


@dataclass(frozen=True, slots=True)
class OfferKind:
    """`word`: as a person sees it; `means`: a sentence about it; `priced`: it has a price that
    buys it.
    """

    name: OfferName
    word: str
    means: str
    priced: bool = False


@dataclass(frozen=True, slots=True)
class LeavingKind:
    """A state on the way out, with what it `means`."""

    name: Leaving
    word: str
    means: str


@dataclass(frozen=True, slots=True)
class PastUse:
    """`risk`: it is told as one, in words, "" where it is none."""

    name: PastUseName
    word: str
    risk: str = ""


OFFER_KINDS: Final[Mapping[OfferName, OfferKind]] = {
    kind.name: kind
    for kind in (
        OfferKind("fixed", "for sale", "Its holder sells it at a price that stands.", True),
        OfferKind("asking", "offers heard", "Its holder wants to be made an offer."),
        OfferKind("auction", "auction", "Whoever bids most by its end has it."),
        OfferKind("dropping", "dropping", "Its holder lets it go; it may become open."),
    )
}
LEAVING_KINDS: Final[Mapping[Leaving, LeavingKind]] = {
    kind.name: kind
    for kind in (
        LeavingKind("expired", "run out", "It ran out, and its holder can still renew it."),
        LeavingKind(
            "redemption", "deleted", "It was deleted; its holder can buy it back at a high fee."
        ),
        LeavingKind("pending", "released soon", "Nobody can buy it back; it is about to go."),
    )
}
PAST_USES: Final[Mapping[PastUseName, PastUse]] = {
    use.name: use
    for use in (
        PastUse("site", "a site"),
        PastUse("parked", "no site of its own"),
        PastUse("adult", "adult content", "It had adult content: filters may still stop it."),
        PastUse("gambling", "gambling", "It was used for gambling: filters may still stop it."),
        PastUse(
            "shop_copy",
            "a copied shop",
            "It passed for somebody’s shop; people were cheated.",
        ),
        PastUse("medicines", "medicines by mail", "It sold medicines: searches may pass it over."),
        PastUse("harmful", "harmful software", "It spread harmful software: it may be on lists."),
        PastUse("bulk_mail", "unwanted mail", "It sent unwanted mail: its mail may be refused."),
    )
}
