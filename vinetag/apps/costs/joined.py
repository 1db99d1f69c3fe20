"""What costs add: the prices of a name's page, and words."""

from __future__ import annotations

from typing import Any

from vinetag.apps.accounts.joining import Joined, Shown
from vinetag.apps.availability.progress import cells_of
from vinetag.apps.costs.api.name_costs import CostsOfNameSerializer
from vinetag.apps.costs.listing import costs_document, prices_of
from vinetag.apps.costs.quoting import told_of
from vinetag.apps.naming.models import Project
from vinetag.core.names import FullName

__all__ = ["JOINED"]


def _shown(project: Project, label: str) -> dict[str, Any]:
    """What the name costs under each extension of the brief, and under others sellers were asked
    about.
    """
    own = project.brief["extensions"]
    prices = prices_of(project)
    told = told_of(label, project.owner, prices.worth)
    if others := [e for e in told if e not in own]:
        prices = prices_of(project, others)
    extensions = [*own, *others]
    cells = cells_of(project, [FullName(label, e) for e in extensions]).get(label, [])
    rows = [{"extension": e, **costs_document(prices, cells, [e], told)} for e in extensions]
    return {
        "costs": {
            "taxed": bool(project.brief["owner"]["country"]),
            "least": costs_document(prices, cells, own, told),
            "extensions": rows,
        }
    }


JOINED = Joined(
    shown=Shown({"costs": CostsOfNameSerializer()}, _shown),
    words={
        "full_name_needed": "“{value}” has no extension: write it like {value}.com.",
        "not_among": "“{value}” is not among the names.",
        "rate_missing": "There is no exchange rate of {value}.",
        "seller_unknown": "There is no seller “{value}”.",
    },
)
