"""Sellers, and what names cost."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.errors import RefusedError
from vinetag.apps.availability.catalogue import require_administrator
from vinetag.apps.availability.checks import wake
from vinetag.apps.costs.api.documents import costs_document
from vinetag.apps.costs.api.serializers import (
    CostQuestionSerializer,
    CostsSerializer,
    SellersSerializer,
)
from vinetag.apps.costs.planning import CostQuestion, work_out
from vinetag.apps.costs.sellers import ask_again, seller_states
from vinetag.apps.costs.tasks import refresh_when_due
from vinetag.apps.naming.services import own_project
from vinetag.core.checking import read_pasted
from vinetag.core.errors import CoreError, Problem
from vinetag.core.extensions import parse_extension
from vinetag.core.money import currency_of, thousandths
from vinetag.core.names import FullName

__all__ = ["CostsView", "RefreshView", "SellersView"]


class SellersView(APIView):
    @extend_schema(operation_id="listSellers", responses={200: SellersSerializer})
    def get(self, request: Request) -> Response:
        return Response(_sellers(request))


class RefreshView(APIView):
    @extend_schema(
        operation_id="refreshSellers",
        request=None,
        responses={202: SellersSerializer, 404: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        require_administrator(person_of(request))
        ask_again()
        wake(refresh_when_due.delay)
        return Response(_sellers(request), status=202)


def _sellers(request: Request) -> Any:
    document = {"sellers": seller_states(), "may_edit": person_of(request).is_staff}
    return SellersSerializer(document).data


class CostsView(APIView):
    @extend_schema(
        operation_id="workOutCosts",
        request=CostQuestionSerializer,
        responses={200: CostsSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def post(self, request: Request, project_id: int) -> Response:
        own_project(person_of(request), project_id)
        given = CostQuestionSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        asked = given.validated_data
        names = _full_names(asked.pop("full_names"))
        try:
            currency_of(asked["currency"])
        except ValueError:
            args = {"value": asked["currency"]}
            raise RefusedError([Problem("currency", "rate_missing", args)]) from None
        trouble = thousandths(asked.pop("trouble"))
        question = CostQuestion(names=names, trouble=trouble, **asked)
        return Response(CostsSerializer(costs_document(work_out(question), question)).data)


def _full_names(given: list[str]) -> list[FullName]:
    """Each once. Raises RefusedError with what is wrong with each of them."""
    found: dict[FullName, None] = {}
    problems = []
    for place, text in enumerate(given):
        path = f"full_names.{place}"
        pasted = read_pasted(text.split("\n", 1)[0])
        problems += [Problem(path, "as_told", {"text": bad.reason}) for bad in pasted.bad]
        for label in pasted.bare:
            problems.append(Problem(path, "full_name_needed", {"value": label}))
        for label, extensions in pasted.names.items():
            for extension in extensions:
                try:
                    found[FullName(label, parse_extension(extension, path))] = None
                except CoreError as error:
                    problems += error.problems
    if problems or not found:
        raise RefusedError(problems or [Problem("full_names", "blank")])
    return list(found)
