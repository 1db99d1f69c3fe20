"""A plan as a file: payment by payment as CSV or XLSX, all of it as JSON."""

from __future__ import annotations

import json
from collections.abc import Iterator
from decimal import Decimal
from typing import Any, Final

from vinetag.apps.costs.documents import costs_document
from vinetag.apps.costs.planning import CostQuestion, Costs
from vinetag.core.cost import Line, Order
from vinetag.core.money import neat
from vinetag.core.spreadsheet import FORMS, Cell, as_csv, as_xlsx

__all__ = ["exported_plan"]

COLUMNS: Final = (
    "full name", "use", "pay on", "action", "seller", "years", "paid until", "what for", "amount",
    "currency", "why", "in the plan's currency", "plan's currency", "prices of",
)  # fmt: skip


def exported_plan(costs: Costs, question: CostQuestion, form: str) -> tuple[bytes, str]:
    """The file and its content type; `form` is a key of FORMS."""
    if form == "json":
        document = {
            **costs_document(costs, question),
            "worked_out_on": costs.market.today,
            "buyer": {
                "country": question.country,
                "business": bool(question.vat.strip()),
                "privacy": question.privacy,
            },
            "prices_of": {code: one.dated for code, one in costs.market.prices.items()},
        }
        text = json.dumps(document, ensure_ascii=False, indent=1, default=str)
        return text.encode(), FORMS[form]
    write = as_csv if form == "csv" else as_xlsx
    return write(COLUMNS, _rows(costs, question)), FORMS[form]


def _rows(costs: Costs, question: CostQuestion) -> Iterator[list[Cell]]:
    """The orders of the first day, which names share; then each name's later payments."""
    for order in costs.plan.orders.values():
        until = {name: way.steps[0].until.isoformat() for name, way in costs.plan.ways.items()}
        for line in order.lines:
            yield _row(costs, question, order, line, "register", until.get(line.full_name))
    for full_name, way in costs.plan.ways.items():
        for step in way.steps[1:]:
            for line in step.priced.order.lines:
                row = _row(
                    costs, question, step.priced.order, line, step.action,
                    step.until.isoformat(), full_name,
                )  # fmt: skip
                row[2], row[5] = step.on.isoformat(), step.years
                yield row
    for full_name in costs.plan.nowhere:
        yield [full_name, *[None] * 6, "no seller offers it", *[None] * 6]


def _row(
    costs: Costs,
    question: CostQuestion,
    order: Order,
    line: Line,
    action: str,
    until: str | None,
    full_name: str = "",
) -> list[Cell]:
    market = costs.market
    name = full_name or line.full_name
    used = {str(one.name) for one in costs.names if question.is_used(one.name)}
    currency = str(order.total.currency.code)
    money = order.total.__class__(line.amount, currency)
    converted = market.rates.convert(money, market.currency, market.today).money.amount
    why = ", ".join(f"{key} {value}" for key, value in line.args.items() if value is not None)
    return [
        name or "all of the order",
        "" if not name else "used" if name in used else "held",
        order.on.isoformat(),
        action,
        market.sellers[order.seller].name,
        _years(line.args.get("years")),
        until,
        line.kind.replace("_", " "),
        neat(line.amount),
        currency,
        f"{line.reason.replace('_', ' ')}{': ' if why else ''}{why}",
        neat(converted.quantize(Decimal("0.01"), "ROUND_HALF_UP")),
        market.currency,
        market.prices[order.seller].dated.isoformat(),
    ]


def _years(years: Any) -> int | None:
    return None if years is None else int(years)
