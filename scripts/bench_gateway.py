"""Asking a seller's gateway about names in checks against asking it name by name, and putting zones
into force.

    python -m scripts.bench_gateway [--names 2000] [--records 500]

The baseline is a loop over the same client and one session with a command a name; ours is the
source of checks, whose questions of fifty names are gathered from whoever asks at once. Both ask
about the same names, in turn, three times, the median counts. Then a zone of so many records is put
into force, one of them is changed, and it is looked at as the world sees it. Starts the simulated
world. Prints one JSON object.
"""

from __future__ import annotations

import argparse
import asyncio
import json
import os
import random
import statistics
import time
from collections.abc import Sequence

from scripts.beside import WORD, parts
from vinetag.core.names import FullName
from vinetag.core.zone import Record, read_record
from vinetag.core.zone.records import name_in
from vinetag.lookup import LookupSettings, open_engine
from vinetag.lookup.epp import Done, EppGateway
from vinetag.lookup.hosting import Hosting, hosting_from_env, simulated_hosting
from vinetag.lookup.outside import Outside, look

ROUNDS = 3


def one_by_one(settings: LookupSettings, names: Sequence[FullName]) -> float:
    """Seconds of the baseline."""
    if settings.gateway is None:
        raise SystemExit("no gateway")
    gateway = EppGateway(settings.gateway)
    gateway.open()
    began = time.perf_counter()
    for name in names:
        if isinstance(gateway.check([str(name)], 1), Done):
            raise SystemExit(f"{name} was not answered")
    took = time.perf_counter() - began
    gateway.close()
    return took


async def by_source(settings: LookupSettings, names: Sequence[FullName]) -> float:
    """Seconds of a check that asks nobody else."""
    async with open_engine(settings) as engine:
        source = engine._sources["gateway"]
        began = time.perf_counter()
        found = await asyncio.gather(*(source.ask(name) for name in names))
    failed = [one for one in found if not one.evidence.says]
    if failed:
        raise SystemExit(f"{len(failed)} were not answered: {failed[0]}")
    return time.perf_counter() - began


def zone(count: int) -> dict[str, float]:
    """Seconds of putting a zone into force, of changing one record, and of looking at it."""
    dns_port, port = int(os.environ["VINETAG_DNS"].rpartition(":")[2]), 0
    known = hosting_from_env(simulated_hosting(port, dns_port, "simulated-word"))
    if known is None:
        raise SystemExit("no name servers")
    origin, hosting = "bench-zone.com", Hosting(known)
    records: list[Record] = [
        read_record(origin, f"h{n}", "A", 300, f"8.8.{n // 250}.{n % 250}") for n in range(count)
    ]

    def timed(rows: Sequence[Record]) -> float:
        began = time.perf_counter()
        done = hosting.publish(origin, rows)
        if done.trouble:
            raise SystemExit(f"{done}")
        return round(time.perf_counter() - began, 3)

    whole = timed(records)
    changed = timed([*records[1:], read_record(origin, "h0", "A", 300, "9.9.9.9")])
    where = Outside("127.0.0.1", dns_port, dns_port, anywhere=True)
    keys = [(name_in(origin, one.name), one.kind) for one in records]
    began = time.perf_counter()
    asyncio.run(look(origin, keys, where))
    looked = round(time.perf_counter() - began, 3)
    return {"put_into_force_s": whole, "one_record_changed_s": changed, "looked_at_s": looked}


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("--names", type=int, default=2_000)
    parser.add_argument("--records", type=int, default=500)
    args = parser.parse_args()
    rng = random.Random(4)
    names = [FullName(f"qz{rng.getrandbits(40):010x}", "com") for _ in range(args.names)]
    with parts({"VINETAG_CHECK_GATEWAY": "lantern", "VINETAG_EPP_PASSWORD": WORD}):
        settings = LookupSettings.from_env(os.environ)
        pairs = [
            (one_by_one(settings, names), asyncio.run(by_source(settings, names)))
            for _ in range(ROUNDS)
        ]
        single, ours = (statistics.median(side) for side in zip(*pairs, strict=True))
        print(
            json.dumps(
                {
                    "names": args.names,
                    "one_by_one_s": round(single, 2),
                    "checks_s": round(ours, 2),
                    "times_as_fast": round(single / ours, 1),
                    "records": args.records,
                    **zone(args.records),
                },
                indent=1,
            )
        )


if __name__ == "__main__":
    main()
