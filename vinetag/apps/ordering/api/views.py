"""The basket."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.files import FILES, download
from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.models import User
from vinetag.apps.accounts.waking import wake
from vinetag.apps.costs.tasks import ask_for_quotes
from vinetag.apps.naming.services import own_project
from vinetag.apps.ordering.api.serializers import (
    AddedSerializer,
    AgreeSerializer,
    BasketAddSerializer,
    BasketChangeSerializer,
    BasketSerializer,
    BasketWishSerializer,
    OrderFormSerializer,
    TakenOutSerializer,
    basket_document,
)
from vinetag.apps.ordering.basket import (
    add_names,
    basket_of,
    bring_back,
    change_items,
    own_item,
    take_out,
)
from vinetag.apps.ordering.orders import order_file
from vinetag.apps.ordering.owners import owners_of
from vinetag.apps.ordering.pricing import price_basket
from vinetag.apps.ordering.reviews import agree, review
from vinetag.core.spreadsheet import FORMS

__all__ = [
    "AgreeView", "BasketAddView", "BasketBackView", "BasketFileView", "BasketItemView",
    "BasketView", "ReviewView",
]  # fmt: skip

REFUSALS = {400: ErrorSerializer, 409: ErrorSerializer}


def _basket(person: User, years: int = 5) -> Response:
    items = list(basket_of(person))
    prices = price_basket(person, items, years)
    if prices.waiting:
        names = [str(name) for name in prices.waiting]
        wake(lambda: ask_for_quotes.delay(names))
    return Response(BasketSerializer(basket_document(items, prices, owners_of(person))).data)


class BasketView(APIView):
    @extend_schema(
        operation_id="readBasket", parameters=[BasketWishSerializer], responses=BasketSerializer
    )
    def get(self, request: Request) -> Response:
        given = BasketWishSerializer(data=request.query_params)
        given.is_valid(raise_exception=True)
        return _basket(person_of(request), given.validated_data["years"])

    @extend_schema(
        operation_id="changeBasket",
        request=BasketChangeSerializer,
        responses={200: BasketSerializer, **REFUSALS},
    )
    def patch(self, request: Request) -> Response:
        person = person_of(request)
        given = BasketChangeSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        change_items(person, list(basket_of(person)), dict(given.validated_data))
        return _basket(person)

    @extend_schema(operation_id="emptyBasket", responses={200: TakenOutSerializer})
    def delete(self, request: Request) -> Response:
        batch = take_out(list(basket_of(person_of(request))))
        return Response(TakenOutSerializer({"batch": batch}).data)


class BasketAddView(APIView):
    @extend_schema(
        operation_id="putInBasket",
        request=BasketAddSerializer,
        responses={201: AddedSerializer, **REFUSALS},
    )
    def post(self, request: Request, project_id: int) -> Response:
        person = person_of(request)
        project = own_project(person, project_id)
        given = BasketAddSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        added = add_names(project, **given.validated_data)
        return Response(AddedSerializer(added).data, status=201)


class BasketBackView(APIView):
    @extend_schema(
        operation_id="bringBackToBasket", request=TakenOutSerializer, responses=BasketSerializer
    )
    def post(self, request: Request) -> Response:
        person = person_of(request)
        given = TakenOutSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        bring_back(person, given.validated_data["batch"])
        return _basket(person)


class BasketItemView(APIView):
    @extend_schema(
        operation_id="changeBasketItem",
        request=BasketChangeSerializer,
        responses={200: BasketSerializer, **REFUSALS},
    )
    def patch(self, request: Request, item_id: int) -> Response:
        person = person_of(request)
        item = own_item(person, item_id)
        given = BasketChangeSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        change_items(person, [item], dict(given.validated_data))
        return _basket(person)

    @extend_schema(operation_id="takeOutOfBasket", responses={200: TakenOutSerializer})
    def delete(self, request: Request, item_id: int) -> Response:
        batch = take_out([own_item(person_of(request), item_id)])
        return Response(TakenOutSerializer({"batch": batch}).data)


class ReviewView(APIView):
    @extend_schema(operation_id="reviewBasket", request=None, responses=BasketSerializer)
    def post(self, request: Request) -> Response:
        person = person_of(request)
        items = list(basket_of(person))
        review(items, price_basket(person, items), owners_of(person))
        return _basket(person)


class AgreeView(APIView):
    @extend_schema(
        operation_id="agreeToBasketItem",
        request=AgreeSerializer,
        responses={200: BasketSerializer, **REFUSALS},
    )
    def post(self, request: Request, item_id: int) -> Response:
        person = person_of(request)
        item = own_item(person, item_id)
        given = AgreeSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        prices = price_basket(person, list(basket_of(person)))
        sign = given.validated_data["sign"]
        agree(item, prices.items[item.pk], prices.currency, sign, owners_of(person))
        return _basket(person)


class BasketFileView(APIView):
    @extend_schema(
        operation_id="exportOrder",
        parameters=[OrderFormSerializer],
        responses={**FILES, 400: ErrorSerializer},
    )
    def get(self, request: Request) -> Any:
        person = person_of(request)
        given = OrderFormSerializer(data=request.query_params)
        given.is_valid(raise_exception=True)
        form = given.validated_data["form"]
        items = list(basket_of(person))
        content = order_file(items, price_basket(person, items), owners_of(person), form)
        return download(content, FORMS[form], "order", f".{form}")
