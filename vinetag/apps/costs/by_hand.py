"""Sellers, lists and coupons entered by hand: by an administrator for everybody, by a person for
themselves.
"""

from __future__ import annotations

import secrets
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from typing import Any, Final, Literal

from django.db import transaction
from django.utils import timezone

from vinetag.apps.accounts.errors import NotFoundError, RefusedError
from vinetag.apps.accounts.models import User
from vinetag.apps.accounts.seen import Seen, require_seen
from vinetag.apps.availability.catalogue import require_administrator
from vinetag.apps.costs.listing import prices_changed
from vinetag.apps.costs.markets import known_extensions, may_change, sellers_for
from vinetag.apps.costs.models import HeldCoupons, SellerRow
from vinetag.apps.costs.sellers import new_version
from vinetag.core.cost.coupon_files import read_coupons, write_coupons
from vinetag.core.cost.price_files import read_price_list, write_price_list
from vinetag.core.cost.seller_documents import read_seller, seller_document
from vinetag.core.errors import Problem

__all__ = [
    "MOST_OWN", "Take", "Taken", "change_seller", "drop_coupon", "follow_again", "hold_coupon",
    "list_of", "make_seller", "remove_seller", "take_list",
]  # fmt: skip

MOST_OWN: Final = 40
MOST_HELD: Final = 200
MOST_TOLD: Final = 100
Take = Literal["good", "whole"]
Kind = Literal["prices", "coupons"]


@dataclass(frozen=True)
class Taken:
    """How many lines of a list were taken, and what was wrong with the others, each at its line."""

    lines: int
    problems: Sequence[Problem]


def _changeable(person: User, code: str) -> SellerRow:
    """Raises NotFoundError for what the person may not change: it is not there for them."""
    row = sellers_for(person).select_for_update().filter(code=code).first()
    if row is None or not may_change(person, row):
        raise NotFoundError
    return row


def make_seller(person: User, terms: object, *, everybody: bool) -> SellerRow:
    """A new seller without a list. Raises SellersError with every problem at its path, and
    RefusedError for a code that is taken or more than MOST_OWN of one's own.
    """
    if everybody:
        require_administrator(person)
    given = {**terms} if isinstance(terms, dict) else {}
    if not everybody:
        given["code"] = f"own-{secrets.token_hex(5)}"
    entry = read_seller(_addressless(given))
    with transaction.atomic():
        if SellerRow.objects.filter(code=entry.code).exists():
            raise RefusedError([Problem("code", "repeated", {"value": entry.code})])
        count = SellerRow.objects.filter(owner=person).count()
        if not everybody and count >= MOST_OWN:
            args = {"limit": MOST_OWN, "count": count + 1}
            raise RefusedError([Problem("name", "too_many", args)])
        last = SellerRow.objects.filter(owner=None).count()
        prices_changed()
        return SellerRow.objects.create(
            code=entry.code, owner=None if everybody else person, by_hand=True, place=last,
            terms=seller_document(entry), asked_at=timezone.now(),
        )  # fmt: skip


def _addressless(terms: dict[str, Any]) -> dict[str, Any]:
    """Nobody but the settings says which addresses are asked."""
    return {
        key: value for key, value in terms.items() if key not in ("prices", "coupons", "quotes")
    }


def change_seller(person: User, code: str, terms: object, seen: Seen = None) -> SellerRow:
    """Other terms; one of the settings is kept by hand from then on. Its list has to be in the same
    currency. Raises SellersError, RefusedError, NotFoundError, and require_seen's error when the
    terms are not as they were `seen`.
    """
    with transaction.atomic():
        row = _changeable(person, code)
        require_seen(seen, seller_document(read_seller(row.terms)))
        given = {**terms} if isinstance(terms, dict) else {}
        entry = read_seller(_addressless({**given, "code": code}))
        before = read_seller(row.terms)
        if entry.currency != before.currency and row.versions.exists():
            args = {"currency": before.currency, "value": entry.currency}
            raise RefusedError([Problem("currency", "list_currency", args)])
        row.terms = {
            **seller_document(entry),
            **{key: row.terms[key] for key in ("prices", "coupons", "quotes") if key in row.terms},
        }
        row.by_hand = True
        row.save()
        prices_changed()
        return row


def remove_seller(person: User, code: str) -> None:
    """One entered by hand goes, with its lists. Raises NotFoundError, also for one of the settings,
    which would come back.
    """
    with transaction.atomic():
        row = _changeable(person, code)
        if read_seller(row.terms).prices:
            raise NotFoundError
        row.delete()
        prices_changed()


def follow_again(person: User, code: str) -> None:
    """What the seller publishes is asked for again, and stands. Raises NotFoundError for one that
    publishes nothing.
    """
    with transaction.atomic():
        row = _changeable(person, code)
        if not read_seller(row.terms).prices:
            raise NotFoundError
        row.by_hand, row.validators = False, {}
        row.asked_at = datetime(2000, 1, 1, tzinfo=UTC)
        row.save()


def list_of(person: User, code: str, kind: Kind) -> tuple[str, str]:
    """A list in force as CSV, "" for none, and the seller's name. Raises NotFoundError."""
    row = sellers_for(person).filter(code=code).first()
    if row is None:
        raise NotFoundError
    name = read_seller(row.terms).name
    if kind == "coupons":
        return row.coupons, name
    newest = row.versions.order_by("-id").first()
    return newest.text if newest else "", name


def take_list(person: User, code: str, kind: Kind, text: str, take: Take) -> Taken:
    """Put a list in place of the one in force. With "whole", one with any problem is refused and
    nothing changes; with "good", what is good of it is taken. Raises RefusedError, also where
    nothing of it is good; NotFoundError.
    """
    known = {*known_extensions()}
    with transaction.atomic():
        row = _changeable(person, code)
        entry = read_seller(row.terms)
        problems: Sequence[Problem]
        if kind == "prices":
            listed = read_price_list(text, entry.currency, known)
            lines, problems = len(listed.rows), listed.problems
            written = write_price_list(listed.rows, entry.currency)
        else:
            coupons = read_coupons(text, code, known)
            lines, problems = len(coupons.coupons), coupons.problems
            written = write_coupons(coupons.coupons)
        if problems and (take == "whole" or not lines):
            raise RefusedError(problems[:MOST_TOLD])
        now = timezone.now()
        if kind == "prices":
            new_version(row, written, timezone.localdate())
            row.fetched_at = now
        else:
            row.coupons = written
        row.by_hand, row.trouble, row.listed = True, "", True
        row.save()
        prices_changed()
        return Taken(lines, problems[:MOST_TOLD])


def hold_coupon(person: User, code: str, text: str, *, everybody: bool) -> None:
    """Add coupons of a seller, as lines of CSV with their heading; one of a code that is held
    already takes its place. Raises RefusedError with every problem, NotFoundError.
    """
    if everybody:
        require_administrator(person)
    known = {*known_extensions()}
    with transaction.atomic():
        row = sellers_for(person).select_for_update().filter(code=code).first()
        if row is None:
            raise NotFoundError
        given = read_coupons(text, code, known)
        if given.problems or not given.coupons:
            blank = [Problem("code", "blank")]
            raise RefusedError([_cell(p) for p in given.problems][:MOST_TOLD] or blank)
        owner = None if everybody else person
        held, _ = HeldCoupons.objects.get_or_create(seller=row, owner=owner, defaults={"text": ""})
        kept = {c.code: c for c in read_coupons(held.text, code, known).coupons if held.text}
        kept |= {c.code: c for c in given.coupons}
        if len(kept) > MOST_HELD:
            args = {"limit": MOST_HELD, "count": len(kept)}
            raise RefusedError([Problem("code", "too_many", args)])
        held.text = write_coupons(kept.values())
        held.save()
        prices_changed()


def _cell(problem: Problem) -> Problem:
    """One at a cell of the only line is at that field."""
    return replace(problem, path=problem.path.rpartition(", ")[2] or problem.path)


def drop_coupon(person: User, code: str, coupon: str, *, everybody: bool) -> None:
    """Take a coupon that was added away again. Raises NotFoundError."""
    if everybody:
        require_administrator(person)
    owner = None if everybody else person
    with transaction.atomic():
        held = (
            HeldCoupons.objects.select_for_update()
            .filter(seller__in=sellers_for(person).filter(code=code), owner=owner)
            .first()
        )
        known = {*known_extensions()}
        coupons = read_coupons(held.text, code, known).coupons if held else ()
        if held is None or all(c.code != coupon for c in coupons):
            raise NotFoundError
        held.text = write_coupons(c for c in coupons if c.code != coupon)
        held.save()
        prices_changed()
