"""Where a sweep takes its names from, and the backlog on which names of busy hosts stand back."""

from __future__ import annotations

from collections import Counter, deque
from collections.abc import Callable, Iterable, Iterator, Sequence
from itertools import chain
from typing import Protocol, runtime_checkable

from vinetag.core.names import FullName

__all__ = ["BUSY", "MOST_BACK", "Backlog", "Listed", "Names", "sort_out"]

# From how many names that wait a host is busy; how many names of busy hosts are held.
BUSY = 60
MOST_BACK = 4_000


@runtime_checkable
class Names(Protocol):
    """Where a sweep takes its names from."""

    @property
    def more(self) -> bool:
        """Whether there may be more."""

    def begin(self, nudge: Callable[[], None]) -> None:
        """Remember to call `nudge`, in the sweep's loop, when there are names after none were."""

    def take(self, count: int, busy: Callable[[str], bool]) -> Sequence[FullName]:
        """Up to about `count` names in their order, without those whose extension is `busy`."""


class Backlog:
    """Names that stand back while their host is busy, in their order by extension."""

    def __init__(self) -> None:
        self._by_extension: dict[str, deque[FullName]] = {}
        self._count = 0

    def __len__(self) -> int:
        return self._count

    def put(self, name: FullName) -> None:
        """Stand back."""
        self._by_extension.setdefault(name.extension, deque()).append(name)
        self._count += 1

    def take(self, count: int, busy: Callable[[str], bool]) -> list[FullName]:
        """Up to `count` names whose host is busy no longer."""
        taken: list[FullName] = []
        for extension, names in self._by_extension.items():
            if names and not busy(extension):
                for _ in range(min(count - len(taken), len(names))):
                    taken.append(names.popleft())
        self._count -= len(taken)
        return taken


def sort_out(
    names: Iterator[FullName], backlog: Backlog, count: int, busy: Callable[[str], bool], most: int
) -> list[FullName]:
    """Up to `count` names for hosts that are not busy, from the backlog first; the others go there,
    up to `most`. A host takes no more at once than makes it busy.
    """
    known: dict[str, bool] = {}

    def waits(extension: str) -> bool:
        if extension not in known:
            known[extension] = busy(extension)
        return known[extension]

    taken = backlog.take(min(count, BUSY), waits)
    by_extension = Counter(name.extension for name in taken)
    while len(taken) < count and len(backlog) < most:
        name = next(names, None)
        if name is None:
            break
        by_extension[name.extension] += 1
        if waits(name.extension) or by_extension[name.extension] > BUSY:
            backlog.put(name)
        else:
            taken.append(name)
    return taken


class Listed:
    """Names held in memory or made one by one; some thousands of busy hosts stand back."""

    def __init__(self, names: Iterable[FullName]) -> None:
        self._names = chain(names)
        self._backlog = Backlog()
        self._ended = False

    @property
    def more(self) -> bool:
        return bool(len(self._backlog)) or not self._ended

    def begin(self, nudge: Callable[[], None]) -> None:
        """There is nothing to wait for."""

    def take(self, count: int, busy: Callable[[str], bool]) -> list[FullName]:
        return sort_out(self._left(), self._backlog, count, busy, MOST_BACK)

    def _left(self) -> Iterator[FullName]:
        yield from self._names
        self._ended = True
