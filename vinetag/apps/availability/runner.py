"""Carrying out a check: questions in an event loop of their own, answers stored as they come."""

from __future__ import annotations

import asyncio
import logging
import queue
import threading
import time
from collections import deque
from collections.abc import Callable, Iterator
from contextlib import suppress
from dataclasses import replace
from functools import partial
from typing import cast

from vinetag.apps.availability import checks, leases
from vinetag.apps.availability.answer_store import (
    claim_names,
    fresh_answers,
    give_up_names,
    save_answers,
)
from vinetag.apps.availability.leases import patiently
from vinetag.apps.availability.lookups import lookup_settings, rule_of
from vinetag.apps.availability.models import Check
from vinetag.apps.availability.zoned import answers_by_zone, evidence_by_zone
from vinetag.core.checking import Aim, Evidence
from vinetag.core.names import FullName
from vinetag.lookup import Answer, open_engine
from vinetag.lookup.engine import RuleOf, Waits
from vinetag.lookup.names import MOST_BACK, Backlog, sort_out

__all__ = ["SLICE_SECONDS", "run_slice"]

SLICE_SECONDS = 30.0
STORE_EVERY = 0.2
AT_A_TIME = 400
READY = 800
A_SCREENFUL = 100
# A slice in which only registries that are away are waited for ends after so many seconds.
IDLE = 2.0

log = logging.getLogger(__name__)


def run_slice(check_id: int, token: str) -> bool:
    """Ask about what is left of the check for up to SLICE_SECONDS, keeping the lease meanwhile.

    Ends early when the check was stopped, or when all that is left waits for registries that are
    away: False then. Answers that arrived are always stored.
    """
    check = Check.objects.select_related("project").get(pk=check_id)
    rule = rule_of(check.project)
    feed = _Feed(check, rule)
    asking = _Asking(feed, rule)
    asking.start()
    deadline = time.monotonic() + SLICE_SECONDS

    def store() -> bool:
        """Keep the lease and store what has arrived, also when the lease was lost meanwhile: an
        answer is one, whoever goes on with the check. Whether it is kept.
        """
        held = patiently(lambda: leases.beat(Check, check_id, token))
        answers = feed.answers()
        patiently(lambda: save_answers(check.project_id, answers, check_id))
        return held

    held, idle_since = True, None
    away = list(check.away)
    try:
        feed.fill(A_SCREENFUL)
        while asking.is_alive() and held and time.monotonic() < deadline:
            feed.wait(STORE_EVERY)
            held = store()
            feed.fill()
            if away != (now_away := sorted(asking.waits.extensions)):
                away = now_away
                patiently(partial(checks.tell_away, check_id, token, away))
            if not (feed.is_empty and asking.waits.nothing_else):
                idle_since = None
            elif idle_since is None:
                idle_since = time.monotonic()
            elif time.monotonic() - idle_since > IDLE:
                return False
    finally:
        asking.stop()
        asking.join()
        store()
        give_up_names(list(feed.claims))
    if asking.fault:
        raise asking.fault
    if feed.elsewhere and not feed.asked:
        # Only names others are asking are left: their answers are there in a moment.
        time.sleep(STORE_EVERY)
    return True


class _Feed:
    """The check's names for a sweep, and its answers on their way back. What is known and fresh is
    answered at once; names others are asking are left to a later slice, those whose host has a long
    queue stand back until it is shorter. The database is used in the thread that stores, names are
    taken in the one that asks.
    """

    def __init__(self, check: Check, rule: RuleOf) -> None:
        self._check, self._rule = check, rule
        self.aim = cast(Aim, check.aim)
        self._left = deque(patiently(lambda: checks.names_left(check)))
        self._ready: deque[FullName] = deque()
        self._backlog = Backlog()
        self._arrived: queue.SimpleQueue[Answer] = queue.SimpleQueue()
        self._wanted = threading.Event()
        self._nudge: Callable[[], object] = bool
        # Not before they are: while a batch is looked up the thread that asks must not go home.
        self._all_ready = False
        self.claims: set[FullName] = set()
        self._zoned: dict[FullName, Evidence] = {}
        self.asked = self.elsewhere = 0

    # Called by the thread that stores.

    def fill(self, ready: int = READY) -> None:
        """Make names ready while few are."""
        while self._left and len(self._ready) < ready and len(self._backlog) < MOST_BACK:
            count = min(AT_A_TIME, ready, len(self._left))
            names = [checks.full_name(self._left.popleft()) for _ in range(count)]
            self._ready.extend(self._unknown(names))
        self._all_ready = not self._left
        self._wanted.clear()
        self._nudge()

    @property
    def is_empty(self) -> bool:
        """Whether all names are taken, or stand back for hosts that are busy."""
        return not self._left and not self._ready

    def wait(self, seconds: float) -> None:
        """Until more names are wanted, or for some seconds."""
        self._wanted.wait(seconds)

    def answers(self) -> list[Answer]:
        """What has arrived since the last call."""
        found: list[Answer] = []
        while not self._arrived.empty():
            answer = self._arrived.get()
            if (zoned := self._zoned.pop(answer.name, None)) and not answer.reused:
                answer = replace(answer, evidence=(zoned, *answer.evidence))
            found.append(answer)
        self.claims.difference_update([a.name for a in found])
        return found

    def _unknown(self, names: list[FullName]) -> list[FullName]:
        """Those nobody knows yet, and nobody else is asking."""
        ruled = {name for name in names if self._rule(name)}
        askable = [name for name in names if name not in ruled]
        known = patiently(lambda: fresh_answers(askable, self.aim, self._check.not_before))
        for answer in known.values():
            self._arrived.put(answer)
        left = [name for name in askable if name not in known]
        if self.aim == "scan" and left:
            left = self._not_in_zones(left)
        mine = claim_names(left, f"check {self._check.pk}")
        self.elsewhere += len(left) - len(mine)
        # Whoever asked one before may have answered between the look and the claim.
        late = patiently(lambda: fresh_answers(mine, self.aim, self._check.not_before))
        for answer in late.values():
            self._arrived.put(answer)
        give_up_names(list(late))
        self.claims.update(name for name in mine if name not in late)
        return [name for name in names if name in ruled or name in self.claims]

    def _not_in_zones(self, names: list[FullName]) -> list[FullName]:
        """Those that have to be asked about: what a zone file had a day ago is taken, and answered.
        What it said of the others stands beside what they are answered with.
        """
        found = patiently(lambda: evidence_by_zone(names))
        taken = patiently(lambda: answers_by_zone(found, self._check.not_before))
        for answer in taken:
            self._arrived.put(answer)
        answered = {answer.name for answer in taken}
        self._zoned.update({name: one for name, one in found.items() if name not in answered})
        return [name for name in names if name not in answered]

    # Called by the thread that asks.

    @property
    def more(self) -> bool:
        """As vinetag.lookup.engine.Names.more."""
        return bool(self._ready or len(self._backlog)) or not self._all_ready

    def begin(self, nudge: Callable[[], None]) -> None:
        """As vinetag.lookup.engine.Names.begin."""
        loop = asyncio.get_running_loop()

        def from_there() -> None:
            with suppress(RuntimeError):  # the loop has ended
                loop.call_soon_threadsafe(nudge)

        self._nudge = from_there

    def take(self, count: int, busy: Callable[[str], bool]) -> list[FullName]:
        """As vinetag.lookup.engine.Names.take."""
        taken = sort_out(self._handed(), self._backlog, count, busy, MOST_BACK)
        if len(self._ready) < READY // 2:
            self._wanted.set()
        self.asked += len(taken)
        return taken

    def _handed(self) -> Iterator[FullName]:
        while self._ready:
            yield self._ready.popleft()

    def deliver(self, answer: Answer) -> None:
        """An answer has come."""
        self._arrived.put(answer)


class _Asking(threading.Thread):
    """The event loop that asks, in a thread, so that storing never holds up asking."""

    def __init__(self, feed: _Feed, rule: RuleOf) -> None:
        super().__init__(name="asking", daemon=True)
        self._feed, self._rule = feed, rule
        self.waits = Waits()
        self._settings = lookup_settings()
        self._halt: asyncio.Event | None = None
        self._loop: asyncio.AbstractEventLoop | None = None
        self._ready = threading.Event()
        self.fault: Exception | None = None

    def run(self) -> None:
        try:
            asyncio.run(self._ask())
        except Exception as error:
            self.fault = error
        finally:
            self._ready.set()

    async def _ask(self) -> None:
        self._loop, self._halt = asyncio.get_running_loop(), asyncio.Event()
        self._ready.set()
        async with open_engine(self._settings, self._rule) as engine:
            await engine.sweep(
                self._feed,
                self._feed.deliver,
                aim=self._feed.aim,
                stop=self._halt,
                waits=self.waits,
            )

    def stop(self) -> None:
        """Ask no more; safe at any time, from any thread."""
        self._ready.wait()
        if self._loop and self._halt and not self._loop.is_closed():
            with suppress(RuntimeError):
                self._loop.call_soon_threadsafe(self._halt.set)
