"""The search for where each of several names begins: what is registered on one day at one seller is
one order, whose coupons and thresholds they share.

For few names every way to begin is tried. For more, which name begins where is searched from
several beginnings, one change at a time. How far the result can be from the best is told: no plan
costs less than what each name would cost if it had every promotion and the best coupon of its order
for itself.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace
from decimal import Decimal
from itertools import combinations, combinations_with_replacement, product
from math import comb, prod
from typing import Final, NamedTuple

from vinetag.core.cost.coupons import Coupon, taken_off
from vinetag.core.cost.market import Market
from vinetag.core.cost.members import Bundle, Member
from vinetag.core.cost.orders import Item, Order, PricedItem, close_order, price_item
from vinetag.core.cost.ways import Start, Ways

__all__ = ["Search"]

# Of one seller, so many of the terms a name could begin with are tried.
TERMS_TRIED: Final = 3
# Of more sellers than these the bound is a plainer one.
MOST_SELLERS: Final = 8
ROUNDS: Final = 12
# Up to so many ways for all names to begin, every one of them is tried.
MOST_TRIED: Final = 3_000


class _Option(NamedTuple):
    """One way for a name to begin. Those of one `kind` and start cost the same, whatever the
    label.
    """

    start: Start
    item: Item
    kind: int


class Search:
    """A search over the names that can be had somewhere."""

    def __init__(self, market: Market, members: Sequence[Member]) -> None:
        self.market = market
        self.day = members[0].wish.start if members else market.today
        self.nowhere: list[str] = []
        self.members: list[Member] = []
        self.options: list[list[_Option]] = []
        known: dict[tuple[object, ...], tuple[Ways, list[Start]]] = {}
        self.ways: list[Ways] = []
        self.starts: list[list[Start]] = []
        for member in members:
            wish = member.wish
            key = (
                wish.extension, wish.years, tuple(sorted(wish.quotes.items())), wish.sellers,
                wish.trouble, wish.ahead, wish.moving,
            )  # fmt: skip
            if key not in known:
                ways = Ways(market, wish)
                known[key] = ways, ways.starts()
            ways, starts = known[key]
            if not starts:
                self.nowhere.append(member.full_name)
                continue
            self.members.append(member)
            self.ways.append(ways)
            self.starts.append(starts)
            self.options.append([_option(member, ways, start) for start in _few(starts)])
        self.costs: dict[tuple[str, tuple[tuple[int, int], ...]], int] = {}
        self.priced: dict[tuple[Item, str, int], PricedItem] = {}
        self.coupons = {code: market.usable(code, self.day) for code in market.sellers}
        self.first_places = {
            code: max((row.promotion.names for row in listed.rows if row.promotion), default=0)
            for code, listed in market.prices.items()
        }

    def bundle(self) -> Bundle:
        """The best plan that was found."""
        best, proven = self._best()
        orders = {code: self._order(code, there) for code, there in self._by_seller(best)}
        found = {
            member.full_name: ways.way(option.start)
            for member, ways, option in zip(self.members, self.ways, best, strict=True)
        }
        later = sum(way.total - way.steps[0].priced.amount for way in found.values())
        total = sum(self.market.amount(order) for order in orders.values()) + later
        weight = self._total(best)
        bound = weight if proven else self._bound()
        return Bundle(orders, found, total, weight, bound, tuple(self.nowhere))

    def _best(self) -> tuple[list[_Option], bool]:
        """The best that was found, and whether everything was tried."""
        whole = [
            [_option(member, ways, start) for start in starts]
            for member, ways, starts in zip(self.members, self.ways, self.starts, strict=True)
        ]
        for options in (whole, self.options):
            if self._ways_to_choose(options) <= MOST_TRIED:
                found = min(self._every(options), key=self._total, default=[])
                return list(found), options is whole
        return min((self._improved(b) for b in self._beginnings()), key=self._total), False

    def _kinds(self) -> list[list[int]]:
        """The places of names that cost the same, together."""
        kinds: dict[int, list[int]] = {}
        for place, ways in enumerate(self.ways):
            kinds.setdefault(id(ways), []).append(place)
        return list(kinds.values())

    def _ways_to_choose(self, options: Sequence[Sequence[_Option]]) -> int:
        """How many there are; names that cost the same can be swapped."""
        counts = (comb(len(options[k[0]]) + len(k) - 1, len(k)) for k in self._kinds())
        return prod(counts)

    def _every(self, options: Sequence[Sequence[_Option]]) -> Iterable[list[_Option]]:
        kinds = self._kinds()
        places = [
            combinations_with_replacement(range(len(options[kind[0]])), len(kind)) for kind in kinds
        ]
        for chosen in product(*places):
            found: dict[int, _Option] = {}
            for kind, of_kind in zip(kinds, chosen, strict=True):
                found |= {
                    place: options[place][at] for place, at in zip(kind, of_kind, strict=True)
                }
            yield [found[place] for place in range(len(options))]

    def _beginnings(self) -> Iterable[list[_Option]]:
        """Each name where it is cheapest alone; all of them at one seller, as far as it goes."""
        alone = [min(options, key=_whole) for options in self.options]
        yield alone
        for code in self.market.sellers:
            there = [
                min((o for o in options if o.start.seller == code), key=_whole, default=usual)
                for options, usual in zip(self.options, alone, strict=True)
            ]
            if there != alone:
                yield there

    def _improved(self, chosen: list[_Option]) -> list[_Option]:
        """Changed name by name as long as that makes it cheaper."""
        chosen = list(chosen)
        costs = dict(self._costs(chosen))
        # Kinds of names whose beginning nothing betters, as all others stand.
        settled: set[tuple[int, Start]] = set()
        for _ in range(ROUNDS):
            changed = False
            for place, options in enumerate(self.options):
                now = chosen[place]
                if (now.kind, now.start) in settled:
                    continue
                best, best_costs, least = now, costs, 0
                for option in options:
                    if option == now:
                        continue
                    chosen[place] = option
                    touched = {now.start.seller, option.start.seller}
                    fresh = {c: self._cost_of(c, chosen) for c in touched}
                    more = sum(fresh[c] - costs.get(c, 0) for c in touched)
                    more += option.start.rest - now.start.rest
                    if more < least:
                        best, best_costs, least = option, {**costs, **fresh}, more
                chosen[place], costs = best, best_costs
                if best == now:
                    settled.add((now.kind, now.start))
                else:
                    settled.clear()
                    changed = True
            if not changed:
                break
        return chosen

    def _total(self, chosen: Sequence[_Option]) -> int:
        return sum(cost for _, cost in self._costs(chosen)) + sum(o.start.rest for o in chosen)

    def _costs(self, chosen: Sequence[_Option]) -> Iterable[tuple[str, int]]:
        for code, _ in self._by_seller(chosen):
            yield code, self._cost_of(code, chosen)

    def _cost_of(self, code: str, chosen: Sequence[_Option]) -> int:
        there = [option for option in chosen if option.start.seller == code]
        key = code, tuple(sorted((option.kind, option.start.years) for option in there))
        if key not in self.costs:
            amount = self.market.amount(self._order(code, there)) if there else 0
            self.costs[key] = amount
        return self.costs[key]

    def _by_seller(self, chosen: Sequence[_Option]) -> list[tuple[str, list[_Option]]]:
        codes = sorted({option.start.seller for option in chosen})
        return [(code, [o for o in chosen if o.start.seller == code]) for code in codes]

    def _order(self, code: str, there: Sequence[_Option]) -> Order:
        """The first names are those whose promotion takes most off."""
        first = self.first_places.get(code, 0)
        if first:
            there = sorted(there, key=lambda o: self._saved(code, o.item), reverse=True)
        items = [self._item(code, o.item, min(place, first)) for place, o in enumerate(there)]
        return self._closed(code, items, self.coupons[code])

    def _saved(self, code: str, item: Item) -> Decimal:
        """What being among the first names takes off."""
        first, later = (self._item(code, item, place) for place in (0, self.first_places[code]))
        return later.eligible.amount - first.eligible.amount

    def _item(self, code: str, item: Item, place: int) -> PricedItem:
        key = (item, code, place)
        if key not in self.priced:
            new = code not in self.market.buyer.customer_of
            found = price_item(
                self.market.sellers[code], self.market.prices[code], item, self.day,
                self.market.buyer, place, new_customer=new,
            )  # fmt: skip
            if found is None:
                raise ValueError(f"{code} does not offer {item.full_name} for {item.years} years")
            self.priced[key] = found
        return self.priced[key]

    def _bound(self) -> int:
        """What no plan weighs less than: the least over which sellers it has orders at. Each name
        costs at least what it would with every share for itself, and each of the sellers has to
        have a name; what is taken off an order as a whole is taken off once for each.
        """
        least = self._least_by_seller()
        codes = sorted({code for of_one in least for code in of_one})
        most = min(len(codes), len(least))
        off = {code: self._off_at_once(code) for code in codes}
        if len(codes) > MOST_SELLERS:
            found = sum(min(of_one.values()) for of_one in least) - sum(off.values())
            return max(0, found)
        bounds = [
            bound - sum(off[code] for code in used)
            for size in range(1, most + 1)
            for used in combinations(codes, size)
            if (bound := _least_at(least, used)) is not None
        ]
        return max(0, min(bounds, default=0))

    def _least_by_seller(self) -> list[dict[str, int]]:
        """By name, what a plan that begins with it at a seller weighs at least, orders shared."""
        known: dict[int, dict[str, int]] = {}
        found = []
        for member, ways, starts in zip(self.members, self.ways, self.starts, strict=True):
            if id(ways) not in known:
                of_one: dict[str, int] = {}
                for start in starts:
                    option = _option(member, ways, start)
                    weight = start.rest + self._at_best(option)
                    of_one[start.seller] = min(weight, of_one.get(start.seller, weight))
                known[id(ways)] = of_one
            found.append(known[id(ways)])
        return found

    def _at_best(self, option: _Option) -> int:
        """The first payment with the coupons that take a share off, whatever their conditions.
        Together they may take more off a name than it costs, which other names of its order gain:
        so it may be less than nothing.
        """
        code = option.start.seller
        item = self._item(code, option.item, self.first_places.get(code, 0))
        shares = [
            replace(c, least_names=1, least_sum=Decimal(0), on_promotions=True)
            for c in self.coupons[code]
            if c.kind != "amount"
        ]
        together = [c for c in shares if c.combines]
        least = min(
            self.market.amount(self._closed(code, [item], coupons))
            for coupons in ([], together, *([c] for c in shares))
        )
        new = code not in self.market.buyer.customer_of
        off = (taken_off(coupon, [item.eligible], new_customer=new) for coupon in together)
        over = sum(off, Decimal(0)) - item.eligible.amount
        return least - self.market.at_most(code, over) if over > 0 else least

    def _off_at_once(self, code: str) -> int:
        """The most that coupons of an amount and promotions of the first names take off an order,
        and by what rounding it whole may come to less than rounding it name by name.
        """
        seller, coupons = self.market.sellers[code], self.coupons[code]
        new = code not in self.market.buyer.customer_of
        of_amount = [
            c
            for c in coupons
            if c.kind == "amount"
            and c.least_names <= len(self.members)
            and "register" in c.actions
            and (new or not c.new_customers)
        ]
        together = sum((c.value for c in of_amount if c.combines), Decimal(0))
        amounts = max([together, *(c.value for c in of_amount)])
        slack = seller.rounding * len(self.members) * (1 + len(coupons)) / 2
        first = self.first_places.get(code, 0)
        saved = max((self._saved(code, item) for item in self._items_at(code)), default=Decimal(0))
        less = amounts + slack + min(first, len(self.members)) * saved
        return self.market.at_most(code, less) + len(self.members)

    def _items_at(self, code: str) -> Iterable[Item]:
        """What could be begun at a seller."""
        for member, ways, starts in zip(self.members, self.ways, self.starts, strict=True):
            yield from (_option(member, ways, s).item for s in starts if s.seller == code)

    def _closed(self, code: str, items: Sequence[PricedItem], coupons: Sequence[Coupon]) -> Order:
        return close_order(
            self.market.sellers[code], items, self.day, self.market.buyer,
            new_customer=code not in self.market.buyer.customer_of, coupons=coupons,
        )  # fmt: skip


def _least_at(least: Sequence[Mapping[str, int]], used: Sequence[str]) -> int | None:
    """What names weigh at least with orders at all of these sellers and no others; None where one
    cannot be had there.
    """
    whole, more = 0, dict.fromkeys(used, sum(max(of_one.values()) for of_one in least))
    for of_one in least:
        here = [of_one[code] for code in used if code in of_one]
        if not here:
            return None
        whole += min(here)
        for code in used:
            if code in of_one:
                more[code] = min(more[code], of_one[code] - min(here))
    return whole + sum(more.values())


def _whole(option: _Option) -> int:
    return option.start.whole


def _option(member: Member, ways: Ways, start: Start) -> _Option:
    quoted = member.wish.quotes.get(start.seller)
    item = Item(member.label, member.wish.extension, "register", start.years, quoted)
    return _Option(start, item, id(ways))


def _few(starts: Sequence[Start]) -> list[Start]:
    """Of each seller the cheapest beginnings."""
    kept: dict[str, list[Start]] = {}
    for start in sorted(starts, key=lambda s: (s.whole, s.years)):
        if len(kept.setdefault(start.seller, [])) < TERMS_TRIED:
            kept[start.seller].append(start)
    return [start for starts in kept.values() for start in starts]
