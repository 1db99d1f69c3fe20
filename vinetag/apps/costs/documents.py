"""Costs as the API and files tell them: thousandths become amounts."""

from __future__ import annotations

from datetime import date
from decimal import Decimal
from typing import Any

from vinetag.apps.costs.buying import buying_document, one_document
from vinetag.apps.costs.coupons import OfferedCoupon
from vinetag.apps.costs.planning import Costed, CostQuestion, Costs
from vinetag.core.cost import Bundle, Market, Odds, Order, Way, Wish, paid_by_year

__all__ = ["costs_document", "odds_document"]


def costs_document(costs: Costs, question: CostQuestion) -> dict[str, Any]:
    """As CostsSerializer wants it."""
    market, affordable = costs.market, costs.affordable
    used = {code for order in costs.plan.orders.values() for code in _coupons_of(order)}
    return {
        "currency": market.currency,
        "years": question.years,
        "names": [_costed(costs, one, question) for one in costs.names],
        "plan": _plan(market, costs.plan),
        "paid": _paid(costs, question),
        "affordable": affordable
        and {
            "plan": _plan(market, affordable.plan),
            "left_out": affordable.left_out,
            "kept": affordable.kept,
        },
        "coupons": [_coupon(one, used, market.today) for one in costs.coupons],
        "quotes": {
            "waiting": len(costs.quotes.waiting),
            "unknown": costs.quotes.unknown,
            "oldest": costs.quotes.oldest,
        },
        "rates_of": costs.rates_of,
        "buying": buying_document(costs.buying) if costs.buying else None,
    }


def _paid(costs: Costs, question: CostQuestion) -> list[dict[str, Any]]:
    """What has been paid by the end of each year: for the plan ("" as its seller), and staying with
    each seller that has all of the names the plan has, name by name.
    """
    market = costs.market
    wish = Wish("", question.years, market.today)
    found = {"": paid_by_year(market, costs.plan, wish)}
    planned = [one for one in costs.names if str(one.name) not in costs.plan.nowhere]
    for code in planned[0].ways if planned else ():
        ways = [one.ways[code] for one in planned]
        if all(way is not None for way in ways):
            years = [way.by_year(wish) for way in ways if way is not None]
            found[code] = [sum(of_year) for of_year in zip(*years, strict=True)]
    return [
        {"seller": code, "amounts": [_amount(sum(paid[: n + 1])) for n in range(len(paid))]}
        for code, paid in found.items()
    ]


def _plan(market: Market, plan: Bundle) -> dict[str, Any]:
    return {
        "total": _amount(plan.total),
        "weight": _amount(plan.weight),
        "bound": _amount(plan.bound),
        "orders": [
            {
                **_order(order),
                "paid": _amount(market.amount(order)),
                "paid_in": _amount(market.paid_in(order)),
            }
            for order in plan.orders.values()
        ],
        "nowhere": plan.nowhere,
    }


def _costed(costs: Costs, one: Costed, question: CostQuestion) -> dict[str, Any]:
    years = question.years
    wish = Wish(one.name.extension, years, costs.market.today)
    sellers = []
    for code, holding in one.holdings.items():
        ticked, way = one.ticked[code], one.ways[code]
        quoted = one.quotes.quoted.get(code)
        sellers.append(
            {
                "seller": code,
                "total": holding and _amount(holding.total),
                "a_year": holding and _amount(holding.total // years),
                "first": holding and _amount(holding.first),
                "dearest": holding and _amount(holding.dearest),
                "by_year": [_amount(paid) for paid in way.by_year(wish)] if way else [],
                "quoted": "" if quoted is None else "premium" if quoted.premium else "usual",
                "unsold": code in one.quotes.without,
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
    full_name = str(one.name)
    return {
        "full_name": full_name,
        "used": question.is_used(one.name),
        "sellers": sellers,
        "cheapest": one.cheapest and _way(one.cheapest, wish, full_name),
        "buying": one_document(buying) if (buying := costs.buying.get(one.name)) else None,
    }


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


def _coupons_of(order: Order) -> list[tuple[str, str]]:
    return [(order.seller, str(line.args["code"])) for line in order.lines if line.kind == "coupon"]


def _coupon(one: OfferedCoupon, used: set[tuple[str, str]], today: date) -> dict[str, Any]:
    coupon = one.coupon
    return {
        "seller": coupon.seller,
        "code": coupon.code,
        "takes": coupon.kind,
        "value": str(coupon.value),
        "extensions": sorted(coupon.extensions),
        "actions": sorted(coupon.actions),
        "years_from": coupon.years_from,
        "years_to": coupon.years_to,
        "least_names": coupon.least_names,
        "least_sum": str(coupon.least_sum),
        "new_customers": coupon.new_customers,
        "combines": coupon.combines,
        "on_promotions": coupon.on_promotions,
        "starts": None if coupon.starts <= today else coupon.starts,
        "ends": None if coupon.ends == date.max else coupon.ends,
        "odds": odds_document(one.odds),
        "saving": _amount(one.saving),
        "expected": _amount(one.expected),
        "in_plan": (coupon.seller, coupon.code) in used,
        "reported": one.reported,
        "held": one.held,
    }


def odds_document(odds: Odds) -> dict[str, Any]:
    """Shares of 1, and how many reports they rest on."""
    return {
        "mean": round(odds.mean, 3),
        "low": round(odds.low, 3),
        "high": round(odds.high, 3),
        "reports": odds.reports,
    }


def _amount(thousandths: int) -> str:
    """Two decimal places, half up."""
    return str((Decimal(thousandths) / 1000).quantize(Decimal("0.01"), "ROUND_HALF_UP"))
