"""What sellers' gateways say of a basket before it is ordered: whether each name can be had for its
term, for how much, and whether whom it is for is accepted there.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from typing import Any, Final

from vinetag.apps.ordering.gateways import has_gateway, make_people, session
from vinetag.apps.ordering.models import BasketItem
from vinetag.apps.ordering.owners import Owners
from vinetag.apps.ordering.pricing import BasketPrices
from vinetag.core.ordering import Person, said_in_words
from vinetag.lookup.epp import Checked, Done, Gateway

__all__ = ["ask_gateways"]

# Somebody waits for it.
SECONDS: Final = 6.0
AT_ONCE: Final = 6
CHUNK: Final = 50
NO_COUPONS: Final = 2103


@dataclass(frozen=True)
class Asked:
    """One item as it is asked about; no database is needed for it."""

    key: int
    name: str
    years: int
    privacy: bool
    set_name: str
    set_number: int
    coupon: str
    people: Mapping[str, Person]


def ask_gateways(
    items: Sequence[BasketItem], prices: BasketPrices, owners: Owners
) -> dict[int, dict[str, Any]]:
    """By item, where its seller has a gateway: the seller, the years, and the fee (`refused` where
    it is not to be had, `contact` where whom it is for is not accepted, `trouble` where there was
    no answer). Sellers are asked side by side.
    """
    if not items:
        return {}
    by_seller: dict[str, list[Asked]] = {}
    for item in items:
        seller, number = prices.items[item.pk].seller, owners.set_of(item)
        if seller and has_gateway(seller):
            set_name = "" if number is None else owners.sets[number].name
            asked = Asked(
                item.pk, str(item.name), item.years, item.privacy, set_name, number or 0,
                item.coupon, owners.people_of(item),
            )  # fmt: skip
            by_seller.setdefault(seller, []).append(asked)
    owner_id = items[0].project.owner_id
    found: dict[int, dict[str, Any]] = {}
    with ThreadPoolExecutor(AT_ONCE) as beside:
        said = beside.map(lambda one: _ask(owner_id, *one), by_seller.items())
        for part in said:
            found |= part
    return found


def _ask(owner_id: int, seller: str, asked: Sequence[Asked]) -> dict[int, dict[str, Any]]:
    found: dict[int, dict[str, Any]] = {
        one.key: {
            "seller": seller, "years": one.years, "coupon": one.coupon, "trouble": "not_sent",
        }
        for one in asked
    }  # fmt: skip
    with session(seller, SECONDS) as (gateway, done):
        if done.trouble:
            for said in found.values():
                said["trouble"] = done.trouble
            return found
        for years, coupon in sorted({(one.years, one.coupon) for one in asked}):
            some = [one for one in asked if (one.years, one.coupon) == (years, coupon)]
            for start in range(0, len(some), CHUNK):
                _check(gateway, some[start : start + CHUNK], years, coupon, found)
        _introduce(gateway, owner_id, asked, found)
    return found


def _check(
    gateway: Gateway, asked: Sequence[Asked], years: int, coupon: str,
    found: dict[int, dict[str, Any]],
) -> None:  # fmt: skip
    answer = gateway.check([one.name for one in asked], years, token=coupon)
    if isinstance(answer, Done) and answer.code == NO_COUPONS:
        answer = [Checked(one.name, False) for one in asked]
    for place, one in enumerate(asked):
        said = found[one.key]
        if isinstance(answer, Done):
            said["trouble"] = answer.trouble or "refused"
        else:
            said |= _read(answer[place])
    refused = [one for one in asked if coupon and found[one.key].get("refused")]
    if refused:
        # What can be had without it is refused for its sake.
        without = gateway.check([one.name for one in refused], years)
        for place, one in enumerate(refused):
            if not isinstance(without, Done) and without[place].free:
                found[one.key]["refused"] = f"it does not take the coupon {coupon} for it"


def _read(checked: Checked) -> dict[str, Any]:
    if not checked.free:
        return {"trouble": "", "refused": checked.reason or "it cannot be registered"}
    if checked.fee is None:
        return {"trouble": "", "refused": "it has no price for this term"}
    fee = str(checked.fee)
    told = {"fee": fee, "currency": checked.currency, "premium": checked.premium}
    return {"trouble": "", **told}


def _introduce(
    gateway: Gateway, owner_id: int, asked: Sequence[Asked], found: dict[int, dict[str, Any]]
) -> None:
    """Let the seller know whom names are for: what it does not accept is told before paying."""
    known: dict[tuple[int, bool], Done] = {}
    for one in asked:
        if not one.people:
            continue
        key = one.set_number, one.privacy
        if key not in known:
            known[key] = make_people(gateway, owner_id, one.people, withheld=one.privacy)[1]
        done = known[key]
        if done.trouble:
            found[one.key]["trouble"] = done.trouble
        elif not done.good:
            words = said_in_words(done.code, done.trouble, done.said)
            found[one.key]["contact"] = f"“{one.set_name}” is not accepted as it stands. {words}"
