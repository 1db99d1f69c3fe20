"""./start: every part comes up, comes back, and is gone when told to stop."""

import argparse
import base64
import http.cookiejar
import json
import os
import re
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest

from ops import start
from ops.parts import ROOT, MariaDb, PartError, Redis, free_port
from vinetag.lookup.epp import gateways_from_env
from vinetag.lookup.hosting import hosting_from_env

# What is set up for all of them is set up by one worker.
pytestmark = pytest.mark.xdist_group("start")
PARTS = (
    "port",
    "registry-port",
    "dns-port",
    "whois-port",
    "mail-port",
    "epp-port",
    "db-port",
    "redis-port",
)
KILLED = {
    "web": "vinetag.config.serve",
    "worker": "worker --hostname checks",
    "worker for files": "worker --hostname files",
    "worker that watches": "worker --hostname watch",
    "worker for orders": "worker --hostname orders",
    "schedule": "vinetag.jobs beat",
    "registry": "standins.registry",
    "redis": "redis-server",
    "database": "mariadbd",
}


@pytest.fixture(scope="module")
def bare_python(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """An environment with the requirements of a running application, and nothing else."""
    place = tmp_path_factory.mktemp("bare") / "venv"
    uv = str(ROOT / ".venv/bin/uv")
    python = place / "bin/python"
    for words in (
        ["venv", "-q", "--python", sys.executable, str(place)],
        ["pip", "install", "-q", "--python", str(python), "-r", str(ROOT / "requirements.txt")],
    ):
        subprocess.run([uv, *words], check=True)
    return python


def outside(**more: str) -> dict[str, str]:
    """The environment of someone who has set nothing."""
    ours = ("VINETAG_", "DJANGO_", "PYTHON", "VIRTUAL_ENV")
    return {**{k: v for k, v in os.environ.items() if not k.startswith(ours)}, **more}


class Start:
    """One installation in a folder of its own."""

    def __init__(self, var: Path, python: str | Path = sys.executable) -> None:
        self.var, self.python = var, str(python)
        chosen: set[int] = set()
        while len(chosen) < len(PARTS):  # the same free port may be found twice
            chosen.add(free_port())
        self.ports = dict(zip(PARTS, chosen, strict=True))
        self.address = f"http://127.0.0.1:{self.ports['port']}"
        self.process: subprocess.Popen[str] | None = None

    def run(self, *extra: str) -> subprocess.Popen[str]:
        ports = [word for part, port in self.ports.items() for word in (f"--{part}", str(port))]
        # As a shell starts what runs in the background: with interrupts switched off.
        background = ["sh", "-c", 'trap "" INT; exec "$@"', "sh"]
        return subprocess.Popen(
            [*background, self.python, "-m", "ops.start", *ports, *extra],
            env=outside(VINETAG_VAR=str(self.var)),
            stdout=subprocess.PIPE,
            stderr=subprocess.STDOUT,
            text=True,
        )

    def up(self) -> None:
        self.process = self.run()
        assert self.process.stdout is not None
        said = []
        for line in self.process.stdout:
            said.append(line)
            if "Ctrl-C" in line:
                return
        raise AssertionError(f"it did not come up: {''.join(said)}")

    def down(self, sign: signal.Signals) -> int:
        assert self.process is not None
        self.process.send_signal(sign)
        code = self.process.wait(60)
        assert self.process.stdout is not None
        self.process.stdout.close()
        self.process = None
        return code

    def processes(self) -> dict[int, str]:
        """Command lines of everything that runs for this folder, by process."""
        mark = f"VINETAG_VAR={self.var}".encode()
        found = {}
        for entry in Path("/proc").iterdir():
            if entry.name.isdigit():
                try:
                    if mark in (entry / "environ").read_bytes().split(b"\0"):
                        command = (entry / "cmdline").read_bytes().replace(b"\0", b" ").decode()
                        found[int(entry.name)] = command
                except OSError:
                    continue
        return {pid: command for pid, command in found.items() if command}

    def projects(self) -> list[dict[str, Any]]:
        """The demo workspace's projects, asked for until everything is back."""
        deadline = time.monotonic() + 90
        while True:
            try:
                jar = urllib.request.HTTPCookieProcessor(http.cookiejar.CookieJar())
                opener = urllib.request.build_opener(jar)
                opener.open(f"{self.address}/api/session", timeout=10).close()
                token = next(c.value for c in jar.cookiejar if c.name == "csrftoken")
                headers = {"X-CSRFToken": str(token), "Content-Type": "application/json"}
                opener.open(
                    urllib.request.Request(  # noqa: S310 - loopback
                        f"{self.address}/api/session/demo", b"{}", headers
                    ),
                    timeout=10,
                ).close()
                with opener.open(f"{self.address}/api/projects", timeout=10) as reply:
                    projects: list[dict[str, Any]] = json.load(reply)
                return projects
            except OSError:
                if time.monotonic() > deadline:
                    raise
                time.sleep(0.3)


@pytest.fixture(scope="module")
def started(tmp_path_factory: pytest.TempPathFactory, bare_python: Path) -> Iterator[Start]:
    place = Start(tmp_path_factory.mktemp("start"), bare_python)
    place.up()
    yield place
    if place.process is not None:
        place.down(signal.SIGTERM)


@pytest.mark.parametrize(
    "words",
    [
        ["-c", "import vinetag.config.asgi"],
        ["-c", "from vinetag.jobs import app as a; a.connection().transport; a.finalize()"],
        ["-m", "standins.registry", "--help"],
        ["-m", "vinetag.cli", "make", "--words", "ink,post", "--limit", "3"],
        ["-c", "import ops.start, supervisor.supervisord"],
    ],
    ids=["web", "worker", "stand-ins", "command line", "start"],
)  # fmt: skip
def test_every_part_runs_with_nothing_but_the_requirements(
    bare_python: Path, words: list[str]
) -> None:
    env = outside(VINETAG_SECRET_KEY="x", DJANGO_SETTINGS_MODULE="vinetag.config.settings.run")
    done = subprocess.run(
        [str(bare_python), *words], env=env, cwd=ROOT, capture_output=True, text=True, check=False
    )
    assert done.returncode == 0, done.stderr


def test_the_address_is_printed_when_workers_answer_and_what_fails_is_named(
    started: Start, monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    """All workers answered before the start said that it was there."""
    assert {"worker", "filing", "watching", "schedule"} <= {
        p.stem for p in (started.var / "log").iterdir()
    }
    monkeypatch.setattr(start, "VAR", tmp_path)
    monkeypatch.setattr(start, "given_up", lambda *_: False)
    monkeypatch.setattr(start, "UP_WITHIN", 0.1)
    with pytest.raises(PartError, match=rf"(?s)The worker did not come up.*{tmp_path}/log/worker"):
        start.await_part({}, "worker", "The worker", lambda: False)
    monkeypatch.setattr(start, "given_up", lambda *_: True)
    with pytest.raises(PartError, match="The worker fails whenever it is started"):
        start.await_part({}, "worker", "The worker", lambda: False)


def test_what_is_in_the_environment_beats_what_was_made(
    monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    monkeypatch.setenv("VINETAG_SECRET_KEY", "mine")
    monkeypatch.delenv("VINETAG_DB_PASSWORD")
    ports = {"registry_port": 2, "dns_port": 3, "whois_port": 6, "mail_port": 7, "db_port": 4}
    ports |= {"redis_port": 5, "epp_port": 8}
    args = argparse.Namespace(port=1, **ports)
    made = {"VINETAG_SECRET_KEY": "made", "VINETAG_DB_PASSWORD": "made"}
    made |= {"VINETAG_EPP_PASSWORD": "a/b", "VINETAG_ZONE_WORD": "a:b"}
    env = start.environment(args, MariaDb(tmp_path, 4), Redis(tmp_path, 5, "p"), made)
    assert (env["VINETAG_SECRET_KEY"], env["VINETAG_DB_PASSWORD"]) == ("mine", "made")
    assert gateways_from_env(env)["weir"].password == "a/b"
    hosting = hosting_from_env(env)
    assert hosting is not None
    assert base64.b64decode(hosting.secret) == b"a:b"


def test_it_loads_demo_data_and_keeps_its_secrets_to_itself(started: Start) -> None:
    assert len(started.projects()) == 3
    secrets = started.var / "secrets.env"
    assert secrets.stat().st_mode & 0o077 == 0
    assert started.var.stat().st_mode & 0o077 == 0
    listening = subprocess.run(["ss", "-ltnH"], capture_output=True, text=True, check=False).stdout
    for port in started.ports.values():
        for address in re.findall(rf"(\S+):{port}\b", listening):
            assert address.startswith("127.")


@pytest.mark.parametrize("part", KILLED)
def test_a_killed_part_comes_back_with_its_data(started: Start, part: str) -> None:
    before = started.projects()
    hit = [pid for pid, command in started.processes().items() if KILLED[part] in command]
    assert hit
    for pid in hit:
        os.kill(pid, signal.SIGKILL)
    time.sleep(0.5)
    assert started.projects() == before
    deadline = time.monotonic() + 60
    while not any(KILLED[part] in command for command in started.processes().values()):
        assert time.monotonic() < deadline
        time.sleep(0.2)


def test_a_web_process_that_ends_well_comes_back_too(started: Start) -> None:
    before = {pid for pid, c in started.processes().items() if KILLED["web"] in c}
    for pid in before:
        os.kill(pid, signal.SIGTERM)
    deadline = time.monotonic() + 60
    while len({p for p, c in started.processes().items() if KILLED["web"] in c} - before) < 2:
        assert time.monotonic() < deadline
        time.sleep(0.2)
    assert started.projects()


@pytest.mark.parametrize("part", ["web", "worker"])
def test_a_killed_part_leaves_nothing_of_itself_behind(started: Start, part: str) -> None:
    """Neither a child that holds the port, nor an old process of the pool."""
    old = {pid for pid, command in started.processes().items() if KILLED[part] in command}
    os.kill(min(old), signal.SIGKILL)
    gone = old if part == "worker" else {min(old)}
    deadline = time.monotonic() + 60
    while gone & started.processes().keys():
        assert time.monotonic() < deadline
        time.sleep(0.2)
    assert started.projects()


def test_a_second_one_says_that_the_first_runs(started: Start) -> None:
    second = started.run()
    out, _ = second.communicate(timeout=60)
    assert second.returncode == 1
    assert f"running already: {started.address}" in out


def test_a_killed_start_leaves_nothing_in_the_way_of_the_next(started: Start) -> None:
    projects = started.projects()
    started.down(signal.SIGKILL)
    assert started.processes()
    started.up()
    assert started.projects() == projects
    assert started.down(signal.SIGINT) == 0
    assert started.processes() == {}


def test_one_that_is_still_starting_can_be_ended(tmp_path: Path) -> None:
    place = Start(tmp_path)
    place.process = place.run()
    deadline = time.monotonic() + 60
    while not any("redis-server" in command for command in place.processes().values()):
        assert time.monotonic() < deadline
        time.sleep(0.1)
    assert place.down(signal.SIGTERM) == 143
    assert place.processes() == {}


def test_a_taken_port_says_what_to_do(tmp_path: Path) -> None:
    place = Start(tmp_path)
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        place.ports["port"] = taken.getsockname()[1]
        process = place.run()
        out, _ = process.communicate(timeout=60)
    assert process.returncode == 1
    assert f"Port {place.ports['port']}, wanted for the web address, is taken" in out
    assert "./start --port" in out


@pytest.mark.parametrize(
    ("options", "says"),
    [(["--port", "80"], "from 1024 to 65535"), (["--port", "9000", "--db-port", "9000"], "twice")],
)
def test_ports_that_cannot_be(tmp_path: Path, options: list[str], says: str) -> None:
    process = Start(tmp_path).run(*options)
    out, _ = process.communicate(timeout=60)
    assert process.returncode == 1
    assert says in out
