"""Fixtures shared by tests of the apps and of the interface."""

from __future__ import annotations

import contextlib
import gc
import http.client
import json
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator, Mapping
from pathlib import Path
from typing import Any
from urllib.parse import urlsplit, urlunsplit

import pytest
from hypothesis import settings as hypothesis_settings

from vinetag.lookup import sources
from vinetag.lookup.epp import simulated_gateways
from vinetag.lookup.hosting import simulated_hosting
from vinetag.lookup.settings import simulated

# Machines that run the tests are slow and noisy; nothing here is about speed.
hypothesis_settings.register_profile("steady", deadline=None)
hypothesis_settings.load_profile("steady")

# The word data are millions of objects that stay: going through them again finds nothing.
gc.set_threshold(50_000, 20, 100)


# What sellers and the payment page know us by, where nothing else is said.
WORD = "simulated-word"


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Browser tests last: their event loop stays, and asynchronous tests want one of their own."""
    for item in items:
        if "/e2e/" in str(item.path):
            item.add_marker(pytest.mark.e2e)
    items.sort(key=lambda item: "e2e" in item.keywords)


def _free_port() -> int:
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return int(s.getsockname()[1])


def asked(
    address: str,
    body: bytes | None = None,
    *,
    method: str = "GET",
    headers: Mapping[str, str] | None = None,
) -> tuple[int, Mapping[str, str], bytes]:
    """Status, headers and body of what is answered, whatever it is; nothing is followed."""
    parts = urlsplit(address)
    line = http.client.HTTPConnection(parts.netloc, timeout=5)
    with contextlib.closing(line):
        line.request(method, urlunsplit(("", "", *parts[2:])), body, headers or {})
        with line.getresponse() as reply:
            return reply.status, reply.headers, reply.read()


class Registry:
    """The simulated registries in a process of their own."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        # Between finding a port and listening there somebody else may have taken it.
        for _ in range(5):
            chosen: dict[int, None] = {}
            while len(chosen) < 5:
                chosen[_free_port()] = None
            self.port, self.dns_port, self.whois_port, self.mail_port, self.epp_port = chosen
            if self._comes_up():
                break
        else:
            raise AssertionError("the simulated registries did not start")
        self.dns = f"127.0.0.1:{self.dns_port}"
        self.origin = f"http://127.0.0.1:{self.port}"
        self.bootstrap = f"{self.origin}/dns.json"

    def start(self) -> None:
        assert self._comes_up(), "the simulated registries did not start"

    def _comes_up(self) -> bool:
        command = [sys.executable, "-m", "standins.registry", "--port", str(self.port)]
        command += ["--dns-port", str(self.dns_port), "--whois-port", str(self.whois_port)]
        command += ["--mail-port", str(self.mail_port), "--epp-port", str(self.epp_port)]
        command += ["--folder", str(self.folder)]
        self._process = subprocess.Popen(command)
        deadline = time.monotonic() + 20
        while time.monotonic() < deadline and self._process.poll() is None:
            # The mail server is the last to listen: where it does, all of them do.
            with socket.socket() as s:
                if s.connect_ex(("127.0.0.1", self.mail_port)) == 0:
                    time.sleep(0.1)
                    return self._process.poll() is None
            time.sleep(0.05)
        self._process.kill()
        self._process.wait(10)
        return False

    def stop(self) -> None:
        self._process.terminate()
        self._process.wait(40)

    @property
    def environment(self) -> dict[str, str]:
        """What makes look-ups ask here."""
        return simulated(self.port, self.dns_port, self.whois_port)

    @property
    def selling(self) -> dict[str, str]:
        """What makes orders go here."""
        gateways = simulated_gateways(self.epp_port, WORD, str(self.folder))
        gateways |= simulated_hosting(self.port, self.dns_port, WORD)
        return {**gateways, "VINETAG_TILL": f"{self.origin}/till", "VINETAG_TILL_SECRET": WORD}

    @property
    def books(self) -> dict[str, Any]:
        """What was bought here, and for how much."""
        return self._get("books")

    @property
    def seller(self) -> str:
        return f"{self.origin}/seller/"

    @property
    def mail(self) -> list[dict[str, Any]]:
        """The letters that came, in their order."""
        letters: list[dict[str, Any]] = self._get("mail")["letters"]
        return letters

    def faults(self, *several: dict[str, object], **fault: object) -> None:
        """Misbehave from now on; without arguments, behave."""
        self._put("faults", list(several) or fault)

    def clock(self, days: float) -> None:
        """Move the world's time so many days ahead of the real one."""
        self._put("clock", {"days": days})

    def limits(self, **per_second: float) -> None:
        """Refuse questions beyond these rates, by registry; count anew."""
        self._put("limits", {"per_second": per_second})

    @property
    def violations(self) -> int:
        """Questions beyond the limits."""
        return sum(self._get("limits")["violations"].values())

    @property
    def served(self) -> int:
        """RDAP queries so far."""
        return int(self._get("faults")["served"])

    def _put(self, what: str, document: object) -> None:
        request = urllib.request.Request(  # noqa: S310 - loopback
            f"{self.origin}/_sim/{what}", json.dumps(document).encode(), method="PUT"
        )
        urllib.request.urlopen(request, timeout=5).close()  # noqa: S310 - loopback

    def _get(self, what: str) -> dict[str, Any]:
        with urllib.request.urlopen(f"{self.origin}/_sim/{what}", timeout=5) as reply:  # noqa: S310
            document: dict[str, Any] = json.load(reply)
        return document


@pytest.fixture(scope="session")
def registries(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Registry]:
    running = Registry(tmp_path_factory.mktemp("simulated"))
    yield running
    running.stop()


@pytest.fixture
def registry(registries: Registry) -> Iterator[Registry]:
    registries.faults()
    registries.limits()
    yield registries
    registries.faults()
    registries.limits()


@pytest.fixture(autouse=True)
def _bootstraps_forgotten() -> None:
    """A port may serve another bootstrap in the next test."""
    sources._bootstraps.clear()
