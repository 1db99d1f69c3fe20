"""One list of a market as Parquet, beside the one before: what is new, what changed, what is gone.

Files stand at <folder>/<market>/<edition>.parquet; whoever keeps the edition in force publishes it.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from typing import Final

from vinetag.core.market import COLUMNS
from vinetag.lake.duck import Duck, first_row, literal
from vinetag.lake.splitting import add_splits

__all__ = [
    "ROW_COLUMNS", "Edition", "edition_file", "forget_others", "tell_differences", "write_edition",
]  # fmt: skip

# As rows are loaded into the database: names, what a list tells, since when it is gone.
ROW_COLUMNS: Final = (
    "label", "extension",
    *(c.name for c in COLUMNS[1:] if c.name != "drops"),
    "drops_from", "drops_to",
)  # fmt: skip
NULL: Final = r"\N"
# A figure of a name's past counts in full from here on, on a scale of logarithms; its age in years.
FULL: Final = {"links": 10_000, "linking_sites": 1_000, "archived": 1_000}
FULL_AGE: Final = 20


@dataclass(frozen=True, slots=True)
class Edition:
    """A list that was written: the files of rows that are new or otherwise than before (tabs
    between cells) and of changes worth keeping, and how many of each there are.
    """

    rows: Path
    changes: Path
    names: int
    new: int
    changed: int
    gone: int


def edition_file(folder: Path, market: str, edition: str) -> Path:
    """Where an edition stands."""
    return folder / market / f"{edition}.parquet"


def forget_others(folder: Path, market: str, kept: set[str]) -> None:
    """Take away editions that are not in force, and what was left half-made."""
    for file in (folder / market).glob("*"):
        if file.name.removesuffix(".parquet") not in kept:
            file.unlink(missing_ok=True)


def tell_differences(duck: Duck, before: Path | None, work: Path, now: datetime) -> Edition:
    """Tell the table `listed` from the edition `before`."""
    there = _if_there(before)
    was = f"read_parquet({literal(str(there))})" if there else "(select * from listed where false)"
    rows, changes = work / "rows.tsv", work / "changes.tsv"
    duck.execute(_diff(was, there is not None))
    new, changed, gone = first_row(
        duck,
        "select count(*) filter (how = 'new'), count(*) filter (how = 'changed'), "
        "count(*) filter (how = 'gone') from differing",
    )
    cells = ", ".join(_cell(name) for name in ROW_COLUMNS)
    duck.execute(
        f"copy (select {cells}, case when how = 'gone' then {_moment('$now::timestamptz')} end "
        f"from differing) to {literal(str(rows))} {_TSV}",
        {"now": now},
    )
    duck.execute(f"copy ({_CHANGES}) to {literal(str(changes))} {_TSV}")
    (names,) = first_row(duck, "select count(*) from listed")
    duck.execute(f"create or replace table fresh as {_FRESH}")
    duck.execute("drop table differing")
    return Edition(rows, changes, names, new, changed, gone)


def write_edition(duck: Duck, target: Path, before: Path | None, now: datetime) -> None:
    """Write the table `listed` as `target`, with the words of its labels by the table `words`;
    those of labels the edition `before` had are taken from there, and since when each name is
    listed as it is, at most so dear.
    """
    since, joined = "$now::timestamptz", ""
    if there := _if_there(before):
        duck.execute(
            "create or replace table known as select distinct label, w1, w2, w3 from "
            f"read_parquet({literal(str(there))}) semi join listed using (label)"
        )
        add_splits(duck, "select label from listed anti join known using (label)")
        duck.execute("insert into splits select label, w1, w2, w3 from known where w1 is not null")
        since, joined = _since(duck, there)
    else:
        add_splits(duck, "select label from listed")
    target.parent.mkdir(parents=True, exist_ok=True)
    half = target.with_suffix(".half")
    duck.execute(
        f"copy (select listed.*, w1, w2, w3, {_figures()}, {since} as since from listed "
        f"left join splits using (label) {joined}) to {literal(str(half))} "
        "(format parquet, compression zstd)",
        {"now": now},
    )
    half.rename(target)


def _since(duck: Duck, there: Path) -> tuple[str, str]:
    """Since when a name is listed as it is, and the joins that tell it: those that are fresh since
    now, others since when the edition before says. Names are joined by their hashes, which are
    small; of an edition of an earlier version it is not known.
    """
    told = "since" if "since" in _columns(duck, there) else "null::timestamptz"
    had = f"select {_HASH} as h, {told} as since from read_parquet({literal(str(there))})"
    joined = (
        f"left join (select {_HASH} as h, true as fresh from fresh) f on f.h = {_HASH_LISTED} "
        f"left join ({had}) had on had.h = {_HASH_LISTED}"
    )
    return "case when f.fresh then $now::timestamptz else had.since end", joined


def _columns(duck: Duck, file: Path) -> set[str]:
    rows = duck.execute(f"describe select * from read_parquet({literal(str(file))})").fetchall()
    return {str(row[0]) for row in rows}


def _if_there(file: Path | None) -> Path | None:
    return file if file is not None and file.exists() else None


_TSV: Final = f"(header false, delim '\t', nullstr {literal(NULL)}, quote '', escape '')"


def _figures() -> str:
    """What the hunt goes by: letters, words, and what is told of the past, from 0 to 1."""
    figures = [
        f"case when {column} is not null then least(1, log10(1 + {column}) / "
        f"{math.log10(1 + full):.4f}) end"
        for column, full in FULL.items()
    ]
    days = "date_diff('day', first_registered, $now::date)"
    age = f"least(1, greatest(0, {days} / {365.25 * FULL_AGE}))"
    figures.append(f"case when first_registered is not null then {age} end")
    told = f"list_filter([{', '.join(figures)}], lambda x: x is not null)"
    return f"""length(replace(label, '-', ''))::utinyint as letters,
    (case when w1 is not null then 1 + (w2 is not null)::int + (w3 is not null)::int end)::utinyint
    as words, list_avg({told})::float as past"""


def _moment(value: str) -> str:
    return f"strftime({value}, '%Y-%m-%d %H:%M:%S')"


def _cell(name: str) -> str:
    """A cell as the database reads it from a file: no tabs, line ends or backslashes in texts."""
    kind = {"drops_from": "moment", "drops_to": "moment", "label": "name", "extension": "name"}.get(
        name
    ) or next(c.kind for c in COLUMNS if c.name == name)
    if kind == "moment":
        return _moment(name)
    if kind in ("text", "choice", "currency"):
        return f"coalesce(regexp_replace({name}, '[\\x00-\\x1f\\\\]', ' ', 'g'), '')"
    return name


def _diff(was: str, had: bool) -> str:
    """The table `differing`: rows that are new, changed or gone, with what they were (`was_…`)."""
    told = [name for name in ROW_COLUMNS if name not in ("label", "extension")]
    if not had:
        nulls = ", ".join(f"null::{kind} as was_{name}" for name, kind in _WAS.items())
        return f"create or replace table differing as select *, 'new' as how, {nulls} from listed"
    kept = ", ".join(f"coalesce(n.{name}, o.{name}) as {name}" for name in ("label", "extension"))
    value = ", ".join(
        f"case when n.label is null then o.{name} else n.{name} end as {name}" for name in told
    )
    before = ", ".join(f"o.{name} as was_{name}" for name in _WAS)
    unlike = " or ".join(f"n.{name} is distinct from o.{name}" for name in told)
    return f"""create or replace table differing as
    select {kept}, {value}, {before},
      case when o.label is null then 'new' when n.label is null then 'gone' else 'changed' end
      as how
    from listed n full join {was} o on n.label = o.label and n.extension = o.extension
    where o.label is null or n.label is null or {unlike}"""


_WAS: Final = {
    "kind": "varchar", "price": "decimal(14, 3)", "currency": "varchar", "ends": "timestamptz",
    "drops_from": "timestamptz",
}  # fmt: skip


def _changes() -> str:
    """What of a change is worth keeping, a line each: names, what, before and after as texts."""
    price = "printf('%.3f', {0}price) || ' ' || {0}currency"
    moment = "strftime({0}, '%Y-%m-%dT%H:%M:%SZ')"
    kinds = {
        "kind": ("was_kind <> kind", "was_kind", "kind"),
        # What is bid in an auction rises by itself; its end tells more.
        "price": (
            "kind <> 'auction' and was_kind = kind and (was_price is distinct from price or "
            "was_currency is distinct from currency)",
            price.format("was_"),
            price.format(""),
        ),
        "extended": (
            "kind = 'auction' and was_kind = kind and was_ends is distinct from ends",
            moment.format("was_ends"),
            moment.format("ends"),
        ),
        "drops": (
            "was_kind = kind and was_drops_from is distinct from drops_from",
            moment.format("was_drops_from"),
            moment.format("drops_from"),
        ),
    }
    parts = [
        f"select label, extension, '{what}' as what, coalesce({old}, '') as o, "
        f"coalesce({new}, '') as n from differing where how = 'changed' and {when}"
        for what, (when, old, new) in kinds.items()
    ]
    gone = (
        f"select label, extension, 'gone', coalesce({price.format('was_')}, ''), '' from differing"
    )
    return " union all ".join([*parts, f"{gone} where how = 'gone'"])


_CHANGES: Final = _changes()
# What a search that is watched tells of: names that are new, offered in another way, or for less.
_FRESH: Final = """select label, extension from differing where how = 'new'
    or (how = 'changed' and (was_kind is distinct from kind
        or (kind <> 'auction' and price < was_price and was_currency = currency)))"""
_HASH: Final = "hash(label, extension)"
_HASH_LISTED: Final = "hash(listed.label, listed.extension)"
