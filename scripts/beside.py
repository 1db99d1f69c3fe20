"""What runs beside a benchmark: a database that keeps what it said it kept, a queue, and the
simulated world, each a process that can be killed.
"""

from __future__ import annotations

import json
import os
import socket
import subprocess
import sys
import tempfile
import urllib.request
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from ops.parts import MariaDb, Redis, free_port, wait_for
from vinetag.lookup.epp import simulated_gateways
from vinetag.lookup.settings import simulated

__all__ = ["Parts", "parts"]

WORD = "only-for-benchmarks"
PORTS = ("--port", "--dns-port", "--whois-port", "--mail-port", "--epp-port")


@dataclass
class Parts:
    """The processes; `origin` is where the simulated world is told and asked."""

    database: MariaDb
    queue: Redis
    running: subprocess.Popen[bytes]
    queueing: subprocess.Popen[bytes]
    origin: str

    def kill_database(self) -> None:
        """As kill -9; it is up again afterwards."""
        self.running.kill()
        self.running.wait()
        self.running = subprocess.Popen(self.database.command(), stderr=subprocess.DEVNULL)
        wait_for(self.database.is_up, 60, "The database")

    def kill_queue(self) -> None:
        """As kill -9; it is up again afterwards."""
        self.queueing.kill()
        self.queueing.wait()
        self.queueing = subprocess.Popen(self.queue.command(), stdout=subprocess.DEVNULL)
        wait_for(self.queue.is_up, 20, "The queue")

    def read(self, what: str) -> Any:
        """What the simulated world tells under /_sim."""
        with urllib.request.urlopen(f"{self.origin}/_sim/{what}", timeout=20) as reply:  # noqa: S310 - loopback
            return json.load(reply)

    def tell(self, what: str, document: object) -> None:
        """Change the simulated world."""
        request = urllib.request.Request(  # noqa: S310 - loopback
            f"{self.origin}/_sim/{what}", json.dumps(document).encode(), method="PUT"
        )
        urllib.request.urlopen(request, timeout=10).close()  # noqa: S310 - loopback


@contextmanager
def parts(more: Mapping[str, str] | None = None) -> Iterator[Parts]:
    """Start all of it, and set the environment so that it is used; `more` of it."""
    with tempfile.TemporaryDirectory(prefix="vinetag-bench-") as folder:
        var = Path(folder)
        database, queue = MariaDb(var, free_port()), Redis(var, free_port(), WORD)
        database.prepare()
        running = subprocess.Popen(database.command(), stderr=subprocess.DEVNULL)
        queueing = subprocess.Popen(queue.command(), stdout=subprocess.DEVNULL)
        ports = [free_port() for _ in PORTS]
        options = [w for word, port in zip(PORTS, ports, strict=True) for w in (word, str(port))]
        secrets = {"VINETAG_EPP_PASSWORD": WORD, "VINETAG_TILL_SECRET": WORD}
        world = subprocess.Popen(
            [sys.executable, "-m", "standins.registry", *options, "--folder", str(var / "world")],
            env={**os.environ, **secrets},
        )
        found = Parts(database, queue, running, queueing, f"http://127.0.0.1:{ports[0]}")
        try:
            wait_for(database.is_up, 60, "The database")
            wait_for(queue.is_up, 20, "The queue")
            wait_for(lambda: all(map(_listens, (ports[0], ports[3]))), 20, "The simulated world")
            database.grant(WORD)
            os.environ |= {
                "DJANGO_SETTINGS_MODULE": "vinetag.config.settings.run",
                "VINETAG_SECRET_KEY": WORD,
                "VINETAG_DB_PORT": str(database.port),
                "VINETAG_DB_PASSWORD": WORD,
                "VINETAG_REDIS_URL": queue.url,
                "VINETAG_LAKE": str(var / "lake"),
                "VINETAG_MAIL": f"127.0.0.1:{ports[3]}",
                **simulated(*ports[:3]),
                **simulated_gateways(ports[4], WORD, str(var / "world")),
                "VINETAG_TILL": f"{found.origin}/till",
                **secrets,
                **(more or {}),
            }
            yield found
        finally:
            for process in (world, found.queueing, found.running):
                process.terminate()
                process.wait(30)


def _listens(port: int) -> bool:
    with socket.socket() as s:
        return s.connect_ex(("127.0.0.1", port)) == 0
