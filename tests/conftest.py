"""Fixtures shared by tests of the apps and of the interface."""

from __future__ import annotations

import json
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from typing import Any

import pytest


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Browser tests last: their event loop stays, and asynchronous tests want one of their own."""
    for item in items:
        if "/e2e/" in str(item.path):
            item.add_marker(pytest.mark.e2e)
    items.sort(key=lambda item: "e2e" in item.keywords)


class Registry:
    """The simulated registries in a process of their own."""

    def __init__(self) -> None:
        with socket.socket() as s:
            s.bind(("127.0.0.1", 0))
            self.port = int(s.getsockname()[1])
        self.origin = f"http://127.0.0.1:{self.port}"
        self.bootstrap = f"{self.origin}/dns.json"
        self.start()

    def start(self) -> None:
        command = [sys.executable, "-m", "standins.registry", "--port", str(self.port)]
        self._process = subprocess.Popen(command)
        deadline = time.monotonic() + 20
        while time.monotonic() < deadline:
            with socket.socket() as s:
                if s.connect_ex(("127.0.0.1", self.port)) == 0:
                    return
            time.sleep(0.05)
        raise AssertionError("the simulated registries did not start")

    def stop(self) -> None:
        self._process.terminate()
        self._process.wait(10)

    def faults(self, **faults: object) -> None:
        """Misbehave from now on; without arguments, behave."""
        request = urllib.request.Request(  # noqa: S310 - loopback
            f"{self.origin}/_sim/faults", json.dumps(faults).encode(), method="PUT"
        )
        urllib.request.urlopen(request, timeout=5).close()  # noqa: S310 - loopback

    @property
    def served(self) -> int:
        """Domain queries so far."""
        with urllib.request.urlopen(f"{self.origin}/_sim/faults", timeout=5) as reply:  # noqa: S310
            document: dict[str, Any] = json.load(reply)
        return int(document["served"])


@pytest.fixture(scope="session")
def registries() -> Iterator[Registry]:
    running = Registry()
    yield running
    running.stop()


@pytest.fixture
def registry(registries: Registry) -> Iterator[Registry]:
    registries.faults()
    yield registries
    registries.faults()
