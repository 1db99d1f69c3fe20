"""What each cell of a list of offers is, and what can be wrong with a line, in SQL."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from moneyed import CURRENCIES

from vinetag.core.market import COLUMNS, Column
from vinetag.lake.duck import literal

__all__ = ["SHOWN", "Fault", "cell_values", "faults_of"]

# A label, and an extension: one level, or two where the second is of two letters (co.uk).
FULL_NAME: Final = (
    r"[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?\.(xn--[a-z0-9-]{2,59}|[a-z]{2,63}|[a-z]{2,3}\.[a-z]{2})"
)
ZONED: Final = r"\d{4}-\d\d-\d\d[T ]\d\d:\d\d(:\d\d(\.\d{1,9})?)?\s?(Z|z|[+-]\d\d(:?\d\d)?)"
UNZONED: Final = r"\d{4}-\d\d-\d\d[T ]\d\d:\d\d(:\d\d(\.\d{1,9})?)?"
DAY: Final = r"\d{4}-\d\d-\d\d"
TYPES: Final = {
    "amount": "decimal(14, 3)", "whole": "integer", "moment": "timestamptz", "day": "date",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Fault:
    """Something that can be wrong with a line: `when` in SQL; `shows` the column; `fatal`: the line
    is left out.
    """

    code: str
    shows: str
    when: str
    fatal: bool = False


def cell_values(given: Collection[str]) -> list[str]:
    """The values of all columns but the name, those not `given` as NULL: `v_kind`, `drops_from`."""
    found = []
    for column in COLUMNS[1:]:
        kind = TYPES.get(column.kind, "varchar")
        value = _cell(column) if column.name in given else f"null::{kind}"
        if column.name != "drops":
            found.append(f"({value})::{kind} as v_{column.name}")
            continue
        day = "null::timestamptz"
        if column.name in given:
            day = (
                f"case when regexp_full_match(t_drops, {literal(DAY)}) "
                "then try_cast(t_drops as date)::timestamptz end"
            )
        found.append(f"coalesce({value}, {day})::{kind} as drops_from")
        found.append(f"coalesce({value}, {day} + interval 1 day)::{kind} as drops_to")
    return found


def _cell(column: Column) -> str:
    """The value of a cell in SQL, NULL where nothing stands or it is wrong."""
    text = f"t_{column.name}"
    whole = f"try_cast({text} as bigint)"
    by_kind: Mapping[str, str] = {
        "choice": f"case when lower({text}) in ({_listed(column.choices)}) then lower({text}) end",
        "amount": f"case when {_amount(text)} between 0 and 1e9 then {_amount(text)} end",
        "currency": f"upper({text})",
        "whole": f"case when {whole} between 0 and 2000000000 then {whole}::integer end",
        "moment": f"case when regexp_full_match({text}, {literal(ZONED)}) then "
        f"try_cast({text} as timestamptz) end",
        "day": f"try_cast(left({text}, 10) as date)",
        "text": f"left({text}, {column.most})",
    }
    return by_kind[column.kind]


def _amount(text: str) -> str:
    return f"try_cast({text} as decimal(14, 3))"


def _listed(texts: Sequence[str]) -> str:
    return ", ".join(map(literal, texts))


# The columns a fault can be told of.
SHOWN: Final = {
    "name", "kind", "price", "currency", "bids", "ends", "drops", "state", "first_registered",
    "times_registered", "links", "linking_sites", "archived", "used_for", "rank", "click_price",
}  # fmt: skip


def faults_of(given: Collection[str]) -> list[Fault]:
    """What can be wrong with a line that has these columns."""

    def there(column: str) -> str:
        return f"t_{column} is not null" if column in given else "false"

    def unzoned(column: str, missing: str, *, is_time: bool = True) -> str:
        """A cell that stands there without having a value: a time without a zone, or none."""
        if column not in given:
            return "false"
        found = f"regexp_full_match(t_{column}, {literal(UNZONED)})"
        wanted = found if is_time else f"not {found}"
        return f"case when {missing} and t_{column} is not null then {wanted} else false end"

    currencies = _listed(sorted(CURRENCIES))
    auction = "v_kind = 'auction'"
    found = [
        Fault(
            "feed_name", "name",
            f"not regexp_full_match(coalesce(whole_name, ''), {literal(FULL_NAME)}) or "
            "(whole_name like '__--%' and whole_name not like 'xn--%')",
            fatal=True,
        ),
        Fault("feed_kind", "kind", "v_kind is null", fatal=True),
        Fault("feed_unpriced", "price", "v_kind = 'fixed' and v_price is null", fatal=True),
        Fault(
            "feed_amount", "price",
            f"v_price is null and {there('price')} and v_kind is distinct from 'fixed'",
        ),
        Fault(
            "feed_currency", "currency",
            f"v_price is not null and coalesce(v_currency, '') not in ({currencies})", fatal=True,
        ),
        Fault(
            "feed_zone", "ends", unzoned("ends", f"{auction} and v_ends is null"), fatal=True
        ),
        Fault(
            "feed_no_end", "ends",
            f"{auction} and v_ends is null and (not {there('ends')} or "
            f"{unzoned('ends', 'v_ends is null', is_time=False)})", fatal=True,
        ),
        Fault("feed_ended", "ends", f"{auction} and v_ends <= now", fatal=True),
        Fault("feed_zone", "drops", unzoned("drops", "drops_from is null")),
        Fault("feed_moment", "drops", unzoned("drops", "drops_from is null", is_time=False)),
        Fault("feed_ended", "drops", "v_kind = 'dropping' and drops_to <= now", fatal=True),
    ]  # fmt: skip
    by_kind = {"whole": "feed_number", "day": "feed_day", "choice": "feed_choice"}
    found += [
        Fault(by_kind[c.kind], c.name, f"v_{c.name} is null and {there(c.name)}")
        for c in COLUMNS
        if c.kind in by_kind and c.name not in ("kind",)
    ]
    if "click_price" in given:
        found.append(
            Fault("feed_amount", "click_price", f"v_click_price is null and {there('click_price')}")
        )
    return [fault for fault in found if fault.shows in given or fault.fatal]
