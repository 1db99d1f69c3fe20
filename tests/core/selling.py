"""Small sellers, lists and markets, for the tests of what a name costs."""

from __future__ import annotations

from datetime import date
from decimal import Decimal

from vinetag.core.cost import Buyer, Market, PriceList, PriceRow, Rates, Seller
from vinetag.core.money import Money

TODAY = date(2026, 11, 29)
IRISH = Buyer(country="IE")
NOWHERE = Buyer()  # whose tax nobody knows: what is told is net
RATES = Rates({date(2026, 11, 27): {"USD": Decimal("1.25"), "SEK": Decimal(11)}})


def euros(amount: object) -> Money:
    return Money(str(amount), "EUR")


def seller(code: str = "harbour", **terms: object) -> Seller:
    return Seller(code, code.title(), **{"country": "IE", "currency": "EUR", **terms})  # type: ignore[arg-type]


def rows(register: str, renew: str, move: str | None = None) -> list[PriceRow]:
    found = [
        PriceRow("com", "register", Decimal(register)),
        PriceRow("com", "renew", Decimal(renew)),
    ]
    return [*found, PriceRow("com", "move", Decimal(move))] if move else found


def market(*sellers: tuple[Seller, list[PriceRow]], **how: object) -> Market:
    given = {"coupons": {}, "rates": RATES, "buyer": NOWHERE, "currency": "EUR", "today": TODAY}
    return Market(
        {s.code: s for s, _ in sellers},
        {s.code: PriceList(s.code, TODAY, listed) for s, listed in sellers},
        **{**given, **how},  # type: ignore[arg-type]
    )
