"""What ordering adds: under which extensions a name is in the basket, and words."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

from vinetag.apps.accounts.joining import Joined, Shown
from vinetag.apps.naming.models import Project
from vinetag.apps.ordering.models import BasketItem

__all__ = ["JOINED"]


def show(project: Project, label: str) -> dict[str, Any]:
    """Whatever project of the person it was put in from."""
    mine = BasketItem.objects.filter(project__owner=project.owner_id, removed_at=None, label=label)
    return {"in_basket": sorted(mine.values_list("extension", flat=True))}


JOINED = Joined(
    shown=Shown(
        {
            "in_basket": serializers.ListField(
                child=serializers.CharField(), help_text="Extensions it is in the basket with"
            )
        },
        show,
    ),
    words={
        "coupon_code": "“{value}” is no coupon: letters, digits, dots, hyphens, pluses.",
        "host_name": "“{value}” is no name of a server, such as ns1.example.net.",
    },
)
