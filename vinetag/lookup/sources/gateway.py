"""A seller's gateway, for whoever has an account there."""

from __future__ import annotations

import asyncio
import uuid
from collections.abc import Callable, Mapping, Sequence
from typing import Final

from vinetag.core.checking import Evidence, Quote, Says, Source, Trouble
from vinetag.core.names import FullName
from vinetag.lookup.epp import Checked, Done, EppGateway, Gateway
from vinetag.lookup.epp.gateway import GatewayTrouble
from vinetag.lookup.epp.settings import GatewaySettings
from vinetag.lookup.settings import GATEWAY
from vinetag.lookup.sources.base import Asked, now

__all__ = ["GatewaySource"]

BATCH: Final = 50
LINES: Final = 2
# Others who ask meanwhile go with the same question.
GATHERING: Final = 0.02
TROUBLES: Final[Mapping[GatewayTrouble, Trouble]] = {
    "unreachable": "unreachable", "not_sent": "unreachable", "timeout": "timeout",
    "certificate": "refused", "login": "refused", "refused": "refused", "nonsense": "nonsense",
}  # fmt: skip

_Asking = tuple[FullName, asyncio.Future[Asked]]


class GatewaySource:
    """Asks by EPP (RFC 5731), fifty names in one command, over two sessions that stay open.

    Of an extension it is found out first whether the seller has it, by a name nobody has: what a
    seller does not sell is no news about a name.
    """

    name: Source = "gateway"

    def __init__(
        self,
        settings: GatewaySettings,
        make: Callable[[GatewaySettings], Gateway] = EppGateway,
    ) -> None:
        self._settings, self._make = settings, make
        self._address = f"epp://{settings.host}:{settings.port}"
        self._waiting: list[_Asking] = []
        # The session used last is taken first: the second is opened when there is much to ask.
        self._lines: asyncio.LifoQueue[Gateway | None] = asyncio.LifoQueue()
        for _ in range(LINES):
            self._lines.put_nowait(None)
        self._sells: dict[str, bool] = {}
        self._tasks: set[asyncio.Task[None]] = set()
        # What goes on in threads, which nothing can break off.
        self._talks: set[asyncio.Future[tuple[Gateway | None, list[Asked]]]] = set()

    def host(self, name: FullName) -> str | None:
        """The seller's, for the extensions it is not known not to sell."""
        return (
            f"{GATEWAY}{self._settings.seller}" if self._sells.get(name.extension, True) else None
        )

    async def ask(self, name: FullName, at: str = "") -> Asked:  # noqa: ARG002 - it sends nobody on
        """Ask whether it can be had, with whoever else asks just now."""
        found: asyncio.Future[Asked] = asyncio.get_running_loop().create_future()
        self._waiting.append((name, found))
        if len(self._waiting) == 1:
            self._start(GATHERING)
        elif len(self._waiting) >= BATCH:
            self._start(0)
        return await found

    def _start(self, after: float) -> None:
        task = asyncio.create_task(self._send(after))
        self._tasks.add(task)
        task.add_done_callback(self._tasks.discard)

    async def _send(self, after: float) -> None:
        await asyncio.sleep(after)
        while self._waiting:
            some, self._waiting = self._waiting[:BATCH], self._waiting[BATCH:]
            names = [name for name, _ in some]
            talk = asyncio.ensure_future(self._talk_aside(await self._lines.get(), names))
            self._talks.add(talk)
            talk.add_done_callback(self._talks.discard)
            try:
                _, answers = await asyncio.shield(talk)
            except asyncio.CancelledError:
                self._waiting += some
                raise
            for (_, found), answer in zip(some, answers, strict=True):
                if not found.done():
                    found.set_result(answer)

    async def _talk_aside(
        self, line: Gateway | None, names: Sequence[FullName]
    ) -> tuple[Gateway | None, list[Asked]]:
        """In a thread; the line is there for others afterwards, however it ended."""
        try:
            line, answers = await asyncio.to_thread(self._talk, line, names)
        except Exception as error:
            line, answers = None, [self._nothing("nonsense", str(error))] * len(names)
        self._lines.put_nowait(line)
        return line, answers

    def _talk(
        self, line: Gateway | None, names: Sequence[FullName]
    ) -> tuple[Gateway | None, list[Asked]]:
        """Ask over a session, a new one where there is none, or where the old one was hung up."""
        for fresh in (False, True):
            gateway = self._make(self._settings) if fresh else line
            if gateway is None:
                continue
            opened = gateway.open() if fresh else Done(code=1000)
            if opened.trouble:
                gateway.close()
                return None, [self._failed(opened)] * len(names)
            new = {n.extension for n in names} - set(self._sells)
            probes = [FullName(f"vt-{uuid.uuid4().hex[:20]}", one) for one in sorted(new)]
            sold = [name for name in names if self._sells.get(name.extension, True)]
            told = self._check(gateway, [*probes, *sold])
            if not isinstance(told, Done):
                for probe in probes:
                    self._sells[probe.extension] = told[str(probe)].free
                return gateway, [self._asked(name, told.get(str(name))) for name in names]
            gateway.close()
            if fresh:
                return None, [self._failed(told)] * len(names)
        return None, [self._nothing("unreachable", "")] * len(names)

    def _check(self, gateway: Gateway, names: Sequence[FullName]) -> dict[str, Checked] | Done:
        found: dict[str, Checked] = {}
        for start in range(0, len(names), BATCH):
            some = [str(name) for name in names[start : start + BATCH]]
            answer = gateway.check(some, 1)
            if isinstance(answer, Done):
                return answer
            found |= {one.name: one for one in answer}
        return found

    def _asked(self, name: FullName, told: Checked | None) -> Asked:
        if told is None or not self._sells.get(name.extension, False):
            return self._nothing("no_service", "the seller does not sell this extension")
        if not told.free:
            detail = told.reason[:200]
            return Asked(Evidence("gateway", "unavailable", now(), self._address, detail=detail))
        quote = None
        if told.premium and told.fee is not None:
            quote = Quote(told.currency, told.fee, told.renewal)
        says: Says = "premium" if told.premium else "usual"
        return Asked(Evidence("gateway", says, now(), self._address, quote=quote))

    def _failed(self, done: Done) -> Asked:
        trouble: Trouble = TROUBLES.get(done.trouble, "refused")
        return self._nothing(trouble, done.said or f"result code {done.code}")

    def _nothing(self, trouble: Trouble, detail: str) -> Asked:
        return Asked(Evidence("gateway", "", now(), self._address, trouble, detail[:200]))

    async def close(self) -> None:
        """Sign out everywhere; who still waits is told that there was no time."""
        for task in list(self._tasks):
            task.cancel()
        await asyncio.gather(*self._tasks, *self._talks, return_exceptions=True)
        for _, found in self._waiting:
            if not found.done():
                found.set_result(self._nothing("late", ""))
        while not self._lines.empty():
            line = self._lines.get_nowait()
            if line is not None:
                await asyncio.to_thread(line.close)
