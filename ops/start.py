"""./start: run every part under supervisord, load demo data once, print the address, wait."""

from __future__ import annotations

import argparse
import contextlib
import fcntl
import hashlib
import os
import shlex
import signal
import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
import xmlrpc.client
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any
from urllib.parse import quote

from celery import Celery
from kombu.exceptions import OperationalError
from supervisor.xmlrpc import SupervisorTransport

from ops.parts import (
    ROOT,
    MariaDb,
    PartError,
    Redis,
    port_is_free,
    read_secrets,
    stop_leftovers,
    wait_for,
)
from vinetag.lookup.epp import simulated_gateways
from vinetag.lookup.hosting import simulated_hosting
from vinetag.lookup.settings import simulated

VAR = Path(os.environ.get("VINETAG_VAR") or ROOT / "var")
UP_WITHIN = 120.0
PING_WITHIN = 2.0
PORTS = {
    "port": ("VINETAG_PORT", 8700, "the web address"),
    "registry-port": ("VINETAG_REGISTRY_PORT", 8701, "the simulated registries"),
    "dns-port": ("VINETAG_DNS_PORT", 8702, "the simulated name servers"),
    "whois-port": ("VINETAG_WHOIS_PORT", 8703, "the simulated WHOIS servers"),
    "mail-port": ("VINETAG_MAIL_PORT", 8704, "the simulated mail server"),
    "epp-port": ("VINETAG_EPP_PORT", 8705, "the simulated sellers' gateways"),
    "db-port": ("VINETAG_DB_PORT", 8713, "the database"),
    "redis-port": ("VINETAG_REDIS_PORT", 8714, "the queue"),
}


def arguments() -> argparse.Namespace:
    parser = argparse.ArgumentParser(prog="./start", description="Runs Vine Tag with demo data.")
    for option, (variable, default, what) in PORTS.items():
        chosen = int(os.environ.get(variable, default))
        parser.add_argument(
            f"--{option}", type=int, default=chosen, help=f"for {what} ({default}; or {variable})"
        )
    parser.add_argument("--reset-demo", action="store_true", help="put the demo data back")
    return parser.parse_args()


def check_ports(args: argparse.Namespace) -> None:
    chosen = {option: getattr(args, option.replace("-", "_")) for option in PORTS}
    for option, port in chosen.items():
        if not 1024 <= port <= 65535:
            raise PartError(f"--{option} {port}: choose a port from 1024 to 65535.")
        if list(chosen.values()).count(port) > 1:
            raise PartError(f"Port {port} was chosen twice. Give each part its own.")
        if not port_is_free(port):
            raise PartError(
                f"Port {port}, wanted for {PORTS[option][2]}, is taken by another program.\n"
                f"Choose another: ./start --{option} {port + 100}"
            )


def environment(
    args: argparse.Namespace, database: MariaDb, queue: Redis, secrets: dict[str, str]
) -> dict[str, str]:
    control = VAR / "control.sock"
    if len(str(control)) > 90:
        short = hashlib.sha256(str(VAR).encode()).hexdigest()[:12]
        control = Path(tempfile.gettempdir()) / f"vinetag-{short}.control"
    given = {
        "DJANGO_SETTINGS_MODULE": "vinetag.config.settings.run",
        "VINETAG_ROOT": ROOT,
        "VINETAG_VAR": VAR,
        "VINETAG_CONTROL": control,
        "VINETAG_PYTHON": sys.executable,
        "VINETAG_MARIADB_COMMAND": shlex.join(database.command()),
        "VINETAG_REDIS_COMMAND": shlex.join(queue.command()),
        "VINETAG_PORT": args.port,
        "VINETAG_REGISTRY_PORT": args.registry_port,
        "VINETAG_DNS_PORT": args.dns_port,
        "VINETAG_WHOIS_PORT": args.whois_port,
        "VINETAG_MAIL_PORT": args.mail_port,
        "VINETAG_EPP_PORT": args.epp_port,
        "VINETAG_DB_PORT": args.db_port,
        "VINETAG_REDIS_URL": queue.url,
    }
    defaults = {
        "VINETAG_DEMO": "1",
        **simulated(args.registry_port, args.dns_port, args.whois_port),
    }
    defaults |= {
        "VINETAG_MAIL": f"127.0.0.1:{args.mail_port}",
        "VINETAG_MAIL_READER": f"http://127.0.0.1:{args.registry_port}/mail",
        "VINETAG_TILL": f"http://127.0.0.1:{args.registry_port}/till",
        **simulated_gateways(
            args.epp_port,
            quote(os.environ.get("VINETAG_EPP_PASSWORD") or secrets["VINETAG_EPP_PASSWORD"], ""),
            str(VAR / "simulated"),
        ),
        "VINETAG_CHECK_GATEWAY": "lantern",
        **simulated_hosting(
            args.registry_port,
            args.dns_port,
            os.environ.get("VINETAG_ZONE_WORD") or secrets["VINETAG_ZONE_WORD"],
        ),
    }
    if os.environ.get("VINETAG_LOOKUP") == "live":
        # The published bootstrap and the system's resolver, unless the environment says otherwise.
        defaults = {}
    defaults["VINETAG_ADDRESS"] = f"http://127.0.0.1:{args.port}"
    named = {name: str(value) for name, value in given.items()}
    return {**defaults, **secrets, **os.environ, **named}


@contextlib.contextmanager
def runner_of(env: dict[str, str]) -> Iterator[Any]:
    """What the runner of the parts can be told and asked."""
    transport = SupervisorTransport(None, None, f"unix://{env['VINETAG_CONTROL']}")
    with xmlrpc.client.ServerProxy("http://127.0.0.1", transport=transport) as runner:
        yield runner.supervisor


def start_parts(env: dict[str, str], *parts: str) -> None:
    """Tell the runner to start these, without waiting until they are up."""
    with runner_of(env) as supervisor:
        for part in parts:
            supervisor.startProcessGroup(part, False)


def given_up(env: dict[str, str], part: str) -> bool:
    """Whether the runner has stopped trying to start a part."""
    with runner_of(env) as supervisor:
        found = [p for p in supervisor.getAllProcessInfo() if p["group"] == part]
    return any(p["statename"] == "FATAL" for p in found)


def await_part(env: dict[str, str], part: str, what: str, ready: Callable[[], bool]) -> None:
    """Wait until a part answers. Raises PartError that names it and where its log is."""

    def answered() -> bool:
        if given_up(env, part):
            raise PartError(f"{what} fails whenever it is started.")
        return ready()

    try:
        wait_for(answered, UP_WITHIN, what)
    except PartError as error:
        raise PartError(f"{error}\nIts log is {VAR}/log/{part}*.log.") from error


def manage(env: dict[str, str], *words: str) -> None:
    done = subprocess.run(
        [sys.executable, str(ROOT / "manage.py"), *words],
        env=env,
        check=False,
        capture_output=True,
        text=True,
    )
    if done.returncode:
        raise PartError(f"“{' '.join(words)}” failed:\n{done.stderr[-3000:]}")


def worker_answers(env: dict[str, str], name: str) -> Callable[[], bool]:
    """Whether the worker of that name answers a ping that goes through the queue."""
    queue = Celery(broker=env["VINETAG_REDIS_URL"])
    worker = f"{name}@{socket.gethostname()}"

    def ready() -> bool:
        try:
            return bool(queue.control.ping([worker], timeout=PING_WITHIN, limit=1))
        except (OSError, OperationalError):
            return False

    return ready


def web_answers(port: int) -> bool:
    try:
        with urllib.request.urlopen(f"http://127.0.0.1:{port}/api/session", timeout=2) as reply:
            return bool(reply.status == 200)
    except OSError:
        return False


def run(args: argparse.Namespace) -> None:
    left = stop_leftovers(VAR)
    if left:
        print(f"· ended {left} processes an earlier run left behind")
    check_ports(args)
    (VAR / "log").mkdir(parents=True, exist_ok=True)
    secrets = read_secrets(VAR)
    password = os.environ.get("VINETAG_REDIS_PASSWORD") or secrets["VINETAG_REDIS_PASSWORD"]
    database, queue = MariaDb(VAR, args.db_port), Redis(VAR, args.redis_port, password)
    database.prepare()
    env = environment(args, database, queue, secrets)
    conf = str(ROOT / "ops/supervisord.conf")
    runner = subprocess.Popen(
        [sys.executable, "-W", "ignore", "-m", "supervisor.supervisord", "-c", conf], env=env
    )
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(143))
    # A shell starts what runs in the background with interrupts switched off.
    signal.signal(signal.SIGINT, signal.default_int_handler)
    try:
        wait_for(lambda: database.is_up() or bool(runner.poll()), 90, "The database")
        wait_for(lambda: queue.is_up() or bool(runner.poll()), 60, "The queue")
        database.grant(env["VINETAG_DB_PASSWORD"])
        with_demo = env.get("VINETAG_DEMO") == "1"
        demo = ["--reset-demo"] if args.reset_demo else ["--demo"] * with_demo
        manage(env, "prepare", *demo)
        start_parts(env, "web", "worker", "filing", "watching", "ordering", "schedule")
        await_part(env, "web", "The web server", lambda: web_answers(args.port))
        await_part(env, "worker", "The worker", worker_answers(env, "checks"))
        await_part(env, "filing", "The worker for files", worker_answers(env, "files"))
        await_part(env, "watching", "The worker that watches", worker_answers(env, "watch"))
        await_part(env, "ordering", "The worker for orders", worker_answers(env, "orders"))
        print(f"\n  Vine Tag is at  http://127.0.0.1:{args.port}\n")
        print("  Ctrl-C stops everything. What you made stays in var/.", flush=True)
        runner.wait()
    finally:
        signal.signal(signal.SIGINT, signal.SIG_IGN)
        print("\n· stopping", flush=True)
        if runner.poll() is None:
            runner.terminate()
            try:
                runner.wait(40)
            except subprocess.TimeoutExpired:
                runner.kill()
        stop_leftovers(VAR)


def main() -> int:
    args = arguments()
    VAR.mkdir(mode=0o700, exist_ok=True)
    VAR.chmod(0o700)
    with (VAR / "start.lock").open("a+") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            lock.seek(0)
            print(f"Vine Tag is running already: {lock.read().strip()}", file=sys.stderr)
            return 1
        lock.truncate(0)
        lock.write(f"http://127.0.0.1:{args.port} (process {os.getpid()})\n")
        lock.flush()
        os.set_inheritable(lock.fileno(), False)
        began = time.monotonic()
        try:
            run(args)
        except KeyboardInterrupt:
            return 0
        except (PartError, PermissionError) as error:
            print(f"\nVine Tag could not start after {time.monotonic() - began:.0f} s.\n{error}")
            print("The logs are in var/log.", file=sys.stderr)
            return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
