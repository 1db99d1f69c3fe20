"""The pieces ./start and ./test share."""

import socket
import subprocess
import sys
import time
from pathlib import Path

import pytest

from ops.parts import (
    MariaDb,
    PartError,
    Redis,
    free_port,
    port_is_free,
    read_secrets,
    stop_leftovers,
    wait_for,
)


def test_a_port_is_free_until_someone_listens() -> None:
    port = free_port()
    assert port_is_free(port)
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", port))
        taken.listen()
        assert not port_is_free(port)


def test_secrets_are_made_once_and_are_their_owners(tmp_path: Path) -> None:
    first = read_secrets(tmp_path)
    assert read_secrets(tmp_path) == first
    assert len(first["VINETAG_SECRET_KEY"]) > 40
    assert (tmp_path / "secrets.env").stat().st_mode & 0o077 == 0
    (tmp_path / "other").mkdir()
    assert read_secrets(tmp_path / "other") != first


def test_what_does_not_come_up_is_named() -> None:
    with pytest.raises(PartError, match="The kettle did not come up"):
        wait_for(lambda: False, 0.1, "The kettle")


def test_a_deep_folder_still_has_a_socket_that_fits(tmp_path: Path) -> None:
    deep = tmp_path / ("d" * 120)
    assert len(str(MariaDb(deep, 1).socket)) <= 100
    assert MariaDb(deep, 1).socket != MariaDb(deep / "x", 1).socket


def test_a_database_server_keeps_its_temporary_tables_to_itself(tmp_path: Path) -> None:
    def place(var: Path) -> Path:
        [told] = [w for w in MariaDb(var, 1).command() if w.startswith("--tmpdir=")]
        return Path(told.partition("=")[2])

    one, other = place(tmp_path / "one"), place(tmp_path / "other")
    assert one != other
    assert one.is_dir()
    assert one.is_relative_to(tmp_path / "one")


def test_servers_listen_on_loopback_only(tmp_path: Path) -> None:
    assert "--bind-address=127.0.0.1" in MariaDb(tmp_path, 1).command()
    [_, file] = Redis(tmp_path, 1, "only-we-know").command()
    told = Path(file).read_text()
    assert 'bind "127.0.0.1"' in told
    # The password stands in a file of the owner's, not where everyone can read it.
    assert 'requirepass "only-we-know"' in told
    assert Path(file).stat().st_mode & 0o077 == 0


def test_leftovers_are_known_by_their_mark_and_others_are_spared(tmp_path: Path) -> None:
    sleep = [sys.executable, "-c", "import time; time.sleep(60)"]
    marked = subprocess.Popen(sleep, env={"VINETAG_VAR": str(tmp_path)})
    other = subprocess.Popen(sleep, env={"VINETAG_VAR": f"{tmp_path}-other"})
    try:
        time.sleep(0.3)
        assert stop_leftovers(tmp_path, 5) == 1
        assert marked.wait(5) != 0
        assert other.poll() is None
    finally:
        for process in (marked, other):
            process.kill()
            process.wait()
