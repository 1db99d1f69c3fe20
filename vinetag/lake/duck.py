"""DuckDB, bounded: so much memory, no network, no extensions but those that ship with it."""

from __future__ import annotations

import threading
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from pathlib import Path
from typing import Any, Final

import duckdb

__all__ = ["Duck", "LakeError", "first_row", "literal", "open_duck", "shared_duck", "told"]

Duck = duckdb.DuckDBPyConnection
LakeError = duckdb.Error
MEMORY_MB: Final = 400
THREADS: Final = 2
_SETTINGS: Final = {
    "autoinstall_known_extensions": "false",
    "autoload_known_extensions": "false",
    "preserve_insertion_order": "true",
}


def open_duck(work: Path, memory_mb: int = MEMORY_MB, threads: int = THREADS) -> Duck:
    """A database of its own in the folder `work`, which holds what memory does not."""
    work.mkdir(parents=True, exist_ok=True)
    duck = duckdb.connect(str(work / "work.duckdb"), config=dict(_SETTINGS))
    duck.execute(f"set memory_limit='{memory_mb}MB'")
    duck.execute(f"set threads={threads}")
    duck.execute(f"set temp_directory={literal(str(work / 'spill'))}")
    duck.execute("set timezone='UTC'")
    return duck


def first_row(duck: Duck, sql: str, values: Mapping[str, Any] | None = None) -> tuple[Any, ...]:
    """The one row of a query, read to its end."""
    found: list[tuple[Any, ...]] = duck.execute(sql, values).fetchall()
    return found[0]


def told(error: LakeError, file: Path) -> str:
    """What went wrong, in its first line, without saying where the file stands here."""
    return str(error).split("\n")[0].replace(str(file), "the file")[:120]


def literal(text: str) -> str:
    """A text as it stands in SQL."""
    return "'" + text.replace("'", "''") + "'"


class _Shared:
    def __init__(self, memory_mb: int) -> None:
        self.duck = duckdb.connect(":memory:", config=dict(_SETTINGS))
        self.duck.execute(f"set memory_limit='{memory_mb}MB'")
        self.duck.execute(f"set threads={THREADS}")
        self.duck.execute("set timezone='UTC'")


_shared: _Shared | None = None
_lock = threading.Lock()
READING_MB: Final = 200


@contextmanager
def shared_duck() -> Iterator[Duck]:
    """A cursor of the one database in memory this process reads with; safe in threads."""
    global _shared
    with _lock:
        _shared = _shared or _Shared(READING_MB)
        cursor: Any = _shared.duck.cursor()
    try:
        yield cursor
    finally:
        cursor.close()
