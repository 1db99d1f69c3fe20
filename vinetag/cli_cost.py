"""vinetag cost: what full names cost over some years, at each seller and at best."""

from __future__ import annotations

import argparse
import asyncio
import os
import sys
from collections.abc import Callable, Collection, Iterator, Sequence
from dataclasses import replace
from datetime import UTC, date, datetime
from decimal import Decimal
from pathlib import Path
from typing import Any, NamedTuple

from vinetag.core.checking import read_pasted
from vinetag.core.cost import (
    LONGEST_HORIZON,
    Buyer,
    Market,
    Quoted,
    RateError,
    Rates,
    Way,
    Wish,
    as_ticked,
    beside_list,
    cheapest_way,
    moves_add_year,
    said_of,
)
from vinetag.core.cost.bank_rates import (
    BankRatesError,
    joined_rates,
    read_bank_rates,
    shipped_rates,
)
from vinetag.core.cost.vat import buyer_of
from vinetag.core.extensions import COUNTRIES, parse_extension, shipped_catalogue
from vinetag.core.money import amount_of, currency_of, neat, thousandths
from vinetag.core.names import FullName
from vinetag.lookup.quotes import QuoteWanted, fetch_quotes
from vinetag.lookup.sellers import FoundSellers, fetch_sellers
from vinetag.lookup.settings import LookupSettings

__all__ = ["add_cost", "cost"]

MOST_NAMES = 500
WORDS = {"register": "register at", "renew": "renew at", "move": "move to"}


def add_cost(commands: Any, shared: argparse.ArgumentParser) -> argparse.ArgumentParser:
    """The command's options."""
    parser: argparse.ArgumentParser = commands.add_parser(
        "cost", parents=[shared], help="what full names cost over some years, and the cheapest way"
    )
    parser.add_argument("names", nargs="*", help="full names; from standard input where none is")
    parser.add_argument("--years", type=int, default=5, help="how long they are held, 1 to 10 (5)")
    parser.add_argument("--country", default="", choices=("", *COUNTRIES), help="of the buyer")
    parser.add_argument("--vat", default="", help="VAT number of a business that buys")
    parser.add_argument("--currency", default="EUR", help="to tell amounts in (EUR)")
    parser.add_argument("--sellers", default="", help="only these, separated by commas")
    parser.add_argument("--public", action="store_true", help="the holder need not stay private")
    parser.add_argument("--stay", action="store_true", help="never move to another seller")
    parser.add_argument("--trouble", default="0", help="what a move costs you beside its price (0)")
    parser.add_argument(
        "--ahead", default="0", help="percent a year by which what is paid later weighs less (0)"
    )
    parser.add_argument("--rates", default="", help="a newer file of the bank's exchange rates")
    parser.add_argument("--quotes", action="store_true", help="ask sellers about each name, too")
    return parser


def cost(args: argparse.Namespace, say: Callable[[str], None], fault: type[Exception]) -> Any:
    """Rows for the names. `say` tells of what went wrong on the way; raises `fault` for options
    that cannot be, CoreError for names and numbers that are none.
    """
    if not 1 <= args.years <= LONGEST_HORIZON:
        raise fault(f"--years: choose a number from 1 to {LONGEST_HORIZON}.")
    try:
        currency, trouble = currency_of(args.currency.upper()), thousandths(amount_of(args.trouble))
        ahead = amount_of(args.ahead)
    except ValueError as error:
        raise fault(f"--currency, --trouble, --ahead: {error}") from error
    names = _names(args.names or sys.stdin.read().split("\n"), say, fault)
    buyer = buyer_of(args.country, args.vat, privacy=not args.public, path="--vat")
    today = datetime.now(UTC).date()
    found = asyncio.run(_sellers(today))
    for seller, what in found.troubles:
        say(f"vinetag: {seller or 'sellers'}: {what}")
    market = _market(found, _rates(args.rates, fault), buyer, currency, today)
    if unknown := {*filter(None, args.sellers.split(","))} - {*market.sellers}:
        here = ", ".join(sorted(market.sellers)) or "none"
        raise fault(f"--sellers: {', '.join(sorted(unknown))}: there are {here}.")
    chosen = frozenset(args.sellers.split(",")) if args.sellers else frozenset(market.sellers)
    wish = Wish(
        "", args.years, today, trouble=trouble, ahead=ahead, moving=not args.stay, sellers=chosen
    )
    quotes = _quotes(market, found, names, chosen, say) if args.quotes else {}
    return [
        row for name in names for row in _rows(market, name, _quoted(wish, quotes.get(name)), say)
    ]


class _OfName(NamedTuple):
    """By seller, what a name costs where the list does not say it, and who does not sell it."""

    quoted: dict[str, Quoted]
    without: set[str]


def _quoted(wish: Wish, known: _OfName | None) -> Wish:
    """The wish with what is known of a name."""
    if known is None:
        return wish
    sellers = (wish.sellers or frozenset()) - known.without
    return replace(wish, quotes=known.quoted, sellers=sellers)


def _quotes(
    market: Market,
    found: FoundSellers,
    names: Sequence[FullName],
    chosen: Collection[str],
    say: Callable[[str], None],
) -> dict[FullName, _OfName]:
    """What sellers say of each name; what could not be found out is told."""
    wanted = [
        QuoteWanted(code, entry.quotes, name)
        for name in names
        for code, entry in found.entries.items()
        if code in market.prices and code in chosen and entry.quotes
    ]
    answers = asyncio.run(fetch_quotes(LookupSettings.from_env(os.environ), wanted))
    known = {name: _OfName({}, set()) for name in names}
    for one, answer in zip(wanted, answers, strict=True):
        seller, price = market.sellers[one.seller], answer.quote
        said = said_of(
            answer.says,
            price.currency if price else "",
            price.first_year if price else None,
            price.renewal if price else None,
            seller.currency,
        )
        if said.sold is False:
            known[one.name].without.add(one.seller)
        elif said.quoted is not None:
            listed, extension = market.prices[one.seller], one.name.extension
            beats = beside_list(seller, listed, extension, said.quoted, market.today)
            if beats is not None:
                known[one.name].quoted[one.seller] = beats
        elif answer.trouble and answer.trouble != "no_service":
            say(f"vinetag: {one.name}: {one.seller} gave no answer of use; its list counts.")
    return known


def _rates(path: str, fault: type[Exception]) -> Rates:
    """Those that ship, with a newer file. Raises `fault` for one that cannot be read."""
    if not path:
        return shipped_rates()
    try:
        text = Path(path).read_text("utf-8-sig")
    except (OSError, UnicodeDecodeError) as error:
        raise fault(f"--rates: {error}") from error
    try:
        return joined_rates(shipped_rates(), read_bank_rates(text))
    except BankRatesError as error:
        told = " ".join(f"{p.path}: {p.text()}" for p in error.problems[:5])
        raise fault(f"--rates: {told}") from error


def _names(
    lines: Sequence[str], say: Callable[[str], None], fault: type[Exception]
) -> list[FullName]:
    pasted = read_pasted("\n".join(lines), MOST_NAMES, MOST_NAMES)
    for bad in pasted.bad:
        say(f"vinetag: line {bad.line}: “{bad.text}”: {bad.reason}")
    for label in sorted(pasted.bare):
        say(f"vinetag: “{label}” has no extension: write it like {label}.com.")
    names = [
        FullName(label, parse_extension(e)) for label, own in pasted.names.items() for e in own
    ]
    if not names:
        raise fault("give full names, such as inkpost.com.")
    return names


async def _sellers(today: date) -> FoundSellers:
    settings = LookupSettings.from_env(os.environ)
    return await fetch_sellers(settings, {e.extension for e in shipped_catalogue()}, today)


def _market(found: FoundSellers, rates: Rates, buyer: Buyer, currency: str, today: date) -> Market:
    sellers = {
        code: entry.seller() for code, entry in found.entries.items() if code in found.prices
    }
    return Market(sellers, found.prices, found.coupons, rates, buyer, currency, today)


def _rows(
    market: Market, name: FullName, wish: Wish, say: Callable[[str], None]
) -> Iterator[dict[str, Any]]:
    """Staying with each seller, then the cheapest way."""
    of_name = replace(wish, extension=name.extension, trouble=0)
    for code in sorted(wish.sellers or ()):
        own = replace(of_name, sellers=frozenset({code}), moving=False)
        yield from _row(market, name, own, market.sellers[code].name, say, stays_at=code)
    if wish.moving and wish.sellers:
        adds = moves_add_year(name.extension)
        best = replace(of_name, trouble=wish.trouble, move_adds_year=adds)
        yield from _row(market, name, best, "cheapest way", say)


def _row(
    market: Market,
    name: FullName,
    wish: Wish,
    where: str,
    say: Callable[[str], None],
    stays_at: str = "",
) -> Iterator[dict[str, Any]]:
    """One row, with what leaving all ticks comes to where one stays at a seller."""
    full = f"{name.label}.{name.extension}"
    try:
        way = cheapest_way(market, wish)
    except RateError as error:
        say(f"vinetag: {where}: there is no exchange rate of {error}.")
        return
    if way is None:
        say(f"vinetag: {full}: {where} does not offer it.")
        return
    by_year = way.by_year(wish)
    ticked = as_ticked(market, wish, stays_at) if stays_at else None
    taxed = all(step.priced.order.tax.rate is not None for step in way.steps)
    yield {
        "name": full,
        "where": where,
        "total": _amount(way.total),
        "currency": market.currency,
        "a_year": _amount(way.total // wish.years),
        "first_payment": _amount(way.steps[0].priced.amount),
        "dearest_year": _amount(max(by_year)),
        "as_ticked": _amount(ticked.total) if ticked else None,
        "tax": "included" if taxed else "not known",
        "way": in_words(market, way),
        "steps": [_step(step) for step in way.steps],
        "ticked": [
            {"name": one.extra.name, "about": one.extra.about, "total": _amount(one.total)}
            for one in (ticked.extras if ticked else ())
        ],
    }


def in_words(market: Market, way: Way) -> str:
    """The steps of a way, renewals in a row told once."""
    parts: list[str] = []
    steps = list(way.steps)
    while steps:
        step = steps.pop(0)
        again = 0
        while step.action == "renew" and steps and _alike(step, steps[0]):
            steps.pop(0)
            again += 1
        name = market.sellers[step.seller].name
        years = f" for {step.years} year{'s' if step.years > 1 else ''}"
        when = f" in {step.on:%B %Y}" if parts else ""
        each = f", then {again} times more" if again else ""
        parts.append(
            f"{WORDS[step.action]} {name}{years if step.action != 'move' else ''}{when}{each}"
        )
    return "; ".join(parts)


def _alike(one: Any, other: Any) -> bool:
    return bool((one.action, one.seller, one.years) == (other.action, other.seller, other.years))


def _step(step: Any) -> dict[str, Any]:
    order = step.priced.order
    return {
        "on": step.on.isoformat(),
        "action": step.action,
        "seller": step.seller,
        "years": step.years,
        "until": step.until.isoformat(),
        "amount": _amount(step.priced.amount),
        "asked": f"{neat(order.total.amount)} {order.total.currency.code}",
        "lines": [
            {"kind": line.kind, "amount": str(line.amount), "reason": line.reason}
            for line in order.lines
        ],
    }


def _amount(thousandth: int) -> str:
    return f"{Decimal(thousandth) / 1000:.2f}"
