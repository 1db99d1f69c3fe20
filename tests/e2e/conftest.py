"""The whole application as processes of its own, and a browser in front of it."""

from __future__ import annotations

import os
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from itertools import count
from pathlib import Path
from typing import Any

import MySQLdb
import pytest
from playwright.sync_api import APIResponse, Browser, BrowserContext, Page, expect

from tests.conftest import Registry
from vinetag.core.concepts import RECIPE_NAMES
from vinetag.core.make.listing import TIERS

# Browser tests run side by side, too, and beside all others.
WORKER = int(os.environ.get("PYTEST_XDIST_WORKER", "gw0").removeprefix("gw"))
DATABASE = f"test_vinetag_e2e_{WORKER}"
REDIS = f"{os.environ.get('VINETAG_REDIS_URL', '').rpartition('/')[0]}/{8 + WORKER}"
FLAGS = (
    "--no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking "
    "--disable-component-update --disable-sync"
).split()
PASSWORD = "quiet-ink-post"
numbers = count(1)
expect.set_options(timeout=60_000)  # machines that run this are slow and noisy


def free_port() -> int:
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return int(s.getsockname()[1])


class Site:
    """The web server and one worker."""

    def __init__(self, registry: Registry, folder: Path) -> None:
        self.port = free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self._log = (folder / "site.log").open("w+")
        self._env = {
            **os.environ,
            "DJANGO_SETTINGS_MODULE": "vinetag.config.settings.run",
            "VINETAG_SECRET_KEY": "only-for-tests",
            "VINETAG_DB_NAME": DATABASE,
            "VINETAG_REDIS_URL": REDIS,
            **registry.environment,
            **registry.selling,
            "VINETAG_LAKE": str(folder / "lake"),
            # Making up zones takes the simulation a while, in which it answers slowly.
            "VINETAG_ZONES": "",
            "VINETAG_SIGN_IN_RATE": "10000/min",
            "VINETAG_SIGN_UP_RATE": "10000/min",
            "VINETAG_JOIN_RATE": "10000/min",
            "VINETAG_DEMO": "1",
            "VINETAG_MAIL": f"127.0.0.1:{registry.mail_port}",
            "VINETAG_MAIL_READER": f"{registry.origin}/mail",
            "VINETAG_ADDRESS": self.address,
            "VINETAG_CHECK_LEASE": "3",
        }
        subprocess.run(
            [sys.executable, "manage.py", "prepare", "--demo"], env=self._env, check=True
        )
        self._web = self._run("vinetag.config.serve", "--port", str(self.port))
        celery = "celery -A vinetag.jobs"
        options = "--concurrency 1 --without-gossip --loglevel error"
        files = f"worker --queues files,watching,ordering {options}"
        beat = f"beat --schedule {folder / 'beat'} --pidfile= --loglevel error"
        self._others = [self._run(*f"{celery} {what}".split()) for what in (files, beat)]
        self.start_worker()
        self._wait()

    def _run(self, *words: str) -> subprocess.Popen[bytes]:
        return subprocess.Popen(
            [sys.executable, "-m", *words],
            env=self._env,
            stdout=self._log,
            stderr=self._log,
            start_new_session=True,
        )

    def start_worker(self) -> None:
        options = "--queues checks --concurrency 1 --without-gossip --loglevel error"
        self.worker = self._run("celery", "-A", "vinetag.jobs", "worker", *options.split())

    def kill_worker(self) -> None:
        """As kill -9 on every process of it."""
        os.killpg(self.worker.pid, signal.SIGKILL)
        self.worker.wait(10)

    def _wait(self) -> None:
        deadline = time.monotonic() + 60
        while time.monotonic() < deadline:
            try:
                urllib.request.urlopen(f"{self.address}/api/session", timeout=5).close()  # noqa: S310
                return
            except OSError:
                time.sleep(0.1)
        self._log.seek(0)
        raise AssertionError(f"the site did not start:\n{self._log.read()}")

    def stop(self) -> None:
        parts = (self.worker, self._web, *self._others)
        for process in parts:
            if process.poll() is None:
                os.killpg(process.pid, signal.SIGTERM)
        for process in parts:
            try:
                process.wait(15)
            except subprocess.TimeoutExpired:
                os.killpg(process.pid, signal.SIGKILL)
                process.wait(10)
        self._log.close()


def administer(statement: str) -> None:
    port = int(os.environ["VINETAG_DB_PORT"])
    password = os.environ["VINETAG_DB_PASSWORD"]
    connection = MySQLdb.connect(
        host="127.0.0.1", port=port, user="vinetag", password=password, autocommit=True
    )
    try:
        connection.cursor().execute(statement)
    finally:
        connection.close()


@pytest.fixture(scope="session")
def site(registries: Registry, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Site]:
    administer(f"DROP DATABASE IF EXISTS {DATABASE}")
    administer(f"CREATE DATABASE {DATABASE} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_520_ci")
    running = Site(registries, tmp_path_factory.mktemp("site"))
    yield running
    running.stop()
    administer(f"DROP DATABASE {DATABASE}")


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, Any]:
    return {"executable_path": "/usr/bin/chromium-headless-shell", "args": FLAGS}


@pytest.fixture(scope="session")
def base_url(site: Site) -> str:
    return site.address


@pytest.fixture
def context(browser: Browser, base_url: str) -> Iterator[BrowserContext]:
    """A window of the smallest size the bench is made for. Failing to load from elsewhere, or any
    error in the console, fails the test.
    """
    opened = browser.new_context(base_url=base_url, viewport={"width": 1280, "height": 800})
    yield opened
    opened.close()


@pytest.fixture
def page(context: BrowserContext, base_url: str, registries: Registry) -> Iterator[Page]:
    opened = context.new_page()
    trouble: list[str] = []
    opened.on("pageerror", lambda error: trouble.append(str(error)))
    # Somebody who pays is sent to the payment page.
    own = (base_url, "data:", "blob:", f"{registries.origin}/till/pay/")
    opened.on("request", lambda r: r.url.startswith(own) or trouble.append(r.url))
    yield opened
    assert trouble == []


def send(page: Page, method: str, path: str, data: dict[str, Any]) -> APIResponse:
    """Asks the API as the page's own person would, without drawing anything."""
    [token] = [c["value"] for c in page.context.cookies() if c["name"] == "csrftoken"]
    headers = {"X-CSRFToken": token}
    return page.context.request.fetch(path, method=method, data=data, headers=headers)


@pytest.fixture
def person(page: Page) -> str:
    """Someone with an account who has seen the tour; both have tests of their own."""
    name = f"edda{next(numbers)}"
    page.context.request.get("/api/session")
    made = send(page, "POST", "/api/session/sign-up", {"username": name, "password": PASSWORD})
    assert made.ok, made.text()
    assert send(page, "PATCH", "/api/preferences", {"toured": True}).ok
    page.goto("/")
    expect(page.get_by_role("heading", name="Projects")).to_be_visible()
    return name


def new_project(page: Page, name: str, words: str) -> None:
    """From the list of projects to the bench of a new one, with its list whole."""
    page.get_by_role("button", name="New project").first.click()
    page.get_by_label("Working title").fill(name)
    page.get_by_label("Words", exact=True).fill(words)
    page.get_by_role("button", name="Make names").click()
    expect(page.get_by_role("rowheader").first).to_be_visible()
    whole(page)


# Few recipes: for what does not depend on the names, a list is made in a moment.
FEW = {"off": sorted({*RECIPE_NAMES} - {"pair", "tail"})}


def open_project(page: Page, name: str, words: str = "ink, paper") -> None:
    """The bench of a project that is there already, with few names. What others asked about with
    the same words is known: who counts questions takes words of its own.
    """
    brief = {"keywords": words.split(", "), "extensions": ["com", "net", "org"], "making": FEW}
    made = send(page, "POST", "/api/projects", {"name": name, "brief": brief})
    assert made.ok, made.text()
    page.goto(f"/projects/{made.json()['id']}")
    expect(page.get_by_role("rowheader").first).to_be_visible()
    whole(page)


def whole(page: Page) -> None:
    """Waits until more than the first names are listed, which happens by itself."""
    grid = page.get_by_role("grid", name="Names")
    first = str(TIERS[0][2] + 1)  # with the row of heads
    expect(grid).not_to_have_attribute("aria-rowcount", first)
    expect(grid).to_have_attribute("aria-busy", "false")
