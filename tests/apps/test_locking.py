"""Locks of a database: one holds it, the rest wait or go on, and nobody keeps it for ever."""

import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager

import pytest
from django.db import connection, connections

from vinetag.apps.accounts.locking import held_alone

pytestmark = pytest.mark.django_db(transaction=True)


@contextmanager
def held_elsewhere(what: str, seconds: float = 30) -> Iterator[None]:
    """Another connection holds it until it is let go of, or for so long."""
    there, go = threading.Event(), threading.Event()

    def hold() -> None:
        with held_alone(what) as mine:
            assert mine
            there.set()
            go.wait(seconds)
        connections.close_all()

    thread = threading.Thread(target=hold)
    thread.start()
    try:
        assert there.wait(10)
        yield
    finally:
        go.set()
        thread.join(10)


def test_one_holds_it_and_others_are_told() -> None:
    with held_elsewhere("press"), held_alone("press") as mine, held_alone("ink") as other:
        assert (mine, other) == (False, True)
    with held_alone("press") as mine:
        assert mine


def test_who_waits_gets_it_once_it_is_let_go_of() -> None:
    began = time.monotonic()
    with held_elsewhere("press", 0.5), held_alone("press", patience=20) as mine:
        assert mine
        assert time.monotonic() - began < 15


def test_what_fails_under_it_lets_go_of_it() -> None:
    with pytest.raises(ZeroDivisionError), held_alone("press"):
        _ = 1 / 0
    with held_elsewhere("press"):
        pass


def test_a_connection_that_dies_lets_go_of_it() -> None:
    someone = connection.copy()
    with someone.cursor() as cursor:
        name = f"{connection.settings_dict['NAME']}:press"
        cursor.execute("SELECT GET_LOCK(%s, 0)", [name])
    with held_alone("press") as mine:
        assert not mine
    someone.close()
    with held_alone("press", patience=20) as mine:
        assert mine
