"""What the API tells of costs. Amounts are digits in text, in the currency asked for."""

from __future__ import annotations

from decimal import Decimal
from typing import Any, get_args

from rest_framework import serializers

from vinetag.apps.accounts.api.problems import ProblemSerializer
from vinetag.apps.accounts.api.seen import SeenField
from vinetag.apps.costs.by_hand import Take
from vinetag.core.cells import LARGEST
from vinetag.core.concepts import OFFER_NAMES
from vinetag.core.cost import ACTIONS, LONGEST_HORIZON
from vinetag.core.cost.coupons import CouponKind
from vinetag.core.extensions import COUNTRIES
from vinetag.core.spreadsheet import FORMS

__all__ = [
    "CostQuestionSerializer", "CostsSerializer", "DroppedCouponSerializer", "HeldCouponSerializer",
    "ListSerializer", "NewSellerSerializer", "OddsSerializer", "PlanFileSerializer",
    "RatesFileSerializer", "RatesSerializer", "ReportSerializer", "SellersSerializer",
    "TakenSerializer", "TermsSerializer",
]  # fmt: skip


class PriceChangeSerializer(serializers.Serializer[Any]):
    kind = serializers.ChoiceField(choices=("rose", "fell", "came", "went"))
    extension = serializers.CharField()
    action = serializers.ChoiceField(choices=tuple(ACTIONS))
    years_from = serializers.IntegerField()
    years_to = serializers.IntegerField()
    before = serializers.CharField(allow_null=True)
    after = serializers.CharField(allow_null=True)


class SellerSerializer(serializers.Serializer[Any]):
    code = serializers.CharField(source="entry.code")
    name = serializers.CharField(source="entry.name")
    country = serializers.CharField(source="entry.country")
    currency = serializers.CharField(source="entry.currency")
    privacy = serializers.CharField(source="entry.privacy")
    tax = serializers.CharField(source="entry.tax")
    years_chosen = serializers.IntegerField(source="entry.years_chosen")
    top_up = serializers.CharField(source="entry.top_up", help_text="Least paid into an account")
    terms = serializers.JSONField(help_text="As docs/sellers.schema.json has one of them")
    own = serializers.BooleanField(help_text="Seen by nobody else")
    by_hand = serializers.BooleanField(help_text="Not asked for its lists")
    may_change = serializers.BooleanField()
    publishes = serializers.BooleanField(help_text="Lists of its own that can be asked for")
    dated = serializers.DateField(allow_null=True, help_text="The day of its list")
    fetched_at = serializers.DateTimeField(allow_null=True)
    stale = serializers.BooleanField()
    trouble = serializers.CharField()
    changes = PriceChangeSerializer(many=True)
    changed_on = serializers.DateField(allow_null=True)


class SellersSerializer(serializers.Serializer[Any]):
    sellers = SellerSerializer(many=True)
    may_edit = serializers.BooleanField(help_text="Those everybody sees")
    rates_of = serializers.DateField(allow_null=True, help_text="The day of the exchange rates")
    follows = serializers.BooleanField(help_text="Whether sellers are asked for their lists at all")


class CostQuestionSerializer(serializers.Serializer[Any]):
    full_names = serializers.ListField(
        child=serializers.CharField(max_length=255), min_length=1, max_length=200
    )
    used = serializers.ListField(
        child=serializers.CharField(max_length=255),
        default=list,
        max_length=200,
        help_text="Those not only held for protection; none: the first",
    )
    budget = serializers.DecimalField(
        max_digits=9,
        decimal_places=2,
        min_value=Decimal(0),
        allow_null=True,
        default=None,
        help_text="Over all the years, in currency",
    )
    years = serializers.IntegerField(min_value=1, max_value=LONGEST_HORIZON, default=5)
    country = serializers.ChoiceField(choices=("", *COUNTRIES), default="", allow_blank=True)
    vat = serializers.CharField(default="", allow_blank=True, max_length=40)
    privacy = serializers.BooleanField(default=True)
    currency = serializers.RegexField("^[A-Z]{3}$", default="EUR")
    sellers = serializers.ListField(
        child=serializers.CharField(max_length=40), default=list, max_length=200
    )
    ceilings = serializers.DictField(
        child=serializers.DecimalField(max_digits=11, decimal_places=2, min_value=Decimal(0)),
        default=dict,
        help_text="By full name, what is bid for it at most in an auction, in currency",
    )
    moving = serializers.BooleanField(default=True)
    trouble = serializers.DecimalField(
        max_digits=9,
        decimal_places=2,
        min_value=Decimal(0),
        default=Decimal(0),
        help_text="Of a move, in currency",
    )
    ahead = serializers.DecimalField(
        max_digits=3,
        decimal_places=1,
        min_value=Decimal(0),
        max_value=Decimal(50),
        default=Decimal(0),
        help_text="By how many percent a year what is paid later weighs less",
    )


class LineSerializer(serializers.Serializer[Any]):
    kind = serializers.CharField()
    full_name = serializers.CharField()
    amount = serializers.CharField(help_text="In the seller's currency; below 0 when taken off")
    reason = serializers.CharField()
    args = serializers.DictField()


class OrderSerializer(serializers.Serializer[Any]):
    seller = serializers.CharField()
    currency = serializers.CharField(help_text="The seller's")
    lines = LineSerializer(many=True)
    subtotal = serializers.CharField()
    total = serializers.CharField()
    tax_known = serializers.BooleanField()


class PlannedOrderSerializer(OrderSerializer):
    paid = serializers.CharField(help_text="The total, in the currency asked for")
    paid_in = serializers.CharField(
        help_text="What has to be paid at once: more than that where it is into an account"
    )


class StepSerializer(serializers.Serializer[Any]):
    on = serializers.DateField()
    action = serializers.ChoiceField(choices=("register", "renew", "move"))
    seller = serializers.CharField()
    years = serializers.IntegerField()
    until = serializers.DateField()
    amount = serializers.CharField()
    order = OrderSerializer()


class WaySerializer(serializers.Serializer[Any]):
    total = serializers.CharField()
    by_year = serializers.ListField(child=serializers.CharField())
    steps = StepSerializer(many=True)


class ExtraSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    about = serializers.CharField()
    needed = serializers.BooleanField()
    total = serializers.CharField()


class HoldingSerializer(serializers.Serializer[Any]):
    seller = serializers.CharField()
    total = serializers.CharField(allow_null=True, help_text="None where it is not offered")
    a_year = serializers.CharField(allow_null=True)
    first = serializers.CharField(allow_null=True)
    dearest = serializers.CharField(allow_null=True)
    by_year = serializers.ListField(child=serializers.CharField(), help_text="Staying there")
    quoted = serializers.ChoiceField(
        choices=("", "usual", "premium"), help_text="Where a quote beats the list"
    )
    unsold = serializers.BooleanField(help_text="Asked, the seller does not sell this name")
    ticked = serializers.CharField(allow_null=True, help_text="When nothing is unticked")
    extras = ExtraSerializer(many=True)


class BuyingSerializer(serializers.Serializer[Any]):
    """What it takes to buy a name somebody holds."""

    kind = serializers.ChoiceField(choices=OFFER_NAMES)
    market = serializers.CharField()
    low = serializers.CharField(allow_null=True, help_text="At the least; null: not told")
    high = serializers.CharField(allow_null=True, help_text="At the most; null: not known")
    ceiling = serializers.CharField(allow_null=True)
    over = serializers.BooleanField(help_text="More is bid than the ceiling")
    bids = serializers.IntegerField(allow_null=True)
    ends = serializers.DateTimeField(allow_null=True)
    told = serializers.DateTimeField()


class AllBuyingSerializer(serializers.Serializer[Any]):
    names = serializers.IntegerField()
    low = serializers.CharField()
    high = serializers.CharField(allow_null=True, help_text="Null: not known of all")
    unknown = serializers.IntegerField(help_text="Names of which no price is told")


class CostedSerializer(serializers.Serializer[Any]):
    full_name = serializers.CharField()
    used = serializers.BooleanField()
    sellers = HoldingSerializer(many=True)
    cheapest = WaySerializer(allow_null=True)
    buying = BuyingSerializer(allow_null=True)


class PlanSerializer(serializers.Serializer[Any]):
    total = serializers.CharField()
    weight = serializers.CharField(help_text="With the trouble of moves")
    bound = serializers.CharField(help_text="No plan weighs less")
    orders = PlannedOrderSerializer(many=True)
    nowhere = serializers.ListField(child=serializers.CharField())


class AffordableSerializer(serializers.Serializer[Any]):
    plan = PlanSerializer()
    left_out = serializers.ListField(child=serializers.CharField())
    kept = serializers.BooleanField(help_text="Whether the budget is kept without them")


class OddsSerializer(serializers.Serializer[Any]):
    mean = serializers.FloatField(help_text="A share, 0 to 1")
    low = serializers.FloatField()
    high = serializers.FloatField(help_text="Nine in ten would lie from low to high")
    reports = serializers.IntegerField()


class CouponSerializer(serializers.Serializer[Any]):
    seller = serializers.CharField()
    code = serializers.CharField()
    takes = serializers.ChoiceField(choices=get_args(CouponKind))
    value = serializers.CharField()
    extensions = serializers.ListField(child=serializers.CharField())
    actions = serializers.ListField(child=serializers.CharField())
    years_from = serializers.IntegerField()
    years_to = serializers.IntegerField()
    least_names = serializers.IntegerField()
    least_sum = serializers.CharField()
    new_customers = serializers.BooleanField()
    combines = serializers.BooleanField()
    on_promotions = serializers.BooleanField()
    starts = serializers.DateField(allow_null=True, help_text="None where it has begun")
    ends = serializers.DateField(allow_null=True)
    odds = OddsSerializer()
    saving = serializers.CharField(help_text="If it works, on an order of all the names")
    expected = serializers.CharField(help_text="That times the odds")
    in_plan = serializers.BooleanField()
    reported = serializers.BooleanField(allow_null=True, help_text="By the person")
    held = serializers.ChoiceField(choices=("", "own", "all"), help_text="Entered by hand")


class QuotesSerializer(serializers.Serializer[Any]):
    waiting = serializers.IntegerField(help_text="Names some seller is still asked about")
    unknown = serializers.IntegerField(help_text="Answers of no use")
    oldest = serializers.DateTimeField(allow_null=True)


class PaidSerializer(serializers.Serializer[Any]):
    seller = serializers.CharField(allow_blank=True, help_text="Empty for the plan")
    amounts = serializers.ListField(
        child=serializers.CharField(), help_text="All that is paid by the end of each year"
    )


class CostsSerializer(serializers.Serializer[Any]):
    currency = serializers.CharField()
    years = serializers.IntegerField()
    names = CostedSerializer(many=True)
    plan = PlanSerializer()
    paid = PaidSerializer(many=True, help_text="Those who have all of the names")
    affordable = AffordableSerializer(
        allow_null=True, help_text="None where there is no budget, or the plan keeps it"
    )
    coupons = CouponSerializer(many=True)
    quotes = QuotesSerializer()
    rates_of = serializers.DateField(allow_null=True, help_text="The day of the exchange rates")
    buying = AllBuyingSerializer(allow_null=True)


class NewSellerSerializer(serializers.Serializer[Any]):
    terms = serializers.JSONField(help_text="As docs/sellers.schema.json has one of them")
    everybody = serializers.BooleanField(default=False, help_text="By an administrator")


class TermsSerializer(serializers.Serializer[Any]):
    terms = serializers.JSONField(help_text="As docs/sellers.schema.json has one of them")
    seen = SeenField(help_text="The terms as they were; 409 when they are otherwise by now")


class ListSerializer(serializers.Serializer[Any]):
    text = serializers.CharField(max_length=LARGEST, trim_whitespace=False)
    take = serializers.ChoiceField(
        choices=get_args(Take), default="whole", help_text="good: those lines that are right"
    )


class TakenSerializer(serializers.Serializer[Any]):
    lines = serializers.IntegerField()
    problems = ProblemSerializer(many=True)


class HeldCouponSerializer(serializers.Serializer[Any]):
    text = serializers.CharField(
        max_length=20_000, help_text="Lines of docs/coupons.table.json with their heading"
    )
    everybody = serializers.BooleanField(default=False)


class DroppedCouponSerializer(serializers.Serializer[Any]):
    code = serializers.CharField(max_length=40)
    everybody = serializers.BooleanField(default=False)


class ReportSerializer(serializers.Serializer[Any]):
    seller = serializers.CharField(max_length=40)
    code = serializers.CharField(max_length=40)
    worked = serializers.BooleanField(allow_null=True, help_text="None takes it back")


class RatesFileSerializer(serializers.Serializer[Any]):
    text = serializers.CharField(max_length=LARGEST, trim_whitespace=False)


class RatesSerializer(serializers.Serializer[Any]):
    rates_of = serializers.DateField(allow_null=True)


class PlanFileSerializer(CostQuestionSerializer):
    form = serializers.ChoiceField(choices=tuple(FORMS))
