"""The examples of docs/costs.md, worked out again."""

from datetime import date
from decimal import Decimal
from pathlib import Path

from tests.core.selling import IRISH, TODAY, market, seller
from vinetag.core.cost import (
    Buyer,
    Coupon,
    Item,
    PriceList,
    PriceRow,
    Promotion,
    Quoted,
    Wish,
    cheapest_way,
    price_order,
)

DOC = (Path(__file__).resolve().parents[2] / "docs/costs.md").read_text("utf-8")

FIRST = Promotion(Decimal("0.99"), "first_year")
LANTERN = (
    seller("lantern"),
    [
        PriceRow("com", "register", Decimal(12), 1, 1, promotion=FIRST),
        PriceRow("com", "renew", Decimal(16), 1, 1),
        PriceRow("*", "fee", Decimal("0.18")),
    ],
)
WEIR = (
    seller("weir"),
    [PriceRow("com", action, Decimal(12), 1, 1) for action in ("register", "renew", "move")],
)


def said(amount: int, sign: str = "€") -> str:
    """Thousandths as the examples write them."""
    whole = f"{amount / 1000:,.2f}"
    return f"**{sign}{whole.removesuffix('.00') if amount >= 1_000_000 else whole}**"


def paid(*sellers: object, years: int, only: str = "") -> list[int]:
    chosen = frozenset({only}) if only else None
    way = cheapest_way(market(*sellers, buyer=IRISH), Wish("com", years, TODAY, sellers=chosen))  # type: ignore[arg-type]
    assert way is not None
    return [step.priced.amount for step in way.steps]


def test_a_cheap_first_year() -> None:
    first, *later = paid(LANTERN, years=3)
    assert (said(first), {said(one) for one in later}) == ("**€1.44**", {"**€19.90**"})
    assert said(first) in DOC
    assert said(later[0]) in DOC
    assert said(first + sum(later)) == "**€41.24**"
    assert "**€41.24**" in DOC


def test_leaving_after_the_first_year() -> None:
    assert sum(paid(LANTERN, WEIR, years=3, only="weir")) == 44_280
    steps = cheapest_way(market(LANTERN, WEIR, buyer=IRISH), Wish("com", 3, TODAY))
    assert steps is not None
    assert [(s.action, s.seller, s.on.year) for s in steps.steps] == [
        ("register", "lantern", 2026), ("move", "weir", 2027), ("renew", "weir", 2028),
    ]  # fmt: skip
    assert said(steps.total) == "**€30.96**"
    assert "**€30.96**" in DOC


def test_a_premium_name_bought_by_a_business() -> None:
    german = seller("abroad", country="DE")
    rows = [PriceRow("com", "register", Decimal(9)), PriceRow("com", "renew", Decimal(9))]
    of = market((german, rows), buyer=Buyer("IE", business=True, vat_country="IE"))
    quotes = {"abroad": Quoted(Decimal(900), Decimal(90))}
    way = cheapest_way(of, Wish("com", 3, TODAY, quotes=quotes))
    assert way is not None
    assert said(way.total) == "**€1,080**"
    assert "**€1,080**" in DOC


def test_another_currency() -> None:
    dollars = seller("far", country="US", currency="USD")
    rows = [PriceRow("com", "register", Decimal(10)), PriceRow("com", "renew", Decimal(10))]
    of = market((dollars, rows), buyer=Buyer("JP"))
    way = cheapest_way(of, Wish("com", 2, TODAY))
    assert way is not None
    assert said(way.total) == "**€16.00**"
    assert "**€16.00**" in DOC
    total = way.steps[0].priced.order.total
    assert of.rates.convert(total, "EUR", TODAY).day == date(2026, 11, 27)
    assert way.steps[0].priced.order.tax.rate is None


def test_coupons() -> None:
    kinds = (("THIRTY", 30, False), ("TWENTY", 20, True), ("FIFTEEN", 15, True))
    coupons = [Coupon(c, "x", "percent", Decimal(v), combines=t) for c, v, t in kinds]
    listed = PriceList("x", TODAY, [PriceRow("com", "register", Decimal(10))])
    items = [Item(label, "com", "register", 1) for label in ("inkpost", "paperpost")]
    made = price_order(seller("x"), listed, items, TODAY, IRISH, coupons=coupons)
    assert made is not None
    assert [str(line.amount) for line in made.lines if line.kind == "coupon"] == ["-4.00", "-3.00"]
    assert said(int(made.total.amount * 1000)) == "**€15.99**"
    assert "**€15.99**" in DOC
