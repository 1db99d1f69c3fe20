"""The engine: asks what the planner wants asked, within every host's limits."""

from __future__ import annotations

import asyncio
import logging
import random
from collections import Counter, deque
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from itertools import count
from urllib.parse import urlsplit

from vinetag.core.checking import SOURCES, Aim, Evidence, Source, Trouble, next_step
from vinetag.core.extensions import Barred
from vinetag.core.names import FullName
from vinetag.lookup.answers import Answer, answer_of
from vinetag.lookup.fetching import REDIRECTS
from vinetag.lookup.limiter import FAILURES, Limiter, acquire
from vinetag.lookup.names import BUSY, Listed, Names
from vinetag.lookup.retry import RetryPolicy, next_wait
from vinetag.lookup.sources import Asked, SourceOfAnswers

__all__ = ["Engine", "RuleOf", "Waits"]

# Names under way that wait for no busy host; every how many answers more are taken.
AHEAD = 2_000
EVERY = 16

log = logging.getLogger(__name__)

RuleOf = Callable[[FullName], Barred | None]
# How often at most those who wait for a host look whether it is its time.
LOOK = 0.25
SHORTEST_LOOK = 0.05


@dataclass(slots=True)
class _Waiting:
    """A question in a host's queue, with what is known by now; `rounds` of attempts have failed."""

    step: Source
    name: FullName
    known: dict[Source, Evidence]
    rounds: int = 0


@dataclass(slots=True)
class Waits:
    """What a sweep waits for: the extensions whose host is away, and whether nothing else is left
    to do just now. May be read from any thread.
    """

    extensions: frozenset[str] = frozenset()
    nothing_else: bool = False


class Engine:
    """Finds out about full names.

    `limiters` by source stand before the hosts; `rule_of` says what rules alone rule out.
    """

    def __init__(
        self,
        sources: Sequence[SourceOfAnswers],
        limiters: Mapping[Source, Limiter],
        *,
        rule_of: RuleOf = lambda _: None,
        retry: RetryPolicy = RetryPolicy(),
        rng: random.Random | None = None,
    ) -> None:
        self._sources = {source.name: source for source in sources}
        self._limiters, self._rule_of, self._retry = limiters, rule_of, retry
        self._rng = rng or random.Random()  # noqa: S311 - spreads waits, guards nothing
        self._hosts: dict[str, Mapping[Source, str]] = {}
        run = f"{random.getrandbits(48):x}"
        self._tokens = (f"{run}.{n}" for n in count())

    async def ask(self, name: FullName, aim: Aim = "scan", deadline: float | None = None) -> Answer:
        """The answer about one name, by `deadline` seconds from now where one is given: what was
        not found out by then is "late". Never raises for what a service does.
        """
        known = self._ruled(name)
        can = self._can(name)
        try:
            async with asyncio.timeout(deadline):
                while step := next_step(known, aim, can):
                    known[step] = await self._put(step, name)
        except TimeoutError:
            pass
        return answer_of(name, known, can, aim, _now())

    async def sweep(
        self,
        names: Iterable[FullName] | Names,
        deliver: Callable[[Answer], None],
        *,
        aim: Aim = "scan",
        stop: asyncio.Event | None = None,
        waits: Waits | None = None,
    ) -> None:
        """Ask about every name, calling `deliver` for each answer.

        Each host has a queue of its own and as many askers as it allows, so that a slow or dead one
        costs the others nothing. Names are taken in their order, those of a host with a long queue
        later. Names of a host that is away wait for it, up to the policy's `give_up`; `waits` is
        kept true. After `stop` is set no new question is put, and those under way are dropped.
        """
        source = names if isinstance(names, Names) else Listed(names)
        sweep = _Sweep(self, source, deliver, aim, waits or Waits())
        asking = asyncio.create_task(sweep.run())
        stopped = asyncio.create_task((stop or asyncio.Event()).wait())
        try:
            await asyncio.wait({asking, stopped}, return_when=asyncio.FIRST_COMPLETED)
            if asking.done():
                asking.result()
        finally:
            for task in (asking, stopped):
                task.cancel()
            await asyncio.gather(asking, stopped, return_exceptions=True)
            await sweep.end()

    def _ruled(self, name: FullName) -> dict[Source, Evidence]:
        found = self._rule_of(name)
        if found is None:
            return {}
        return {"rules": Evidence("rules", found.status, _now(), detail=found.sentence)}

    def _can(self, name: FullName) -> Mapping[Source, str]:
        """The sources there are for the name's extension, and their hosts."""
        hosts = self._hosts.get(name.extension)
        if hosts is None:
            found = {kind: source.host(name) for kind, source in self._sources.items()}
            hosts = {kind: host for kind, host in found.items() if host is not None}
            self._hosts[name.extension] = hosts
        return hosts

    async def _put(self, step: Source, name: FullName) -> Evidence:
        """Put a question, as often as it takes, and waits, its host and the policy allow; where the
        answer sends us on, to that host within its own limits.
        """
        host, at = self._can(name)[step], ""
        for _ in range(REDIRECTS + 1):
            asked = await self._put_to(step, name, host, at)
            if not asked.onward:
                break
            at, host = asked.onward, urlsplit(asked.onward).netloc
        return asked.evidence

    async def _put_to(self, step: Source, name: FullName, host: str, at: str) -> Asked:
        limiter, attempt = self._limiters[step], 0
        while True:
            token = next(self._tokens)
            outcome: Trouble = "late"
            retry_after = None
            try:
                refused = await acquire(limiter, host, token, self._retry.patience)
                if refused:
                    return Asked(Evidence(step, "", _now(), trouble=refused))
                asked = await self._ask_once(step, name, at)
                retry_after, outcome = asked.retry_after, asked.evidence.trouble
            finally:
                await limiter.leave(host, token, outcome, retry_after)
            if not outcome or asked.onward:
                return asked
            attempt += 1
            chance = self._rng.random()
            wait = next_wait(self._retry, attempt, outcome, retry_after, chance)
            if wait is None:
                return asked
            await asyncio.sleep(wait)

    async def _ask_once(self, step: Source, name: FullName, at: str) -> Asked:
        """The one place where what a source does wrong becomes an answer: whatever it raises, the
        service gave something nobody can make sense of.
        """
        try:
            return await self._sources[step].ask(name, at)
        except Exception as error:
            log.exception("%s could not be read about %s", step, name)
            detail = f"{type(error).__name__}: {error}"[:200]
            return Asked(Evidence(step, "", _now(), trouble="nonsense", detail=detail))


class _Sweep:
    """One sweep's queues and askers."""

    def __init__(
        self,
        engine: Engine,
        names: Names,
        deliver: Callable[[Answer], None],
        aim: Aim,
        waits: Waits,
    ) -> None:
        self._engine, self._names, self._deliver = engine, names, deliver
        self._aim, self._waits_for = aim, waits
        self._open = self._answered = self._take_at = 0
        self._queues: dict[str, deque[_Waiting]] = {}
        self._askers: Counter[str] = Counter()
        # Hosts that are away, and whether an asker is there to probe each.
        self._away: dict[str, bool] = {}
        self._tasks: set[asyncio.Task[None]] = set()
        self._done = asyncio.Event()
        self._fault: BaseException | None = None

    async def run(self) -> None:
        """Until every name is answered. Raises what an asker raised."""
        self._names.begin(self._take_more)
        self._take_more()
        await self._done.wait()
        if self._fault:
            raise self._fault

    async def end(self) -> None:
        """Drop what is under way."""
        tasks = list(self._tasks)
        for task in tasks:
            task.cancel()
        await asyncio.gather(*tasks, return_exceptions=True)

    def _take_more(self) -> None:
        """Take names while few are under way that wait for no busy host."""
        while self._names.more:
            busy = {host: len(q) for host, q in self._queues.items() if len(q) >= BUSY}
            if self._open - sum(busy.values()) >= AHEAD:
                break
            taken = self._names.take(AHEAD, lambda e: self._is_busy(e, busy))  # noqa: B023 - at once
            if not taken:
                break
            self._open += len(taken)
            for name in taken:
                self._go_on(name, self._engine._ruled(name))
        if not self._open and not self._names.more:
            self._done.set()

    def _is_busy(self, extension: str, busy: Mapping[str, int]) -> bool:
        """Whether names under an extension would only join a long queue."""
        name = FullName("a", extension)
        return any(host in busy for host in self._engine._can(name).values())

    def _go_on(self, name: FullName, known: dict[Source, Evidence]) -> None:
        """To the queue of whoever is to be asked next, or out."""
        engine = self._engine
        can = engine._can(name)
        step = next_step(known, self._aim, can)
        if step is None:
            self._open -= 1
            self._answered += 1
            self._deliver(answer_of(name, known, can, self._aim, _now()))
            return
        host = can[step]
        queue = self._queues.setdefault(host, deque())
        queue.append(_Waiting(step, name, known))
        if host not in self._away:
            self._staff(host, step, 1)

    def _staff(self, host: str, step: Source, more: int) -> None:
        """Up to so many askers more for a host, within what it allows."""
        at_once = self._engine._limiters[step].at_once(host)
        for _ in range(min(more, at_once - self._askers[host])):
            self._askers[host] += 1
            task = asyncio.create_task(self._ask(host, step))
            self._tasks.add(task)
            task.add_done_callback(self._ended)

    async def _ask(self, host: str, step: Source) -> None:
        queue = self._queues[host]
        try:
            while queue:
                one = queue.popleft()
                evidence = await self._engine._put(one.step, one.name)
                if await self._stands_back(host, one, evidence.trouble):
                    if await self._waits(host, one.step):
                        continue
                    break
                if host in self._away:
                    self._is_back(host, one.step)
                one.known[one.step] = evidence
                self._go_on(one.name, one.known)
                if self._answered >= self._take_at:
                    self._take_at = self._answered + EVERY
                    self._take_more()
        finally:
            self._askers[host] -= 1
        if host in self._away and not self._askers[host]:
            self._is_back(host, step)  # nobody is left to find out whether it is
        self._take_more()

    async def _stands_back(self, host: str, one: _Waiting, trouble: Trouble) -> bool:
        """Whether the question is put again later: its host is away, and waited for, or has failed
        it, and is asked about others first. It is back in the queue then.
        """
        if trouble not in FAILURES and trouble != "resting":
            return False
        if SOURCES[one.step].authority in ("hint", "account") and any(
            SOURCES[source].authority == "registry" for source in self._engine._can(one.name)
        ):
            return False  # the registry is asked instead
        policy = self._engine._retry
        rest = await self._engine._limiters[one.step].rest(host)
        if rest.away > policy.give_up:
            return False
        if rest.away:
            self._queues[host].appendleft(one)
            self._away.setdefault(host, False)
            return True
        one.rounds += trouble != "resting"
        if one.rounds >= policy.rounds:
            return False
        self._queues[host].append(one)
        return True

    async def _waits(self, host: str, step: Source) -> bool:
        """Until a host that is away may be probed; one asker does that, the others leave."""
        if host not in self._away:
            return True
        if self._away[host]:
            return False
        self._away[host] = True
        self._tell_waits()
        try:
            rest = await self._engine._limiters[step].rest(host)
            await asyncio.sleep(min(LOOK, max(SHORTEST_LOOK, rest.left)))
        finally:
            self._away[host] = False
        return True

    def _is_back(self, host: str, step: Source) -> None:
        """A host that was away has answered, or is given up: ask it as before."""
        del self._away[host]
        self._tell_waits()
        self._staff(host, step, len(self._queues[host]))

    def _tell_waits(self) -> None:
        self._waits_for.extensions = frozenset(
            one.name.extension for host in self._away for one in self._queues[host]
        )
        busy = sum(count for host, count in self._askers.items() if host not in self._away)
        self._waits_for.nothing_else = bool(self._away) and not busy

    def _ended(self, task: asyncio.Task[None]) -> None:
        self._tasks.discard(task)
        if not task.cancelled() and (fault := task.exception()):
            self._fault = fault
            self._done.set()


def _now() -> datetime:
    return datetime.now(UTC)
