"""How fast names are checked, against a bare loop with the same HTTP client.

    python scripts/bench_check.py [--names 1000] [--at-once 50] [--rounds 3]

Starts a simulated registry of its own on a free loopback port. Both sides ask the same questions
with the same number open at once; the bare loop reads the body and parses nothing.
"""

from __future__ import annotations

import argparse
import asyncio
import json
import random
import socket
import subprocess
import sys
import time

import aiohttp

from vinetag.core.lexicon import load_lexicon
from vinetag.core.names import FullName
from vinetag.lookup import Answer, HostLimits, open_client, sweep


def free_port() -> int:
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return int(s.getsockname()[1])


def names(count: int) -> list[FullName]:
    rng = random.Random(3)
    words = [w.text for w in load_lexicon().words.values() if w.zipf > 3.5 and "n" in w.pos]
    extensions = ("com", "net", "org", "shop")
    return [
        FullName(rng.choice(words) + rng.choice(words), extensions[i % 4]) for i in range(count)
    ]


async def bare(origin: str, asked: list[FullName], at_once: int) -> float:
    registry = {"com": "alderway", "net": "alderway", "org": "commonhall", "shop": "lanternhouse"}
    waiting = iter(asked)

    async def work(session: aiohttp.ClientSession) -> None:
        for name in waiting:
            async with session.get(f"{origin}/{registry[name.extension]}/domain/{name}") as reply:
                await reply.read()

    async with aiohttp.ClientSession(connector=aiohttp.TCPConnector(limit=0)) as session:
        began = time.perf_counter()
        await asyncio.gather(*(work(session) for _ in range(at_once)))
        return len(asked) / (time.perf_counter() - began)


async def ours(origin: str, asked: list[FullName], at_once: int) -> tuple[float, int]:
    got: list[Answer] = []
    limits = HostLimits(at_once=at_once)
    async with open_client(f"{origin}/dns.json", limits=limits) as client:
        began = time.perf_counter()
        await sweep(client, asked, got.append, at_once=at_once)
        rate = len(asked) / (time.perf_counter() - began)
    return rate, sum(a.status == "unsure" for a in got)


async def compare(origin: str, count: int, at_once: int, rounds: int) -> dict[str, object]:
    asked = names(count)
    await bare(origin, asked, at_once)
    pairs = []
    unsure = 0
    for _ in range(rounds):
        base = await bare(origin, asked, at_once)
        rate, unknown = await ours(origin, asked, at_once)
        unsure += unknown
        pairs.append((rate, base))
        print(f"checked {rate:7,.0f}/s   bare loop {base:7,.0f}/s   ratio {rate / base:.2f}")
    rate, base = sorted(pairs, key=lambda p: p[0] / p[1])[len(pairs) // 2]
    return {
        "names": count,
        "at_once": at_once,
        "checked_per_second": round(rate),
        "bare_loop_per_second": round(base),
        "ratio": round(rate / base, 3),
        "unsure": unsure,
    }


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("--names", type=int, default=1000)
    parser.add_argument("--at-once", type=int, default=50)
    parser.add_argument("--rounds", type=int, default=3)
    args = parser.parse_args()
    port = free_port()
    registry = subprocess.Popen([sys.executable, "-m", "standins.registry", "--port", str(port)])
    try:
        for _ in range(100):
            with socket.socket() as s:
                if s.connect_ex(("127.0.0.1", port)) == 0:
                    break
            time.sleep(0.1)
        origin = f"http://127.0.0.1:{port}"
        print(json.dumps(asyncio.run(compare(origin, args.names, args.at_once, args.rounds))))
    finally:
        registry.terminate()
        registry.wait()


if __name__ == "__main__":
    main()
