"""Coupons as files: CSV described by a Table Schema (specs.frictionlessdata.io/table-schema)."""

from __future__ import annotations

import csv
import io
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from typing import Any, Final, cast, get_args

from vinetag.core.cells import Cells, read_table
from vinetag.core.cost.coupons import Coupon, CouponKind
from vinetag.core.cost.prices import ACTIONS, Action
from vinetag.core.cost.sellers import LONGEST_AHEAD
from vinetag.core.errors import Problem, add_words
from vinetag.core.money import neat
from vinetag.core.spreadsheet import safe_cell

__all__ = ["MOST_COUPONS", "ReadCoupons", "coupons_schema", "read_coupons", "write_coupons"]

MOST_COUPONS: Final = 2_000
MOST_NAMES: Final = 10_000
LONGEST_CODE: Final = 40

add_words(
    {
        "coupon_percent": "No more than 100 percent can be taken off.",
        "coupon_again": "“{code}” stands on line {line}, too.",
    }
)

_FIELDS: Final[Sequence[Mapping[str, Any]]] = (
    {
        "name": "code",
        "type": "string",
        "constraints": {"required": True, "maxLength": LONGEST_CODE},
    },
    {
        "name": "takes",
        "type": "string",
        "description": "A share of the order, an amount off it, or a price for each first year",
        "constraints": {"required": True, "enum": list(get_args(CouponKind))},
    },
    {"name": "value", "type": "number", "constraints": {"required": True, "minimum": 0}},
    {
        "name": "extensions",
        "type": "string",
        "description": "With spaces between; empty for every one",
    },
    {
        "name": "actions",
        "type": "string",
        "description": "With spaces between; register where it is empty",
    },
    *(
        {
            "name": name,
            "type": "integer",
            "constraints": {"minimum": 1, "maximum": LONGEST_AHEAD},
        }
        for name in ("years_from", "years_to")
    ),
    {"name": "least_names", "type": "integer", "constraints": {"minimum": 1}},
    {"name": "least_sum", "type": "number", "description": "Before tax"},
    *(
        {"name": name, "type": "boolean", "trueValues": ["yes"], "falseValues": ["no"]}
        for name in ("new_customers", "combines", "on_promotions")
    ),
    {"name": "starts", "type": "date"},
    {"name": "ends", "type": "date"},
)
COLUMNS: Final = tuple(str(field["name"]) for field in _FIELDS)
NEEDED: Final = ("code", "takes", "value")


def coupons_schema() -> dict[str, Any]:
    """The Table Schema of a file of coupons."""
    return {
        "$schema": "https://datapackage.org/profiles/2.0/tableschema.json",
        "title": "Coupons of a seller",
        "fields": list(_FIELDS),
        "missingValues": [""],
    }


@dataclass(frozen=True, slots=True)
class ReadCoupons:
    """The coupons that could be read, and what was wrong with the others, each at its line."""

    coupons: tuple[Coupon, ...]
    problems: tuple[Problem, ...]


def read_coupons(text: str, seller: str, known: Collection[str]) -> ReadCoupons:
    """Read a seller's coupons; `known` are the extensions there are. Nothing is raised."""
    table = read_table(text, COLUMNS, NEEDED, MOST_COUPONS)
    found: dict[str, tuple[int, Coupon]] = {}
    for cells in table.lines:
        coupon = _coupon(cells, seller, known)
        if coupon is None:
            continue
        if coupon.code in found:
            args = {"code": coupon.code, "line": found[coupon.code][0]}
            cells.problem("code", "coupon_again", args)
        else:
            found[coupon.code] = cells.line, coupon
    return ReadCoupons(tuple(coupon for _, coupon in found.values()), tuple(table.problems))


def write_coupons(coupons: Iterable[Coupon]) -> str:
    """As CSV, which read_coupons reads back."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    for c in coupons:
        yes = ("yes" if flag else "" for flag in (c.new_customers, c.combines, c.on_promotions))
        cells = (
            c.code, c.kind, neat(c.value), " ".join(sorted(c.extensions)),
            " ".join(sorted(c.actions)), c.years_from, c.years_to, c.least_names,
            neat(c.least_sum), *yes, "" if c.starts == date.min else c.starts.isoformat(),
            "" if c.ends == date.max else c.ends.isoformat(),
        )  # fmt: skip
        writer.writerow([safe_cell(str(cell)) for cell in cells])
    return out.getvalue()


def _coupon(cells: Cells, seller: str, known: Collection[str]) -> Coupon | None:
    code = cells.text("code")
    if not code:
        cells.problem("code", "blank", {})
    if len(code) > LONGEST_CODE:
        cells.problem("code", "too_long", {"limit": LONGEST_CODE, "length": len(code)})
    kind = cast(CouponKind, cells.choice("takes", get_args(CouponKind), ""))
    value = cells.amount("value")
    if not cells.text("value"):
        cells.problem("value", "blank", {})
    if kind == "percent" and value is not None and value > 100:
        cells.problem("value", "coupon_percent", {})
    extensions = [e.removeprefix(".") for e in cells.text("extensions").lower().split()]
    for extension in extensions:
        if extension not in known:
            cells.problem("extensions", "extension_unknown", {"value": extension[:40]})
    actions = cells.text("actions").lower().split() or ["register"]
    for action in actions:
        if action not in ACTIONS:
            args = {"value": action[:40], "choices": ", ".join(ACTIONS)}
            cells.problem("actions", "unknown_choice", args)
    low = cells.whole("years_from", 1, LONGEST_AHEAD) or 1
    high = cells.whole("years_to", 1, LONGEST_AHEAD) or LONGEST_AHEAD
    if high < low:
        cells.problem("years_to", "list_years", {"low": low, "high": high})
    starts, ends = cells.days("starts", "ends")
    coupon = Coupon(
        code=code,
        seller=seller,
        kind=kind,
        value=value or Decimal(0),
        extensions=frozenset(extensions),
        actions=frozenset(cast("list[Action]", actions)),
        years_from=low,
        years_to=high,
        least_names=cells.whole("least_names", 1, MOST_NAMES) or 1,
        least_sum=cells.amount("least_sum") or Decimal(0),
        new_customers=cells.yes("new_customers"),
        combines=cells.yes("combines"),
        on_promotions=cells.yes("on_promotions"),
        starts=starts,
        ends=ends,
    )
    return coupon if cells.are_good else None
