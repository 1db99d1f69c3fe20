"""Costs as the API tells them: thousandths become amounts."""

from __future__ import annotations

from decimal import Decimal
from typing import Any

from vinetag.apps.costs.planning import Costed, CostQuestion, Costs
from vinetag.core.cost import Order, Way, Wish

__all__ = ["costs_document"]


def costs_document(costs: Costs, question: CostQuestion) -> dict[str, Any]:
    """As CostsSerializer wants it."""
    return {
        "currency": costs.market.currency,
        "years": question.years,
        "names": [_costed(costs, one, question.years) for one in costs.names],
        "plan": {
            "total": _amount(costs.plan.total),
            "weight": _amount(costs.plan.weight),
            "bound": _amount(costs.plan.bound),
            "orders": [_order(order) for order in costs.plan.orders.values()],
            "nowhere": costs.plan.nowhere,
        },
        "rates_of": costs.rates_of,
    }


def _costed(costs: Costs, one: Costed, years: int) -> dict[str, Any]:
    sellers = []
    for code, holding in one.holdings.items():
        ticked = one.ticked[code]
        sellers.append(
            {
                "seller": code,
                "total": holding and _amount(holding.total),
                "a_year": holding and _amount(holding.total // years),
                "first": holding and _amount(holding.first),
                "dearest": holding and _amount(holding.dearest),
                "ticked": ticked and _amount(ticked.total),
                "extras": [
                    {
                        "name": extra.extra.name,
                        "about": extra.extra.about,
                        "needed": extra.extra.needed,
                        "total": _amount(extra.total),
                    }
                    for extra in (ticked.extras if ticked else ())
                ],
            }
        )
    wish = Wish(one.name.extension, years, costs.market.today)
    full_name = f"{one.name.label}.{one.name.extension}"
    cheapest = one.cheapest and _way(one.cheapest, wish, full_name)
    return {"full_name": full_name, "sellers": sellers, "cheapest": cheapest}


def _way(way: Way, wish: Wish, full_name: str) -> dict[str, Any]:
    return {
        "total": _amount(way.total),
        "by_year": [_amount(paid) for paid in way.by_year(wish)],
        "steps": [
            {
                "on": step.on,
                "action": step.action,
                "seller": step.seller,
                "years": step.years,
                "until": step.until,
                "amount": _amount(step.priced.amount),
                "order": _order(step.priced.order, full_name),
            }
            for step in way.steps
        ],
    }


def _order(order: Order, full_name: str = "") -> dict[str, Any]:
    """An order; one kept for every name of an extension is told for `full_name`."""
    return {
        "seller": order.seller,
        "currency": str(order.total.currency.code),
        "lines": [
            {
                "kind": line.kind,
                "full_name": (full_name or line.full_name) if line.full_name else "",
                "amount": str(line.amount),
                "reason": line.reason,
                "args": {key: None if v is None else str(v) for key, v in line.args.items()},
            }
            for line in order.lines
        ],
        "subtotal": str(order.subtotal.amount),
        "total": str(order.total.amount),
        "tax_known": order.tax.rate is not None,
    }


def _amount(thousandths: int) -> str:
    """Two decimal places, half up."""
    return str((Decimal(thousandths) / 1000).quantize(Decimal("0.01"), "ROUND_HALF_UP"))
