"""What markets add: what they tell of a name, and words for what can be wrong with their lists."""

from __future__ import annotations

from typing import Any

from vinetag.apps.accounts.joining import Joined, Shown
from vinetag.apps.market.api.serializers import (
    MarketOfferSerializer,
    OfferChangeSerializer,
    offer_document,
)
from vinetag.apps.market.offers import history_of, market_names, offers_of_label
from vinetag.apps.naming.models import Project

__all__ = ["JOINED"]


def show(_project: Project, label: str) -> dict[str, Any]:
    """What markets tell of a name under any extension, and how that changed."""
    offers, names = offers_of_label(label), market_names()
    return {
        "offers": [offer_document(offer, names) for offer in offers],
        "offer_changes": history_of(label),
    }


JOINED = Joined(
    shown=Shown(
        {
            "offers": MarketOfferSerializer(many=True, help_text="What markets tell of it"),
            "offer_changes": OfferChangeSerializer(many=True, help_text="The latest first"),
        },
        show,
    ),
    words={
        "market_code": "“{value}” is no short name: lower-case letters, digits and hyphens.",
        "feed_given_up": "It could not be read in three tries.",
    },
)
