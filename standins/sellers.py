"""Simulated sellers: who they are, and their price lists and coupons as files that change as time
goes by. All of them are made up.

Under /sellers.json their terms, under /sellers/<code>/prices.csv and /sellers/<code>/coupons.csv
their lists, with ETag and Last-Modified (RFC 9110).
"""

from __future__ import annotations

import csv
import hashlib
import io
from collections.abc import Awaitable, Callable, Iterator
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from email.utils import format_datetime
from functools import cache
from importlib.resources import files
from typing import Any, Final

from aiohttp import web

from standins.world import Offer

__all__ = ["SELLERS", "Seller", "add_sellers", "coupons_of", "prices_of", "quote_of"]

HEADING: Final = (
    "extension", "action", "years_from", "years_to", "price", "per", "currency",
    "promotional_price", "promotion", "promotion_names", "valid_from", "valid_until",
)  # fmt: skip
COUPON_HEADING: Final = (
    "code", "takes", "value", "extensions", "actions", "years_from", "years_to", "least_names",
    "least_sum", "new_customers", "combines", "on_promotions", "starts", "ends",
)  # fmt: skip
# What a euro is to each of them; close enough for a simulation.
EURO_IN: Final = {"EUR": 1.0, "GBP": 0.86, "USD": 1.12, "SEK": 11.1}


@dataclass(frozen=True)
class Seller:
    """`register`, `renew` and `move` are multiples of what a year of an extension usually costs,
    `first` that of the first year where it is lower, for whom `promotion` says. Renewals rise by
    `rises` in a hundred each half year.
    """

    code: str
    name: str
    country: str
    currency: str
    register: float
    renew: float
    move: float
    tax: str = "added"
    privacy: str = "included"
    privacy_price: float = 0.0
    years_chosen: int = 1
    first: float = 0.0
    promotion: str = "first_year"
    promotion_names: int = 0
    long_terms: float = 0.0
    fee: float = 0.0
    rises: float = 0.0
    only: tuple[str, ...] = ()
    extras: tuple[dict[str, Any], ...] = ()
    top_up: str = "0"

    def terms(self) -> dict[str, Any]:
        """As its entry in /sellers.json."""
        return {
            "code": self.code,
            "name": self.name,
            "country": self.country,
            "currency": self.currency,
            "years_chosen": self.years_chosen,
            "privacy": self.privacy,
            "tax": self.tax,
            "rounding": "1" if self.currency == "SEK" else "0.01",
            "extras": list(self.extras),
            "prices": f"/sellers/{self.code}/prices.csv",
            "coupons": f"/sellers/{self.code}/coupons.csv",
            "quotes": f"/sellers/{self.code}/",
            "top_up": self.top_up,
        }


def _extra(name: str, about: str, yearly: str) -> dict[str, Any]:
    return {"name": name, "about": about, "yearly": yearly, "needed": False}


SELLERS: Final = (
    Seller(
        "lantern", "Lantern Names", "IE", "EUR", 1.1, 1.65, 1.0, first=0.12, fee=0.18, rises=4,
        extras=(
            _extra("Post box", "Ten addresses for mail under the name.", "17.90"),
            _extra("Watch bell", "Tells when somebody asks who owns the name.", "4.90"),
        ),
    ),
    Seller("weir", "Weir & Daughter", "IE", "EUR", 1.3, 1.3, 1.3, tax="included", rises=1),
    Seller(
        "quillgate", "Quillgate", "GB", "GBP", 0.95, 1.1, 0.9, privacy="charged",
        privacy_price=3.5, rises=2,
    ),
    Seller(
        "longacre", "Longacre Registrations", "DE", "EUR", 1.35, 1.2, 1.1, years_chosen=5,
        long_terms=1.05, extras=(_extra("Seal", "A picture to put on the site.", "9.00"),),
    ),
    Seller(
        "ninefold", "Ninefold", "US", "USD", 1.05, 1.25, 1.0, first=0.5, promotion="first_names",
        promotion_names=3, rises=3,
    ),
    Seller(
        "hazel", "Hazel Lane", "SE", "SEK", 0.98, 1.0, 0.95,
        only=("com", "net", "org", "se", "nu", "eu", "shop", "club", "studio", "press"),
        top_up="300",
    ),
)  # fmt: skip


@cache
def _usual() -> dict[str, float]:
    """What a year of each extension usually costs, in euros."""
    text = files("standins").joinpath("data/extensions.tsv").read_text("utf-8")
    rows = [line.split("\t") for line in text.splitlines() if line]
    return {row[0]: float(row[3]) for row in rows}


def _half_years(on: date) -> int:
    """Half years since the simulation's beginning: lists change with each."""
    return max(0, (on.year - 2025) * 2 + (on.month > 6))


def prices_of(seller: Seller, on: date) -> str:
    """The list as it is on a day."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(HEADING)
    until = on.replace(day=1) + timedelta(days=59)
    risen = 1 + seller.rises / 100 * _half_years(on)
    for extension, usual in sorted(_usual().items()):
        if not seller.only or extension in seller.only:
            for row in _rows(seller, usual * EURO_IN[seller.currency], risen, until):
                writer.writerow((extension, *row))
    for action, price in (("privacy", seller.privacy_price), ("fee", seller.fee)):
        if price:
            cells = ("*", action, "", "", f"{price:.2f}", "year", seller.currency)
            writer.writerow((*cells, *[""] * 5))
    return out.getvalue()


def _rows(seller: Seller, usual: float, risen: float, until: date) -> Iterator[tuple[object, ...]]:
    money: Callable[[float], str] = (
        (lambda x: f"{x:.0f}") if seller.currency == "SEK" else (lambda x: f"{x:.2f}")
    )
    offer: tuple[object, ...] = ("", "", "", "", "")
    if seller.first:
        names = seller.promotion_names or ""
        offer = (money(usual * seller.first), seller.promotion, names, "", until.isoformat())
    most = 1 if seller.long_terms else 10
    first = ("register", 1, most, money(usual * seller.register), "year", seller.currency)
    yield (*first, *offer)
    if offer[-1]:
        later = (until + timedelta(days=1)).isoformat()
        yield (*first, "", "", "", later, "")
    if seller.long_terms:
        long = money(usual * seller.long_terms)
        yield ("register", 2, 10, long, "year", seller.currency, *[""] * 5)
    yield (
        "renew", 1, 10, money(usual * seller.renew * risen), "year", seller.currency, *[""] * 5,
    )  # fmt: skip
    yield ("move", 1, 1, money(usual * seller.move), "year", seller.currency, *[""] * 5)
    yield ("restore", 1, 1, money(usual * 6), "term", seller.currency, *[""] * 5)


# What a quote of a name is above the list, at a seller whose list is behind its prices.
BEHIND: Final = {"longacre": ("studio", 1.08)}


def quote_of(seller: Seller, name: str, offer: Offer, on: date) -> dict[str, Any] | None:
    """What the seller says of one name, None where it does not sell the extension."""
    extension = name.partition(".")[2]
    if extension not in _usual() or (seller.only and extension not in seller.only):
        return None
    document: dict[str, Any] = {"name": name, "offer": offer.kind}
    if offer.first_year is None:
        return document
    usual = _usual()[extension] * EURO_IN[seller.currency]
    places = 0 if seller.currency == "SEK" else 2
    if offer.kind == "premium":
        dear = offer.first_year * EURO_IN[seller.currency]
        first, later = dear * seller.register, (offer.renewal or 0) * EURO_IN[seller.currency]
    else:
        behind, more = BEHIND.get(seller.code, ("", 1.0))
        more = more if behind == extension else 1.0
        risen = 1 + seller.rises / 100 * _half_years(on)
        first, later = usual * seller.register * more, usual * seller.renew * risen * more
    document["currency"] = seller.currency
    return document | {"first_year": round(first, places), "renewal": round(later, places)}


def coupons_of(seller: Seller, on: date) -> str:
    """The coupons that are told of on a day: some have ended, and some never work."""
    month = on.replace(day=1)
    end = (month + timedelta(days=62)).isoformat()
    gone = (month - timedelta(days=10)).isoformat()
    start = (month - timedelta(days=30)).isoformat()
    code = seller.code.upper()
    rows: list[tuple[object, ...]] = [
        (f"{code}10", "percent", 10, "", "register", "", "", "", "", "", "yes", "", start, end),
        (f"{code}OLD", "percent", 40, "", "register", "", "", "", "", "", "", "", start, gone),
    ]
    if seller.code == "ninefold":
        rows.append(
            ("FIVEUP", "percent", 25, "", "register", "", "", 5, "", "", "", "yes", start, end)
        )
    if seller.code == "lantern":
        rows.append(
            ("HELLO", "amount", 5, "", "register move", "", "", "", 20, "yes", "", "", start, end)
        )
    if seller.code == "quillgate":
        rows.append(
            ("QUIET", "price", 2, "com net", "register", 1, 1, "", "", "", "", "", start, end)
        )
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COUPON_HEADING)
    writer.writerows(rows)
    return out.getvalue()


Troubled = Callable[[web.Request, str], Awaitable[web.StreamResponse | None]]


def add_sellers(
    app: web.Application,
    now: Callable[[], datetime],
    fault_of: Troubled,
    offer_of: Callable[[str], Offer | None],
) -> None:
    """Their addresses; `now` is the world's time, `fault_of` what is wrong with a list or a quote
    now, `offer_of` how a full name can be had.
    """
    by_code = {seller.code: seller for seller in SELLERS}

    async def index(request: web.Request) -> web.StreamResponse:
        if (fault := await fault_of(request, "")) is not None:
            return fault
        return web.json_response({"sellers": [seller.terms() for seller in SELLERS]})

    def listing(make: Callable[[Seller, date], str]) -> Callable[[web.Request], Any]:
        async def answer(request: web.Request) -> web.StreamResponse:
            seller = by_code.get(request.match_info["code"])
            if seller is None:
                raise web.HTTPNotFound
            if (fault := await fault_of(request, seller.code)) is not None:
                return fault
            today = now().astimezone(UTC)
            text = make(seller, today.date())
            tag = f'"{hashlib.sha256(text.encode()).hexdigest()[:20]}"'
            changed = today.replace(day=1, hour=0, minute=0, second=0, microsecond=0)
            headers = {"ETag": tag, "Last-Modified": format_datetime(changed, usegmt=True)}
            if request.headers.get("If-None-Match") == tag:
                return web.Response(status=304, headers=headers)
            return web.Response(
                body=text.encode(), headers=headers, content_type="text/csv", charset="utf-8"
            )

        return answer

    async def quote(request: web.Request) -> web.StreamResponse:
        name = request.match_info["name"].lower()
        seller = by_code.get(request.match_info["code"])
        if seller is None:
            raise web.HTTPNotFound
        if (fault := await fault_of(request, f"{seller.code} quotes")) is not None:
            return fault
        offer = offer_of(name)
        document = offer and quote_of(seller, name, offer, now().astimezone(UTC).date())
        if document is None:
            return web.json_response({"error": "This extension is not sold here."}, status=404)
        return web.json_response(document)

    app.router.add_get("/sellers/{code}/quotes/{name}", quote)
    app.router.add_get("/sellers.json", index)
    app.router.add_get("/sellers/{code}/prices.csv", listing(prices_of))
    app.router.add_get("/sellers/{code}/coupons.csv", listing(coupons_of))
