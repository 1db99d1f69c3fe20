"""Zone files (master files, RFC 1035 section 5) as snapshots: the delegated names of an extension
on a day, as Parquet, one partition an extension and day.
"""

from __future__ import annotations

import re
import zlib
from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from pathlib import Path
from typing import Final

import numpy as np
import numpy.typing as npt

from vinetag.core.errors import Problem
from vinetag.core.market.short_names import LONGEST, OFFSETS, bit_count
from vinetag.lake.duck import Duck, LakeError, first_row, literal, told
from vinetag.lake.unpacking import GZIP, FeedError

__all__ = ["Snapshot", "delegated", "short_bits", "snapshot_folder", "write_snapshot", "zone_of"]

BEGINNING: Final = 1 << 16
LONGEST_LINE: Final = 100_000
NAMES: Final = "names.parquet"
BITS: Final = "short.bits"
# The owner of a record of name servers, or of what signs a delegation (a later line of the same
# owner may leave it out); time to live and class stand in either order, or are left out.
NS: Final = r"^(\S+)\s+(?:\d+\s+)?(?:in\s+)?(?:\d+\s+)?(?:ns|ds)\s+\S"
SOA: Final = re.compile(r"^(\S+)\s+(?:\d+\s+)?(?:in\s+)?(?:\d+\s+)?soa\s", re.I | re.M)
ORIGIN: Final = re.compile(r"^\$origin\s+(\S+)", re.I | re.M)


@dataclass(frozen=True, slots=True)
class Snapshot:
    """`names` delegated on the `day` under the extension."""

    extension: str
    day: date
    names: int


def snapshot_folder(folder: Path, extension: str, day: date) -> Path:
    """Where a snapshot stands, as Hive partitions are named."""
    return folder / f"extension={extension}" / f"day={day.isoformat()}"


def zone_of(beginning: bytes) -> str:
    """The zone a master file is of, by its SOA record or its $ORIGIN, without dots at its ends; ""
    where it does not say. `beginning` is as it came, packed by gzip or not.
    """
    if beginning.startswith(GZIP):
        try:
            beginning = zlib.decompressobj(31).decompress(beginning, BEGINNING)
        except zlib.error as error:
            raise FeedError(Problem("file", "feed_broken", {"detail": str(error)[:80]})) from error
    text = beginning.decode("ascii", "replace")
    origin = ORIGIN.search(text)
    apex = SOA.search(text)
    if apex and apex[1] != "@":
        name = apex[1]
        if not name.endswith(".") and origin:
            name = f"{name}.{origin[1]}"
    elif origin:
        name = origin[1]
    else:
        return ""
    return name.strip(".").lower()


def write_snapshot(
    duck: Duck, file: Path, extension: str, day: date, folder: Path,
    on_step: Callable[[str], None] = lambda _: None,
) -> Snapshot:  # fmt: skip
    """Keep the delegated names of a zone file, packed or not, in one pass with bounded memory.
    Raises FeedError for a file that is none, of another zone, or cut off; then nothing is kept.
    """
    with file.open("rb") as source:
        found = zone_of(source.read(BEGINNING))
    if not found:
        raise FeedError(Problem("file", "zone_unknown"))
    if found != extension:
        raise FeedError(Problem("file", "zone_other", {"found": found[:60], "wanted": extension}))
    target = snapshot_folder(folder, extension, day)
    half = target.with_name(f"{target.name}.half")
    half.mkdir(parents=True, exist_ok=True)
    names = half / NAMES
    packed = "gzip" if _is_packed(file) else "none"
    lines = (
        f"read_csv({literal(str(file))}, header=false, columns={{'line': 'VARCHAR'}}, "
        f"delim='\x01', quote='', escape='', auto_detect=false, compression='{packed}', "
        f"max_line_size={LONGEST_LINE}, strict_mode=false)"
    )
    suffix = literal(f".{extension}.")
    try:
        on_step("reading")
        duck.execute("set preserve_insertion_order = true")
        duck.execute(
            f"""create or replace table owners as
            with read as (select lower(line) as line from {lines}),
            ns as (
              select regexp_extract(line, {literal(NS)}, 1) as owner from read
              where regexp_matches(line, {literal(NS)})
            ),
            named as (
              select case
                when ends_with(owner, {suffix}) then owner[: length(owner) - length({suffix})]
                when owner not like '%.' and owner <> '@' then owner end as label from ns
            )
            select label from (
              select label, lag(label) over () as before from named
            ) where label is not null and label is distinct from before
              and label not like '%.%' and length(label) between 1 and 63"""
        )
        on_step("storing")
        duck.execute(
            f"copy (select distinct label from owners order by label) to {literal(str(names))} "
            "(format parquet, compression zstd)"
        )
        duck.execute("drop table owners")
    except LakeError as error:
        detail = {"detail": told(error, file)}
        raise FeedError(Problem("file", "feed_broken", detail)) from error
    (count,) = first_row(duck, f"select count(*) from read_parquet({literal(str(names))})")
    if not count:
        raise FeedError(Problem("file", "zone_empty"))
    np.packbits(_short(duck, names)).tofile(half / BITS)
    if target.exists():
        for old in target.iterdir():
            old.unlink()
        target.rmdir()
    half.rename(target)
    return Snapshot(extension, day, count)


def _is_packed(file: Path) -> bool:
    with file.open("rb") as source:
        return source.read(2) == GZIP


def _short(duck: Duck, names: Path) -> npt.NDArray[np.bool_]:
    """By number (core.market.short_names), whether a name of up to LONGEST letters is delegated."""
    code = " + ".join(
        f"case when length(label) > {place} then (unicode(label[{place + 1}]) - 97) "
        f"* power(26, length(label) - {place + 1})::integer else 0 end"
        for place in range(LONGEST)
    )
    offset = " ".join(f"when {length} then {OFFSETS[length]}" for length in range(1, LONGEST + 1))
    codes = duck.execute(
        f"select (case length(label) {offset} end + {code})::integer as n "
        f"from read_parquet({literal(str(names))}) "
        f"where length(label) <= {LONGEST} and regexp_full_match(label, '[a-z]+')"
    ).fetchnumpy()["n"]
    bits = np.zeros(bit_count(), np.bool_)
    bits[codes] = True
    return bits


def short_bits(folder: Path, extension: str, day: date) -> npt.NDArray[np.bool_]:
    """By number, whether a short name was delegated on the day."""
    packed = np.fromfile(snapshot_folder(folder, extension, day) / BITS, np.uint8)
    return np.unpackbits(packed, count=bit_count()).astype(np.bool_)


def delegated(
    duck: Duck, folder: Path, days: Mapping[str, date], labels: Mapping[str, Collection[str]]
) -> Mapping[str, set[str]]:
    """By extension, those of the `labels` that were delegated on its day in `days`."""
    found: dict[str, set[str]] = {}
    for extension, wanted in labels.items():
        if extension not in days or not wanted:
            continue
        names = snapshot_folder(folder, extension, days[extension]) / NAMES
        duck.register("wanted_labels", {"label": np.array(sorted(wanted), dtype=object)})
        rows = duck.execute(
            f"select label from read_parquet({literal(str(names))}) "
            "semi join wanted_labels using (label)"
        ).fetchall()
        duck.unregister("wanted_labels")
        found[extension] = {label for (label,) in rows}
    return found


def days_there(folder: Path) -> Sequence[tuple[str, date]]:
    """The snapshots there are, by extension and day."""
    found = []
    for part in folder.glob("extension=*/day=*"):
        if part.name.endswith(".half"):
            continue
        found.append(
            (part.parent.name.removeprefix("extension="), date.fromisoformat(part.name[4:]))
        )
    return sorted(found)
