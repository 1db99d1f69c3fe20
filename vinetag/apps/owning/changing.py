"""Changing how a name stands at its seller: name servers, keys, the lock, letting go."""

from __future__ import annotations

import uuid
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Final

from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError, RefusedError
from vinetag.apps.ordering.basket import read_servers
from vinetag.apps.ordering.gateways import has_gateway, session
from vinetag.apps.owning.asking import ask_now
from vinetag.apps.owning.holding import is_theirs
from vinetag.apps.owning.models import OwnedName
from vinetag.core.errors import CoreError, Problem
from vinetag.core.ordering import said_in_words
from vinetag.core.zone import read_signers
from vinetag.lookup.epp import Done, Gateway, Seen

__all__ = ["Changed", "keys_of", "let_go", "set_keys", "set_lock", "set_servers"]

MOST_AT_ONCE: Final = 50
SECONDS: Final = 10.0
Act = Callable[[Gateway, OwnedName, Seen], Done]


@dataclass(frozen=True)
class Changed:
    """How many were changed, and why others were not, by full name."""

    count: int
    failed: Sequence[tuple[str, str]]


def set_servers(rows: Sequence[OwnedName], servers: Sequence[str]) -> Changed:
    """Give these other name servers. Raises RefusedError for what are none."""
    wanted = read_servers(servers)
    if len(wanted) < 2:
        raise RefusedError([Problem("servers", "too_few", {"limit": 2})])

    def act(gateway: Gateway, row: OwnedName, seen: Seen) -> Done:
        for host in wanted:
            done = gateway.make_host(host)
            if not done.good:
                return done
        add = [host for host in wanted if host not in seen.servers]
        remove = [host for host in seen.servers if host not in wanted]
        if not add and not remove:
            return Done(code=1000)
        return gateway.change(str(row.name), _trid(), add=add, remove=remove)

    def then(row: OwnedName) -> None:
        row.servers = list(wanted)

    return _each(rows, act, then)


def set_lock(rows: Sequence[OwnedName], *, locked: bool) -> Changed:
    """Lock these against being moved away, or open them for it."""

    def then(row: OwnedName) -> None:
        row.locked = locked

    return _each(
        rows, lambda line, row, _seen: line.change(str(row.name), _trid(), lock=locked), then
    )


def keys_of(row: OwnedName) -> list[str]:
    """The keys that sign a name at its registry. Raises ConflictError where they cannot be read."""
    if not row.seller or not has_gateway(row.seller):
        raise ConflictError("not_here", "Its seller takes no orders from here: look there.")
    with session(row.seller, SECONDS) as (gateway, done):
        seen = None if done.trouble else gateway.info(str(row.name))
    if seen is None or seen.whose == "unknown":
        raise ConflictError("not_now", said_in_words(done.code, done.trouble))
    if not is_theirs(row, seen):
        raise ConflictError("not_here", said_in_words(2201))
    return [str(key) for key in seen.keys]


def set_keys(row: OwnedName, lines: Sequence[str]) -> Changed:
    """Have the registry name exactly these keys, none to have the name unsigned (RFC 5910). Raises
    RefusedError for what are none.
    """
    try:
        wanted = read_signers(lines)
    except CoreError as error:
        raise RefusedError(error.problems) from error

    def act(gateway: Gateway, one: OwnedName, seen: Seen) -> Done:
        sign = [key for key in wanted if key not in seen.keys]
        unsign = [key for key in seen.keys if key not in wanted]
        if not sign and not unsign:
            return Done(code=1000)
        return gateway.change(str(one.name), _trid(), sign=sign, unsign=unsign)

    def then(one: OwnedName) -> None:
        one.signed = bool(wanted)

    return _each([row], act, then)


def let_go(row: OwnedName, typed: str) -> Changed:
    """Delete a name at its seller; its full name has to be typed. Raises ConflictError."""
    if typed.strip().lower() not in (str(row.name), row.name.shown):
        raise ConflictError("not_typed", f"Type {row.name.shown} to let it go.")

    def then(one: OwnedName) -> None:
        one.renewal, one.ceiling = "ask", None
        one.ask_at = timezone.now()

    return _each([row], lambda line, one, _seen: line.let_go(str(one.name), _trid()), then)


def _each(rows: Sequence[OwnedName], act: Act, then: Callable[[OwnedName], None]) -> Changed:
    """Do it for each at its seller; what is known of those it was done for is read anew."""
    if len(rows) > MOST_AT_ONCE:
        message = f"At most {MOST_AT_ONCE} names are changed at once: these are {len(rows):,}."
        raise ConflictError("too_many", message)
    failed: list[tuple[str, str]] = []
    done_for: list[OwnedName] = []
    by_seller: dict[str, list[OwnedName]] = {}
    for row in rows:
        if row.seller and has_gateway(row.seller):
            by_seller.setdefault(row.seller, []).append(row)
        else:
            where = row.seller_name or "Its seller"
            failed.append((str(row.name), f"{where} takes no orders from here: change it there."))
    for seller, some in by_seller.items():
        with session(seller, SECONDS) as (gateway, done):
            for row in some:
                done = done if done.trouble else _act(gateway, row, act)
                if done.good:
                    then(row)
                    done_for.append(row)
                else:
                    words = said_in_words(done.code, done.trouble, done.said)
                    failed.append((str(row.name), words))
    OwnedName.objects.bulk_update(
        done_for, ["servers", "locked", "signed", "renewal", "ceiling", "ask_at"]
    )  # fmt: skip
    ask_now(done_for)
    return Changed(len(done_for), failed)


def _act(gateway: Gateway, row: OwnedName, act: Act) -> Done:
    """Only what was registered here for its owner is changed, whatever else is in our account."""
    seen = gateway.info(str(row.name))
    if seen.whose == "unknown":
        return Done(code=seen.code, trouble=seen.trouble)
    return act(gateway, row, seen) if is_theirs(row, seen) else Done(code=2201)


def _trid() -> str:
    return f"VT-{uuid.uuid4().hex}"
