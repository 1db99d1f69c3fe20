"""The database and the queue as processes of our own, on loopback, with their data under var/."""

from __future__ import annotations

import getpass
import hashlib
import os
import secrets
import shutil
import socket
import subprocess
import tempfile
import time
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from urllib.parse import quote

__all__ = [
    "ROOT",
    "MariaDb",
    "PartError",
    "Redis",
    "free_port",
    "port_is_free",
    "read_secrets",
    "stop_leftovers",
    "wait_for",
]

ROOT = Path(__file__).resolve().parent.parent
LONGEST_SOCKET = 100
MARK = "VINETAG_VAR"
SECRETS = {
    "VINETAG_SECRET_KEY": 48,
    "VINETAG_DB_PASSWORD": 24,
    "VINETAG_REDIS_PASSWORD": 24,
    "VINETAG_CONTACT_KEYS": 48,
    "VINETAG_EPP_PASSWORD": 24,
    "VINETAG_TILL_SECRET": 32,
    "VINETAG_ZONE_WORD": 32,
}
# The web processes' threads hold twenty, the workers about eight; the rest is for administration.
MOST_CONNECTIONS = 60


class PartError(Exception):
    """A part could not be run; the message says what to do."""


def port_is_free(port: int) -> bool:
    """Whether a server could listen there on loopback now."""
    with socket.socket() as s:
        s.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            s.bind(("127.0.0.1", port))
        except OSError:
            return False
    return True


def free_port() -> int:
    """A port nobody listens on."""
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return int(s.getsockname()[1])


def wait_for(ready: Callable[[], bool], seconds: float, what: str) -> None:
    """Wait until `ready`; raises PartError naming `what` when it takes longer."""
    deadline = time.monotonic() + seconds
    while not ready():
        if time.monotonic() > deadline:
            raise PartError(f"{what} did not come up within {seconds:.0f} seconds.")
        time.sleep(0.05)


def answers(port: int) -> bool:
    """Whether something listens on the port."""
    with socket.socket() as s:
        s.settimeout(0.5)
        return s.connect_ex(("127.0.0.1", port)) == 0


def program(*names: str) -> str:
    """The path of the first of these programs; /usr/sbin counts too."""
    path = os.environ.get("PATH", "") + ":/usr/sbin:/sbin"
    for name in names:
        if found := shutil.which(name, path=path):
            return found
    raise PartError(f"{names[0]} is not installed. Run ops/setup.sh.")


def read_secrets(var: Path) -> dict[str, str]:
    """The secrets of this installation, made on first use and readable by its owner only; one that
    an earlier version did not know is added.
    """
    path = var / "secrets.env"
    path.touch(mode=0o600)
    known = dict(line.split("=", 1) for line in path.read_text().splitlines() if "=" in line)
    new = {name: secrets.token_urlsafe(size) for name, size in SECRETS.items() if name not in known}
    if new:
        with path.open("a") as file:
            file.writelines(f"{name}={value}\n" for name, value in new.items())
    return {**known, **new}


@dataclass(frozen=True)
class MariaDb:
    """A MariaDB server with its data directory in `var/mariadb`."""

    var: Path
    port: int

    @property
    def socket(self) -> Path:
        path = self.var / "mariadb.sock"
        if len(str(path)) <= LONGEST_SOCKET:
            return path
        short = hashlib.sha256(str(self.var).encode()).hexdigest()[:12]
        return Path(tempfile.gettempdir()) / f"vinetag-{short}.sock"

    @property
    def scratch(self) -> Path:
        """Where it keeps temporary tables: a server that starts removes those it finds, and another
        server's would be among them.
        """
        path = self.var / "mariadb.tmp"
        path.mkdir(parents=True, exist_ok=True)
        return path

    def command(self) -> list[str]:
        """How to run it in the foreground."""
        return [
            program("mariadbd", "mysqld"),
            "--no-defaults",
            f"--user={getpass.getuser()}",
            f"--datadir={self.var / 'mariadb'}",
            f"--tmpdir={self.scratch}",
            f"--socket={self.socket}",
            f"--pid-file={self.var / 'mariadb.pid'}",
            f"--port={self.port}",
            "--bind-address=127.0.0.1",
            "--skip-log-bin",
            "--skip-name-resolve",
            "--character-set-server=utf8mb4",
            "--collation-server=utf8mb4_unicode_520_ci",
            "--innodb-buffer-pool-size=128M",
            f"--max-connections={MOST_CONNECTIONS}",
            # A project's file is stored as one value until it is read.
            "--max-allowed-packet=64M",
        ]

    def prepare(self) -> None:
        """Make the data directory, once. A half-made one is made again."""
        data, done = self.var / "mariadb", self.var / "mariadb.made"
        if data.exists() and done.exists():
            return
        shutil.rmtree(data, ignore_errors=True)
        user = getpass.getuser()
        made = subprocess.run(
            [
                program("mariadb-install-db"),
                "--no-defaults",
                f"--user={user}",
                f"--datadir={data}",
                f"--tmpdir={self.scratch}",
                "--auth-root-authentication-method=socket",
                f"--auth-root-socket-user={user}",
                "--skip-test-db",
            ],
            capture_output=True,
            text=True,
            check=False,
        )
        if made.returncode:
            raise PartError(f"The database could not be set up:\n{made.stdout}{made.stderr}")
        done.touch()

    def run_sql(self, sql: str) -> subprocess.CompletedProcess[str]:
        """Run statements as the database's administrator."""
        user = getpass.getuser()
        return subprocess.run(
            [program("mariadb"), "--no-defaults", f"--socket={self.socket}", f"--user={user}"],
            input=sql,
            capture_output=True,
            text=True,
            check=False,
        )

    def is_up(self) -> bool:
        """Whether it answers."""
        return self.socket.exists() and self.run_sql("SELECT 1").returncode == 0

    def grant(self, password: str) -> None:
        """Make the application's database and account."""
        done = self.run_sql(f"""
            CREATE DATABASE IF NOT EXISTS vinetag
              CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_520_ci;
            CREATE USER IF NOT EXISTS vinetag@127.0.0.1;
            ALTER USER vinetag@127.0.0.1 IDENTIFIED BY '{password}';
            GRANT ALL ON vinetag.* TO vinetag@127.0.0.1;
            GRANT ALL ON `test\\_vinetag%`.* TO vinetag@127.0.0.1;
        """)
        if done.returncode:
            raise PartError(f"The database account could not be made: {done.stderr}")


@dataclass(frozen=True)
class Redis:
    """A Redis server that appends what it is told to `var/redis`, and asks for a password."""

    var: Path
    port: int
    password: str

    @property
    def url(self) -> str:
        """Its first database (redis-py's form of address)."""
        return f"redis://:{quote(self.password, safe='')}@127.0.0.1:{self.port}/0"

    def command(self) -> list[str]:
        """How to run it in the foreground. What it is told is in a file, for a command line can be
        read by everyone.
        """
        folder = self.var / "redis"
        folder.mkdir(parents=True, exist_ok=True)
        options = {
            "port": self.port,
            "requirepass": self.password,
            "bind": "127.0.0.1",
            "dir": folder,
            "appendonly": "yes",
            "daemonize": "no",
            "save": "",
            "loglevel": "warning",
            # A process that renames itself loses the environment it is known by.
            "set-proc-title": "no",
        }
        file = folder / "redis.conf"
        file.touch(mode=0o600)
        file.chmod(0o600)
        file.write_text("".join(f'{name} "{value}"\n' for name, value in options.items()))
        return [program("redis-server"), str(file)]

    def is_up(self) -> bool:
        """Whether it answers."""
        try:
            with socket.create_connection(("127.0.0.1", self.port), 0.5) as s:
                s.sendall(f"AUTH {self.password}\r\nPING\r\n".encode())
                reply = b""
                while reply.count(b"\n") < 2 and (more := s.recv(64)):
                    reply += more
                return reply.endswith(b"+PONG\r\n")
        except OSError:
            return False


def stop_leftovers(var: Path, seconds: float = 20.0) -> int:
    """End processes a killed run of this very folder left behind; returns how many there were.

    They are known by the environment they were started with.
    """
    mark = f"{MARK}={var}".encode()
    found = []
    for entry in Path("/proc").iterdir():
        if entry.name.isdigit() and int(entry.name) != os.getpid():
            try:
                if mark in (entry / "environ").read_bytes().split(b"\0"):
                    found.append(int(entry.name))
            except OSError:
                continue
    for sign, patience in ((15, seconds), (9, 5.0)):
        for pid in found:
            try:
                os.kill(pid, sign)
            except ProcessLookupError:
                continue
        deadline = time.monotonic() + patience
        while time.monotonic() < deadline and any(_alive(pid) for pid in found):
            time.sleep(0.05)
    return len(found)


def _alive(pid: int) -> bool:
    try:
        state = Path(f"/proc/{pid}/stat").read_text().rsplit(")", 1)[1].split()[0]
    except OSError:
        return False
    return state != "Z"
