"""What names cost, and what is said of coupons."""

from __future__ import annotations

from typing import Any

from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.files import download
from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.errors import RefusedError
from vinetag.apps.accounts.models import User
from vinetag.apps.accounts.waking import wake
from vinetag.apps.costs.api.serializers import (
    CostQuestionSerializer,
    CostsSerializer,
    OddsSerializer,
    PlanFileSerializer,
    ReportSerializer,
)
from vinetag.apps.costs.coupons import report_coupon
from vinetag.apps.costs.documents import costs_document, odds_document
from vinetag.apps.costs.export import exported_plan
from vinetag.apps.costs.planning import CostQuestion, Costs, work_out
from vinetag.apps.costs.tasks import ask_for_quotes
from vinetag.apps.naming.services import own_project
from vinetag.core.checking import read_pasted
from vinetag.core.errors import CoreError, Problem
from vinetag.core.extensions import parse_extension
from vinetag.core.money import currency_of, thousandths
from vinetag.core.names import FullName

__all__ = ["CostsFileView", "CostsView", "ReportView"]


class CostsView(APIView):
    @extend_schema(
        operation_id="workOutCosts",
        request=CostQuestionSerializer,
        responses={200: CostsSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def post(self, request: Request, project_id: int) -> Response:
        person = person_of(request)
        own_project(person, project_id)
        given = CostQuestionSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        question, costs = _worked_out(person, given.validated_data)
        if costs.quotes.waiting:
            names = [str(name) for name in costs.quotes.waiting]
            wake(lambda: ask_for_quotes.delay(names))
        return Response(CostsSerializer(costs_document(costs, question)).data)


class CostsFileView(APIView):
    @extend_schema(
        operation_id="exportCosts",
        request=PlanFileSerializer,
        parameters=[OpenApiParameter("project_id", int, OpenApiParameter.PATH)],
        responses={
            (200, "application/octet-stream"): OpenApiTypes.BINARY,
            400: ErrorSerializer,
            404: ErrorSerializer,
        },
    )
    def post(self, request: Request, project_id: int) -> Any:
        person = person_of(request)
        project = own_project(person, project_id)
        given = PlanFileSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        asked = given.validated_data
        form = asked.pop("form")
        question, costs = _worked_out(person, asked)
        content, kind = exported_plan(costs, question, form)
        return download(content, kind, project.name, f"-plan.{form}")


class ReportView(APIView):
    @extend_schema(
        operation_id="reportCoupon",
        request=ReportSerializer,
        responses={200: OddsSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        given = ReportSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        odds = report_coupon(person_of(request), **given.validated_data)
        return Response(OddsSerializer(odds_document(odds)).data)


def _worked_out(person: User, asked: dict[str, Any]) -> tuple[CostQuestion, Costs]:
    """Raises RefusedError and VatError, each problem at its field."""
    names = _full_names(asked.pop("full_names"), "full_names")
    used = asked.pop("used")
    found = _full_names(used, "used") if used else []
    for name in found:
        if name not in names:
            raise RefusedError([Problem("used", "not_among", {"value": str(name)[:80]})])
    try:
        currency_of(asked["currency"])
    except ValueError:
        args = {"value": asked["currency"]}
        raise RefusedError([Problem("currency", "rate_missing", args)]) from None
    given = asked.pop("ceilings")
    full = {str(name): name for name in names}
    ceilings = {full[n]: thousandths(most) for n, most in given.items() if n in full}
    budget = asked.pop("budget")
    question = CostQuestion(
        names=names,
        used=frozenset(found),
        budget=None if budget is None else thousandths(budget),
        trouble=thousandths(asked.pop("trouble")),
        ceilings=ceilings,
        **asked,
    )
    return question, work_out(person, question)


def _full_names(given: list[str], at: str) -> list[FullName]:
    """Each once. Raises RefusedError with what is wrong with each of them."""
    found: dict[FullName, None] = {}
    problems = []
    for place, text in enumerate(given):
        path = f"{at}.{place}"
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
        raise RefusedError(problems or [Problem(at, "blank")])
    return list(found)
