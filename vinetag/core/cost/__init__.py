"""What a name really costs: sellers, price lists, tax, coupons, and the ways to hold a name."""

from vinetag.core.cost.bundles import paid_by_year, plan_bundle, within_budget
from vinetag.core.cost.changes import PriceChange, changes_between
from vinetag.core.cost.coupons import Coupon, Eligible, Odds, Report, odds_of
from vinetag.core.cost.listed import Listed, listed
from vinetag.core.cost.market import Market, Priced, Term
from vinetag.core.cost.members import Bundle, Member
from vinetag.core.cost.moves import moves_add_year
from vinetag.core.cost.orders import (
    Item,
    Line,
    LineKind,
    Order,
    PricedItem,
    close_order,
    price_item,
    price_order,
    privacy_lines,
)
from vinetag.core.cost.prices import ACTIONS, PriceList, PriceRow, Promotion, Quoted
from vinetag.core.cost.quotes import Said, beside_list, said_of
from vinetag.core.cost.rates import RateError, Rates
from vinetag.core.cost.sellers import Buyer, Extra, Seller
from vinetag.core.cost.tax import Tax, tax_of
from vinetag.core.cost.ticked import Ticked, TickedExtra, as_ticked
from vinetag.core.cost.totals import Holding, holding_of, totals
from vinetag.core.cost.ways import (
    LONGEST_HORIZON,
    Start,
    Step,
    Way,
    Ways,
    Wish,
    cheapest_way,
    years_after,
)
from vinetag.core.cost.worth import coupon_worth

__all__ = [
    "ACTIONS", "LONGEST_HORIZON", "Bundle", "Buyer", "Coupon", "Eligible", "Extra", "Holding",
    "Item", "Line", "LineKind", "Listed", "Market", "Member", "Odds", "Order", "PriceChange",
    "PriceList",
    "PriceRow", "Priced", "PricedItem", "Promotion", "Quoted", "RateError", "Rates", "Report",
    "Said", "Seller", "Start", "Step", "Tax", "Term", "Ticked", "TickedExtra", "Way", "Ways",
    "Wish", "as_ticked", "beside_list", "changes_between", "cheapest_way", "close_order",
    "coupon_worth", "holding_of", "listed", "moves_add_year", "odds_of", "paid_by_year",
    "plan_bundle", "price_item", "price_order", "privacy_lines", "said_of", "tax_of", "totals",
    "within_budget", "years_after",
]  # fmt: skip
