"""Locks that are the database connection's: one that dies lets go of them."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from django.db import connection

__all__ = ["held_alone"]


@contextmanager
def held_alone(what: str, patience: float = 0) -> Iterator[bool]:
    """Whether nobody else holds `what` in this database, after waiting up to `patience` seconds.

    The server knows locks by name for all of its databases: each has names of its own here.
    """
    name = f"{connection.settings_dict['NAME']}:{what}"
    with connection.cursor() as cursor:
        cursor.execute("SELECT GET_LOCK(%s, %s)", [name, patience])
        mine = cursor.fetchone() == (1,)
    try:
        yield mine
    finally:
        if mine:
            with connection.cursor() as cursor:
                cursor.execute("SELECT RELEASE_LOCK(%s)", [name])
