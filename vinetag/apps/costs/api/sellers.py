"""Sellers, their lists and coupons, and the bank's rates: read by all, changed by who may."""

from __future__ import annotations

from typing import Any, ClassVar

from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.files import download
from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer, told_problems
from vinetag.apps.accounts.models import User
from vinetag.apps.accounts.waking import wake
from vinetag.apps.availability.catalogue import require_administrator
from vinetag.apps.availability.lookups import lookup_settings
from vinetag.apps.costs import by_hand
from vinetag.apps.costs.api.serializers import (
    DroppedCouponSerializer,
    HeldCouponSerializer,
    ListSerializer,
    NewSellerSerializer,
    RatesFileSerializer,
    RatesSerializer,
    SellersSerializer,
    TakenSerializer,
    TermsSerializer,
)
from vinetag.apps.costs.listing import prices_changed
from vinetag.apps.costs.rates import bring_rates, rates_in_force
from vinetag.apps.costs.sellers import ask_again, seller_states
from vinetag.apps.costs.tasks import refresh_when_due

__all__ = [
    "CouponListView", "FollowView", "HeldCouponsView", "PriceListView", "RatesView",
    "RefreshView", "SellerView", "SellersView",
]  # fmt: skip

REFUSED = {400: ErrorSerializer, 404: ErrorSerializer}


def _sellers(person: User) -> Any:
    document = {
        "sellers": seller_states(person),
        "may_edit": person.is_staff,
        "rates_of": rates_in_force().newest,
        "follows": bool(lookup_settings().sellers),
    }
    return SellersSerializer(document).data


class SellersView(APIView):
    @extend_schema(operation_id="listSellers", responses={200: SellersSerializer})
    def get(self, request: Request) -> Response:
        return Response(_sellers(person_of(request)))

    @extend_schema(
        operation_id="addSeller",
        request=NewSellerSerializer,
        responses={201: SellersSerializer, **REFUSED},
    )
    def post(self, request: Request) -> Response:
        person = person_of(request)
        given = NewSellerSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        asked = given.validated_data
        by_hand.make_seller(person, asked["terms"], everybody=asked["everybody"])
        return Response(_sellers(person), status=201)


class RefreshView(APIView):
    @extend_schema(
        operation_id="refreshSellers",
        request=None,
        responses={202: SellersSerializer, 404: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        person = person_of(request)
        require_administrator(person)
        ask_again()
        wake(refresh_when_due.delay)
        return Response(_sellers(person), status=202)


class SellerView(APIView):
    @extend_schema(
        operation_id="changeSeller",
        request=TermsSerializer,
        responses={200: SellersSerializer, **REFUSED, 409: ErrorSerializer},
    )
    def put(self, request: Request, code: str) -> Response:
        person = person_of(request)
        given = TermsSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        asked = given.validated_data
        by_hand.change_seller(person, code, asked["terms"], asked.get("seen"))
        return Response(_sellers(person))

    @extend_schema(operation_id="removeSeller", responses={204: None, 404: ErrorSerializer})
    def delete(self, request: Request, code: str) -> Response:
        by_hand.remove_seller(person_of(request), code)
        return Response(status=204)


class FollowView(APIView):
    @extend_schema(
        operation_id="followSeller",
        request=None,
        responses={202: SellersSerializer, 404: ErrorSerializer},
    )
    def post(self, request: Request, code: str) -> Response:
        person = person_of(request)
        by_hand.follow_again(person, code)
        wake(refresh_when_due.delay)
        return Response(_sellers(person), status=202)


class _ListView(APIView):
    kind: ClassVar[by_hand.Kind]

    def get(self, request: Request, code: str) -> HttpResponse:
        text, name = by_hand.list_of(person_of(request), code, self.kind)
        return download(text, "text/csv; charset=utf-8", f"{name} {self.kind}", ".csv")

    def put(self, request: Request, code: str) -> Response:
        given = ListSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        taken = by_hand.take_list(person_of(request), code, self.kind, **given.validated_data)
        document = {"lines": taken.lines, "problems": told_problems(taken.problems)}
        return Response(TakenSerializer(document).data)


class PriceListView(_ListView):
    kind = "prices"

    @extend_schema(
        operation_id="exportPrices",
        responses={(200, "text/csv"): OpenApiTypes.STR, 404: ErrorSerializer},
    )
    def get(self, request: Request, code: str) -> HttpResponse:
        return super().get(request, code)

    @extend_schema(
        operation_id="putPrices",
        request=ListSerializer,
        responses={200: TakenSerializer, **REFUSED},
    )
    def put(self, request: Request, code: str) -> Response:
        return super().put(request, code)


class CouponListView(_ListView):
    kind = "coupons"

    @extend_schema(
        operation_id="exportCoupons",
        responses={(200, "text/csv"): OpenApiTypes.STR, 404: ErrorSerializer},
    )
    def get(self, request: Request, code: str) -> HttpResponse:
        return super().get(request, code)

    @extend_schema(
        operation_id="putCoupons",
        request=ListSerializer,
        responses={200: TakenSerializer, **REFUSED},
    )
    def put(self, request: Request, code: str) -> Response:
        return super().put(request, code)


class HeldCouponsView(APIView):
    @extend_schema(
        operation_id="holdCoupon",
        request=HeldCouponSerializer,
        responses={204: None, **REFUSED},
    )
    def post(self, request: Request, code: str) -> Response:
        given = HeldCouponSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        by_hand.hold_coupon(person_of(request), code, **given.validated_data)
        return Response(status=204)

    @extend_schema(
        operation_id="dropCoupon",
        request=DroppedCouponSerializer,
        responses={204: None, **REFUSED},
    )
    def put(self, request: Request, code: str) -> Response:
        given = DroppedCouponSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        asked = given.validated_data
        person = person_of(request)
        by_hand.drop_coupon(person, code, asked["code"], everybody=asked["everybody"])
        return Response(status=204)


class RatesView(APIView):
    @extend_schema(
        operation_id="bringRates",
        request=RatesFileSerializer,
        responses={200: RatesSerializer, **REFUSED},
    )
    def put(self, request: Request) -> Response:
        require_administrator(person_of(request))
        given = RatesFileSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        rates = bring_rates(**given.validated_data)
        prices_changed()
        return Response(RatesSerializer({"rates_of": rates.newest}).data)
