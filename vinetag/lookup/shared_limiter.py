"""Limiter in Redis: the same limits for every process on every machine, one trip a step.

The scripts are HostState in Lua; a test drives both through the same steps and compares. Redis runs
a script alone, so no two processes can take the same permit. Its own clock is used. Where no rate
is known a permit is held for half a second of questions: two trips a question would cost more than
asking it.
"""

from __future__ import annotations

from contextlib import suppress
from dataclasses import dataclass
from time import monotonic
from typing import Any, Final

import redis.asyncio
from redis.exceptions import RedisError

from vinetag.core.checking import Trouble
from vinetag.lookup import limiter
from vinetag.lookup.limiter import FAILURES, HostLimits, LimitsOf, Rest

__all__ = ["SharedLimiter"]

# Keys: the host's hash and its permits. A host nobody asks is forgotten after an hour.
_READ: Final = """
local h, z = KEYS[1], KEYS[2]
local t = redis.call('TIME')
local now = tonumber(t[1]) + tonumber(t[2]) / 1000000
if ARGV[1] ~= '' then now = tonumber(ARGV[1]) end
local f = {}
local kept = redis.call('HMGET', h, 'next_free', 'paused_until', 'resting_until', 'probing_until',
  'away_since', 'failed', 'learned', 'second', 'this_second', 'last_second')
local names = {'next_free', 'paused_until', 'resting_until', 'probing_until', 'away_since',
  'failed', 'learned', 'second', 'this_second', 'last_second'}
for i, name in ipairs(names) do f[name] = tonumber(kept[i] or '0') or 0 end
local function rate()
  local allowed = tonumber(ARGV[4]) * tonumber(ARGV[8])
  if f.learned > 0 and (allowed == 0 or f.learned < allowed) then return f.learned end
  return allowed
end
local function keep()
  local flat = {}
  for _, name in ipairs(names) do
    flat[#flat + 1] = name
    flat[#flat + 1] = string.format('%.17g', f[name])
  end
  redis.call('HSET', h, unpack(flat))
  redis.call('EXPIRE', h, 3600)
  redis.call('EXPIRE', z, 3600)
end
"""
# ARGV: now or '', token, at_once, per_second, failures, rest, lost after, margin, no permit
_ENTER: Final = (
    _READ
    + """
if f.failed >= tonumber(ARGV[5]) then
  if now < f.resting_until or now < f.probing_until then return {'-1', 1} end
  f.probing_until = now + tonumber(ARGV[7])
end
if now < f.paused_until then
  f.probing_until = 0
  keep()
  return {string.format('%.17g', -1 - (f.paused_until - now)), 1}
end
redis.call('ZREMRANGEBYSCORE', z, '-inf', now)
if redis.call('ZCARD', z) >= tonumber(ARGV[3]) then
  f.probing_until = 0
  keep()
  return {string.format('%.17g', -1 - tonumber(ARGV[9])), 1}
end
local r, at = rate(), now
if r > 0 then
  at = math.max(now, f.next_free)
  f.next_free = at + 1 / r
end
redis.call('ZADD', z, at + tonumber(ARGV[7]), ARGV[2])
if now - f.second >= 1 then
  f.last_second = (now - f.second < 2) and f.this_second or 0
  f.second, f.this_second = now, 0
end
f.this_second = f.this_second + 1
keep()
return {string.format('%.17g', at - now), math.ceil(r)}
"""
)
# ARGV: as above; 9 trouble, 10 whether it counts as a failure, 11 the pause, 12 to 14 how the rate
# is learned; 15 how many more were put; 16 when a rest is forgotten
_LEAVE: Final = (
    _READ
    + """
redis.call('ZREM', z, ARGV[2])
f.this_second = f.this_second + tonumber(ARGV[15])
if ARGV[9] == 'late' then
  keep()
  return '0'
end
f.probing_until = 0
if ARGV[9] == 'rate_limited' then
  if now >= f.paused_until then
    local seen = math.max(f.this_second, f.last_second, 1)
    local r = rate()
    if r == 0 then r = seen end
    f.learned = math.max(tonumber(ARGV[14]), tonumber(ARGV[12]) * r)
  end
  f.paused_until = math.max(f.paused_until, now + tonumber(ARGV[11]))
  f.next_free = math.max(f.next_free, f.paused_until)
elseif ARGV[9] == '' and f.learned > 0 then
  f.learned = f.learned + tonumber(ARGV[13])
end
if ARGV[10] == '1' then
  f.failed = f.failed + 1
  if f.failed >= tonumber(ARGV[5]) then
    if f.away_since == 0 or now > f.resting_until + tonumber(ARGV[16]) then f.away_since = now end
    f.resting_until = now + tonumber(ARGV[6])
  end
else
  f.failed, f.away_since = 0, 0
end
keep()
return '0'
"""
)
_PAUSE: Final = _READ + "return string.format('%.17g', math.max(0, f.paused_until - now))"
_REST: Final = (
    _READ
    + """
if f.failed < tonumber(ARGV[5]) then return {'0', '0'} end
local left = math.max(f.resting_until, f.probing_until) - now
return {string.format('%.17g', math.max(0, left)),
  string.format('%.17g', math.max(0.001, now - f.away_since))}
"""
)
AWAY: Final = 0.5
HELD_FOR: Final = 0.5


@dataclass(slots=True)
class _Permit:
    """A permit held at a host without a rate: it serves question after question until `until`, and
    is then given back, so that others have their turn and what they learned is heard of.
    """

    token: str
    until: float
    more: int = 0


class SharedLimiter:
    """A limiter kept in Redis. While it cannot be reached nobody is let through: without it there
    is no telling what others are asking.
    """

    def __init__(
        self,
        client: redis.asyncio.Redis,
        limits_of: LimitsOf = lambda _: HostLimits(),
        prefix: str = "vinetag:gate:",
    ) -> None:
        self._limits_of, self._prefix = limits_of, prefix
        self._enter = client.register_script(_ENTER)
        self._leave = client.register_script(_LEAVE)
        self._pause = client.register_script(_PAUSE)
        self._rest = client.register_script(_REST)
        self._free: dict[str, list[_Permit]] = {}
        self._used: dict[str, _Permit] = {}

    def at_once(self, host: str) -> int:
        """As Gates.at_once."""
        return self._limits_of(host).at_once

    async def enter(self, host: str, token: str) -> float:
        """As HostState.enter."""
        while free := self._free.get(host):
            permit = free.pop()
            if monotonic() < permit.until:
                permit.more += 1
                self._used[token] = permit
                return 0.0
            await self._give_back(host, permit, "")
        try:
            wait, rate = await self.ask(host, token)
        except RedisError:
            return limiter.RESTING - AWAY
        if wait == 0 and not rate:
            self._used[token] = _Permit(token, monotonic() + HELD_FOR)
        return wait

    async def leave(
        self, host: str, token: str, trouble: Trouble, retry_after: float | None
    ) -> None:
        """As HostState.leave. A permit Redis was not told of is free after LOST_AFTER seconds."""
        permit = self._used.pop(token, None)
        if permit and trouble == "" and monotonic() < permit.until:
            self._free.setdefault(host, []).append(permit)
            return
        own, more = (permit.token, permit.more) if permit else (token, 0)
        with suppress(RedisError):
            await self.tell(host, own, trouble, retry_after, more)
        if trouble and trouble != "late":
            # What was told just now holds for the permits of this process too.
            for other in self._free.pop(host, []):
                await self._give_back(host, other, "late")

    async def pause_left(self, host: str) -> float:
        """As Gates.pause_left."""
        try:
            return float(await self._pause(self._keys(host), self._args(host, "", None)))
        except RedisError:
            return AWAY

    async def rest(self, host: str, now: float | None = None) -> Rest:
        """As Gates.rest; a host is not away because Redis is."""
        try:
            left, away = await self._rest(self._keys(host), self._args(host, "", now))
        except RedisError:
            return Rest()
        return Rest(float(left), float(away))

    async def close(self) -> None:
        """Give back the permits held."""
        while self._free:
            host, permits = self._free.popitem()
            for permit in permits:
                await self._give_back(host, permit, "")

    async def _give_back(self, host: str, permit: _Permit, trouble: Trouble) -> None:
        with suppress(RedisError):
            await self.tell(host, permit.token, trouble, None, permit.more)

    async def ask(self, host: str, token: str, now: float | None = None) -> tuple[float, float]:
        """HostState.enter in Redis, and its rate in whole questions a second; `now` stands in for
        Redis' own clock. Raises RedisError.
        """
        wait, rate = await self._enter(self._keys(host), self._args(host, token, now))
        return float(wait), float(rate)

    async def tell(
        self,
        host: str,
        token: str,
        trouble: Trouble,
        retry_after: float | None,
        more: int = 0,
        now: float | None = None,
    ) -> None:
        """HostState.leave in Redis. Raises RedisError."""
        pause = (
            limiter.USUAL_PAUSE if retry_after is None else min(retry_after, limiter.LONGEST_PAUSE)
        )
        args = self._args(host, token, now)[:8]
        args += [trouble, int(trouble in FAILURES), pause]
        args += [limiter.SLOWER, limiter.FASTER, limiter.SLOWEST, more, limiter.FORGOTTEN]
        await self._leave(self._keys(host), args)

    def _keys(self, host: str) -> list[str]:
        return [f"{self._prefix}{host}", f"{self._prefix}{host}:permits"]

    def _args(self, host: str, token: str, now: float | None) -> list[Any]:
        of = self._limits_of(host)
        return [
            "" if now is None else repr(now), token, of.at_once, of.per_second, of.failures,
            of.rest, limiter.LOST_AFTER, limiter.MARGIN, limiter.NO_PERMIT,
        ]  # fmt: skip
