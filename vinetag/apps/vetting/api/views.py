"""Vetting: begun, watched, stopped, read, accepted and exported."""

from __future__ import annotations

from typing import Any

from django.http import HttpResponse
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.files import FILES, download
from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.waking import wake
from vinetag.apps.availability.lookups import lookup_settings
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import own_project
from vinetag.apps.vetting import vettings
from vinetag.apps.vetting.api.serializers import (
    AcceptanceSerializer,
    FindingsOfNameSerializer,
    VettingReportSerializer,
    VettingRequestSerializer,
    VettingRunSerializer,
    glances,
    run_document,
)
from vinetag.apps.vetting.export import exported_report
from vinetag.apps.vetting.models import PlatformRow, Vetting
from vinetag.apps.vetting.registers import count_marks
from vinetag.apps.vetting.reports import handles_of, known_of, report
from vinetag.apps.vetting.steps import Desk
from vinetag.apps.vetting.tasks import run_vetting
from vinetag.core.checking.pasted import meant_name
from vinetag.core.names import FullName, unicode_label
from vinetag.core.spreadsheet import FORMS
from vinetag.core.vet import presented

__all__ = [
    "AcceptanceView", "ReportFileView", "ReportView", "ResumeView", "StopView", "VettedNameView",
]  # fmt: skip

REFUSALS = {400: ErrorSerializer, 404: ErrorSerializer, 409: ErrorSerializer}


class ReportView(APIView):
    @extend_schema(
        operation_id="readVetting", responses={200: VettingReportSerializer, 404: ErrorSerializer}
    )
    def get(self, request: Request, project_id: int) -> Response:
        return Response(_report(own_project(person_of(request), project_id)))

    @extend_schema(
        operation_id="startVetting",
        request=VettingRequestSerializer,
        responses={201: VettingRunSerializer, **REFUSALS},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        given = VettingRequestSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        return _awake(vettings.start_vetting(project=project, **given.validated_data), 201)


def _awake(vetting: Vetting, status: int = 200) -> Response:
    wake(lambda: run_vetting.delay(vetting.pk))
    document = run_document(vettings.progress(vetting))
    return Response(VettingRunSerializer(document).data, status=status)


def _report(project: Project) -> Any:
    desk, last, rows = Desk(project), vettings.latest(project), report(project)
    labels = [name.label for name, _ in rows]
    document = {
        "names": [
            {
                "label": name.label,
                "shown": unicode_label(name.label),
                "full_name": name.shown,
                "kinds": glances(known),
            }
            for name, known in rows
        ],
        "handles": handles_of({name.label: known for name, known in rows}, labels),
        "run": run_document(vettings.progress(last)) if last else None,
        "classes": list(desk.classes),
        "classes_proposed": not desk.brief.classes,
        "markets": list(desk.markets),
        "marks": count_marks(),
        "platforms": PlatformRow.objects.count(),
        "search": bool(lookup_settings().search),
    }
    return VettingReportSerializer(document).data


class StopView(APIView):
    @extend_schema(
        operation_id="stopVetting",
        request=None,
        responses={200: VettingRunSerializer, 404: ErrorSerializer},
    )
    def post(self, request: Request, project_id: int, vetting_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        stopped = vettings.stop(project, vetting_id)
        return Response(VettingRunSerializer(run_document(vettings.progress(stopped))).data)


class ResumeView(APIView):
    @extend_schema(
        operation_id="resumeVetting",
        request=None,
        responses={200: VettingRunSerializer, 404: ErrorSerializer, 409: ErrorSerializer},
    )
    def post(self, request: Request, project_id: int, vetting_id: int) -> Response:
        project = own_project(person_of(request), project_id)
        return _awake(vettings.resume(project, vetting_id))


class VettedNameView(APIView):
    @extend_schema(
        operation_id="readVettedName",
        responses={200: FindingsOfNameSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int, label: str) -> Response:
        project = own_project(person_of(request), project_id)
        desk = Desk(project)
        name = meant_name(label, desk.brief.extensions)
        known = known_of(project, [name.label]).get(name.label, {})
        first = next(iter(known.values()), None)
        if first is not None and "." not in label:
            name = FullName(name.label, first.row.extension)
        kinds = [
            {**glance, "findings": known[glance["kind"]].findings,
             "more": known[glance["kind"]].row.more}
            for glance in glances(known)
        ]  # fmt: skip
        met = presented(desk.read(name.label), name.extension)
        document = {
            "label": name.label,
            "shown": unicode_label(name.label),
            "full_name": name.shown,
            "kinds": kinds,
            "presented": {
                "alphabet": [{"letter": letter, "word": word} for letter, word in met.alphabet],
                "said": met.said,
                "capitals": met.capitals,
                "email": met.email,
                "handle": met.handle,
            },
        }
        return Response(FindingsOfNameSerializer(document).data)


class AcceptanceView(APIView):
    @extend_schema(
        operation_id="acceptFinding",
        request=AcceptanceSerializer,
        responses={200: VettingReportSerializer, **REFUSALS},
    )
    def put(self, request: Request, project_id: int, label: str, kind: str) -> Response:
        project = own_project(person_of(request), project_id)
        given = AcceptanceSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        vettings.accept(project=project, label=label, kind=kind, **given.validated_data)
        return Response(_report(project))


class FormSerializer(serializers.Serializer[Any]):
    form = serializers.ChoiceField(choices=list(FORMS), default="csv")


class ReportFileView(APIView):
    @extend_schema(
        operation_id="exportVetting",
        parameters=[OpenApiParameter("form", str, enum=list(FORMS))],
        responses=FILES,
    )
    def get(self, request: Request, project_id: int) -> HttpResponse:
        project = own_project(person_of(request), project_id)
        given = FormSerializer(data=request.query_params)
        given.is_valid(raise_exception=True)
        form = given.validated_data["form"]
        content = exported_report(report(project), form)
        return download(content, FORMS[form], project.name, f"-vetting.{form}")
