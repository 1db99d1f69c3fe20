"""How fast, how politely and how safely names are checked, all in one run against the stand-ins.

    python scripts/bench_check.py [--names 20000] [--rounds 3] [--only speed,polite,faulty,killed]

speed: look-ups without limits, against a bare loop that puts the same questions with the same
clients and as many at once, and decides nothing. polite: a registry that allows 50 a second, with
one process and with four; the registry counts violations. faulty: ten registries, one dead and one
slow; the other eight against their time alone. killed: 5,000 names under 10 extensions pasted into
the running application (./start has to be running, or pass its --address), a worker killed in the
middle. Memory is that of a process sweeping ten times as many names.
"""

from __future__ import annotations

import argparse
import asyncio
import json
import multiprocessing
import os
import random
import resource
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from http.cookiejar import CookieJar
from typing import Any

import aiodns
import aiohttp

from ops.parts import free_port, read_secrets
from ops.start import VAR, runner_of
from standins.registry import address_of
from standins.world import EXTENSIONS
from vinetag.core.lexicon import load_lexicon
from vinetag.core.names import FullName
from vinetag.lookup import Answer, HostLimits, LookupSettings, open_engine

AT_ONCE = 50
RATE = 50.0


def names(count: int, extensions: list[str], seed: int = 3) -> list[FullName]:
    rng = random.Random(seed)
    words = [w.text for w in load_lexicon().words.values() if w.zipf > 3.5 and "n" in w.pos]
    made = (rng.choice(words) + rng.choice(words) for _ in range(10 * count))
    labels = list(dict.fromkeys(made))[:count]
    return [FullName(label, extensions[i % len(extensions)]) for i, label in enumerate(labels)]


class World:
    """A simulated outside world of our own."""

    def __init__(self) -> None:
        self.port, self.dns_port = free_port(), free_port()
        command = [sys.executable, "-m", "standins.registry", "--port", str(self.port)]
        self.process = subprocess.Popen([*command, "--dns-port", str(self.dns_port)])
        for _ in range(200):
            with socket.socket() as s:
                if s.connect_ex(("127.0.0.1", self.port)) == 0:
                    break
            time.sleep(0.1)

    def put(self, what: str, document: object) -> None:
        url = f"http://127.0.0.1:{self.port}/_sim/{what}"
        body = json.dumps(document).encode()
        urllib.request.urlopen(urllib.request.Request(url, body, method="PUT")).close()

    def get(self, what: str) -> Any:
        with urllib.request.urlopen(f"http://127.0.0.1:{self.port}/_sim/{what}") as reply:
            return json.load(reply)

    def settings(self, **changes: Any) -> LookupSettings:
        where = {
            "bootstrap": f"http://127.0.0.1:{self.port}/dns.json",
            "dns": f"127.0.0.1:{self.dns_port}",
            "limits": HostLimits(at_once=AT_ONCE),
        }
        return LookupSettings(**{**where, **changes})


@contextmanager
def world() -> Iterator[World]:
    running = World()
    try:
        yield running
    finally:
        running.process.terminate()
        running.process.wait()


async def bare(of: World, asked: list[FullName]) -> float:
    """The same questions: name servers, and the registry where they do not know the name."""
    waiting = iter(asked)
    resolver = aiodns.DNSResolver(
        ["127.0.0.1"], udp_port=of.dns_port, tcp_port=of.dns_port, timeout=2.0, tries=1
    )
    bases = {e: f"http://{address_of(r)}:{of.port}/{r}" for e, (r, *_) in EXTENSIONS.items()}

    async def work(session: aiohttp.ClientSession) -> None:
        for name in waiting:
            try:
                await resolver.query_dns(str(name), "NS")
                continue
            except aiodns.error.DNSError:
                pass
            async with session.get(f"{bases[name.extension]}/domain/{name}") as reply:
                await reply.read()

    async with aiohttp.ClientSession(connector=aiohttp.TCPConnector(limit=0)) as session:
        began = time.perf_counter()
        await asyncio.gather(*(work(session) for _ in range(AT_ONCE)))
        rate = len(asked) / (time.perf_counter() - began)
    await resolver.close()
    return rate


async def ours(settings: LookupSettings, asked: list[FullName]) -> tuple[float, int]:
    unsure = 0

    def deliver(answer: Answer) -> None:
        nonlocal unsure
        unsure += answer.status == "unsure"

    async with open_engine(settings) as engine:
        began = time.perf_counter()
        await engine.sweep(asked, deliver)
        return len(asked) / (time.perf_counter() - began), unsure


def speed(count: int, rounds: int, redis: str) -> dict[str, Any]:
    asked = names(count, ["com"])
    found = {}
    with world() as of:
        asyncio.run(bare(of, asked))
        for kind, where in (("alone", ""), ("shared", redis)):
            pairs, unknown = [], 0
            for _ in range(rounds):
                base = asyncio.run(bare(of, asked))
                rate, unsure = asyncio.run(ours(of.settings(redis=where), asked))
                unknown += unsure
                pairs.append((rate, base))
                print(f"{kind}: {rate:6,.0f}/s  bare {base:6,.0f}/s  {rate / base:.2f}", flush=True)
            rate, base = sorted(pairs, key=lambda p: p[0] / p[1])[len(pairs) // 2]
            found[f"limits_{kind}"] = {
                "per_second": round(rate),
                "bare_per_second": round(base),
                "ratio": round(rate / base, 3),
                "unsure": unknown,
            }
        # Without limits in Redis: what a sweep holds must not grow with the names it is given.
        found["memory_mb"] = {
            str(n): in_process(_sweep_memory, of.settings(), n) for n in (count // 10, count)
        }
    return {"names": count, **found}


def _sweep_memory(settings: LookupSettings, count: int) -> float:
    labels = (FullName(f"name{n}x{n % 97}", "com") for n in range(count))

    async def run() -> None:
        async with open_engine(settings) as engine:
            await engine.sweep(labels, lambda _: None)

    asyncio.run(run())
    return round(resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024, 1)


def in_process(work: Any, *args: Any) -> Any:
    with multiprocessing.get_context("spawn").Pool(1) as pool:
        return pool.apply(work, args)


def _polite(settings: LookupSettings, asked: list[FullName]) -> float:
    return asyncio.run(ours(settings, asked))[0]


def polite(redis: str, seconds: float) -> dict[str, Any]:
    found = {}
    asked = names(int(RATE * seconds), ["com"])
    with world() as of:
        for workers in (1, 4):
            of.put("limits", {"per_second": {"alderway": RATE}, "burst": 10})
            limits = HostLimits(at_once=10, per_second=RATE)
            settings = of.settings(dns="", redis=redis, limits=limits)
            parts = [(settings, asked[i::workers]) for i in range(workers)]
            with multiprocessing.get_context("spawn").Pool(workers) as pool:
                pool.starmap(_polite, [(settings, part[:1]) for _, part in parts])  # imports
                time.sleep(0.5)
                of.put("limits", {"per_second": {"alderway": RATE}, "burst": 10})
                began = time.perf_counter()
                pool.starmap(_polite, parts, chunksize=1)
                took = time.perf_counter() - began
            counted = of.get("limits")
            found[f"{workers}_workers"] = {
                "share_of_rate": round(len(asked) / took / RATE, 3),
                "violations": sum(counted["violations"].values()),
                "asked": sum(counted["asked"].values()),
            }
            print(f"polite, {workers} workers: {found[f'{workers}_workers']}", flush=True)
    return found


def faulty(per_registry: int) -> dict[str, Any]:
    """Time until the eight sound registries have answered, with and without the two others."""
    by_registry: dict[str, str] = {}
    for extension, (registry, *_) in EXTENSIONS.items():
        if "." not in extension:
            by_registry.setdefault(registry, extension)
    ten = list(by_registry.items())[:10]
    dead, slow = ten[0], ten[1]
    sound = [extension for _, extension in ten[2:]]

    async def time_of(settings: LookupSettings, asked: list[FullName]) -> float:
        left = sum(name.extension in sound for name in asked)
        began, took, stop = time.perf_counter(), 0.0, asyncio.Event()

        def deliver(answer: Answer) -> None:
            nonlocal left, took
            left -= answer.name.extension in sound
            if not left and not took:
                took = time.perf_counter() - began
                stop.set()

        async with open_engine(settings) as engine:
            await engine.sweep(asked, deliver, stop=stop)
        return took

    with world() as of:
        faults = [
            {"kind": "loss", "registry": dead[0]},
            {"kind": "slow", "registry": slow[0], "seconds": 2},
        ]
        settings = of.settings(dns="", timeout=3.0, limits=HostLimits(at_once=10))
        every = names(per_registry * 10, [extension for _, extension in ten])
        alone = [name for name in every if name.extension in sound]
        asyncio.run(time_of(settings, alone))
        pairs = []
        for _ in range(3):
            of.put("faults", {})
            base = asyncio.run(time_of(settings, alone))
            of.put("faults", faults)
            pairs.append((asyncio.run(time_of(settings, every)), base))
        both, base = sorted(pairs, key=lambda p: p[0] / p[1])[1]
    found = {"alone_seconds": round(base, 2), "with_both": round(both, 2)}
    found["ratio"] = round(both / base, 3)
    print(f"faulty: {found}", flush=True)
    return found


class Site:
    """The running application, as a browser talks to it."""

    def __init__(self, address: str) -> None:
        self.address, self.jar = address, CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.opener.open(f"{address}/").close()
        self("POST", "session/demo")

    def __call__(self, method: str, path: str, body: object = None) -> Any:
        token = next((c.value or "" for c in self.jar if c.name == "csrftoken"), "")
        head = {"Content-Type": "application/json", "X-CSRFToken": token, "Referer": self.address}
        data = None if body is None and method == "GET" else json.dumps(body or {}).encode()
        url = f"{self.address}/api/{path}"
        request = urllib.request.Request(url, data, head, method=method)  # noqa: S310 - ours
        with self.opener.open(request, timeout=60) as reply:
            text = reply.read()
        return json.loads(text) if text else None


def killed(address: str, count: int) -> dict[str, Any]:
    site = Site(address)
    project = site("GET", "projects")[0]
    base = f"projects/{project['id']}"
    extensions = "com net org info ie co.uk shop studio club press".split()
    rng = random.Random(time.time())
    labels = [f"bench{rng.randrange(10**9)}{n}" for n in range(count)]
    began = time.perf_counter()
    taken = site("PUT", f"{base}/pasted", {"text": "\n".join(labels), "extensions": extensions})
    check = site("POST", f"{base}/checks", {"what": "pasted"})
    started = time.perf_counter()
    first, slowest, dead, done = 0.0, 0.0, False, 0
    while True:
        before = time.perf_counter()
        site("GET", f"{base}/names")
        slowest = max(slowest, time.perf_counter() - before)
        progress = site("GET", f"{base}/checks")["check_run"]
        if progress["done"] and not first:
            first = time.perf_counter() - began
        if progress["done"] > check["total"] // 3 and not dead:
            dead = True
            print(f"killed: a worker at {progress['done']:,} answers", flush=True)
            kill_worker()
        if progress["state"] in ("done", "stopped"):
            break
        if progress["done"] // 5000 != done // 5000:
            done = progress["done"]
            print(f"  {done:,} of {progress['total']:,}", flush=True)
        time.sleep(0.05 if not first else 0.5)
    took = time.perf_counter() - started
    page = site("GET", f"{base}/pasted?limit=1")
    return {
        "pasted": taken["names"],
        "full_names": check["total"],
        "first_answers_seconds": round(first, 2),
        "slowest_page_seconds": round(slowest, 2),
        "seconds": round(took, 1),
        "per_second": round(check["total"] / took),
        "answered": sum(n for s, n in page["statuses"].items() if s != "not asked"),
        "not_answered": page["statuses"].get("not asked", 0),
        "statuses": page["statuses"],
    }


def away(address: str, count: int, seconds: float) -> dict[str, Any]:
    """The simulated registries are ended in the middle of a check for so many seconds; what became
    of its names.
    """
    site = Site(address)
    base = f"projects/{site('GET', 'projects')[0]['id']}"
    rng = random.Random(time.time())
    labels = [f"bench{rng.randrange(10**9)}{n}" for n in range(count)]
    site("PUT", f"{base}/pasted", {"text": "\n".join(labels), "extensions": ["com"]})
    began = time.perf_counter()
    check = site("POST", f"{base}/checks", {"what": "pasted"})
    gone_at = 0.0
    gone = back = False
    told_of: list[str] = []
    while True:
        progress = site("GET", f"{base}/checks")["check_run"]
        told_of = told_of or progress["away"]
        if not gone and progress["done"] > check["total"] // 3:
            gone, gone_at = True, time.perf_counter()
            print(f"away: registries ended at {progress['done']:,} answers", flush=True)
            with runner_of({"VINETAG_CONTROL": str(VAR / "control.sock")}) as runner:
                runner.stopProcess("registry")
        if gone and not back and time.perf_counter() - gone_at > seconds:
            back = True
            print(f"away: back at {progress['done']:,} answers", flush=True)
            with runner_of({"VINETAG_CONTROL": str(VAR / "control.sock")}) as runner:
                runner.startProcess("registry")
        if progress["state"] in ("done", "stopped") or time.perf_counter() - began > 400:
            break
        time.sleep(0.2)
    page = site("GET", f"{base}/pasted?limit=1")
    return {
        "full_names": check["total"],
        "away_seconds": seconds,
        "told_of": told_of,
        "seconds_after_it_was_back": round(time.perf_counter() - gone_at - seconds, 1),
        "unsure": page["statuses"].get("unsure", 0),
        "not_answered": page["statuses"].get("not asked", 0),
        "statuses": page["statuses"],
    }


def kill_worker() -> None:
    """Kill a process of the worker's pool, and the worker, as a machine that fails would."""
    found = subprocess.run(["pgrep", "-f", "celery -A vinetag"], capture_output=True, text=True)
    for pid in found.stdout.split():
        os.kill(int(pid), signal.SIGKILL)


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("--names", type=int, default=20_000)
    parser.add_argument("--rounds", type=int, default=3)
    parser.add_argument("--seconds", type=float, default=20, help="of asking politely")
    parser.add_argument("--only", default="speed,polite,faulty,killed,away")
    parser.add_argument("--address", default="http://127.0.0.1:8700")
    password = read_secrets(VAR)["VINETAG_REDIS_PASSWORD"]
    queue = f"redis://:{password}@127.0.0.1:8714/9"
    parser.add_argument("--redis", default=queue, help="for shared limits")
    parser.add_argument("--pasted", type=int, default=5_000)
    args = parser.parse_args()
    found: dict[str, Any] = {}
    for part in args.only.split(","):
        if part == "speed":
            found[part] = speed(args.names, args.rounds, args.redis)
        elif part == "polite":
            found[part] = polite(args.redis, args.seconds)
        elif part == "faulty":
            found[part] = faulty(1_000)
        elif part == "killed":
            found[part] = killed(args.address, args.pasted)
        elif part == "away":
            found[part] = away(args.address, args.pasted, 30.0)
    print(json.dumps(found))


if __name__ == "__main__":
    main()
