"""Projects and their briefs."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer, told_problems
from vinetag.apps.accounts.errors import ConflictError, RefusedError
from vinetag.apps.accounts.seen import Seen
from vinetag.apps.naming import marks, services
from vinetag.apps.naming.api.serializers import (
    ChangedSerializer,
    LabelsSerializer,
    LooksSerializer,
    OpenedSerializer,
    ProjectChangeSerializer,
    ProjectSerializer,
    ViewsSerializer,
    VocabularySerializer,
)
from vinetag.apps.naming.models import Look, Project
from vinetag.core.errors import Problem
from vinetag.core.extensions import known_extensions
from vinetag.core.lexicon import load_lexicon
from vinetag.core.vet.sources import vet_sources
from vinetag.core.words import GROUPS, open_up
from vinetag.core.world.fields import read_fields

__all__ = [
    "BringBackView",
    "DismissedView",
    "LooksView",
    "MoreView",
    "ProjectView",
    "ProjectsView",
    "RestoreProjectView",
    "ViewsView",
    "VocabularyView",
    "WordsView",
]  # fmt: skip


class ProjectsView(APIView):
    @extend_schema(operation_id="listProjects", responses=ProjectSerializer(many=True))
    def get(self, request: Request) -> Response:
        return Response(
            ProjectSerializer(services.own_projects(person_of(request)), many=True).data
        )

    @extend_schema(
        operation_id="createProject",
        request=ProjectChangeSerializer,
        responses={201: ProjectSerializer, 400: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        name, brief = _given(request)
        project = services.create_project(
            owner=person_of(request), name=name or "", brief={} if brief is None else brief
        )
        return Response(ProjectSerializer(project).data, status=201)


class ProjectView(APIView):
    @extend_schema(
        operation_id="readProject", responses={200: ProjectSerializer, 404: ErrorSerializer}
    )
    def get(self, request: Request, project_id: int) -> Response:
        return Response(
            ProjectSerializer(services.own_project(person_of(request), project_id)).data
        )

    @extend_schema(
        operation_id="changeProject",
        request=ProjectChangeSerializer,
        responses={
            200: ChangedSerializer,
            400: ErrorSerializer,
            404: ErrorSerializer,
            409: ErrorSerializer,
        },
    )
    def patch(self, request: Request, project_id: int) -> Response:
        project = services.own_project(person_of(request), project_id)
        name, brief = _given(request)
        not_taken: list[Problem] | None = [] if _body(request).get("partly") is True else None
        try:
            project = services.change_project(
                project=project,
                name=name,
                brief=brief,
                seen=_seen(request),
                not_taken=not_taken,
            )
        except ConflictError as error:
            if isinstance(error.current, Project):
                error.current = ProjectSerializer(error.current).data
            raise
        changed = ProjectSerializer(project).data
        return Response({**changed, "not_taken": told_problems(not_taken or ())})

    @extend_schema(operation_id="removeProject", responses={204: None, 404: ErrorSerializer})
    def delete(self, request: Request, project_id: int) -> Response:
        services.remove_project(services.own_project(person_of(request), project_id))
        return Response(status=204)


class ViewsView(APIView):
    @extend_schema(
        operation_id="keepViews",
        request=ViewsSerializer,
        responses={
            200: ViewsSerializer,
            400: ErrorSerializer,
            404: ErrorSerializer,
            409: ErrorSerializer,
        },
    )
    def put(self, request: Request, project_id: int) -> Response:
        project = services.own_project(person_of(request), project_id)
        given = ViewsSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        asked = given.validated_data
        kept = services.keep_views(project=project, **{"view": None, "views": None, **asked})
        return Response(ViewsSerializer({**kept, "place": asked["place"]}).data)


class RestoreProjectView(APIView):
    @extend_schema(
        operation_id="restoreProject",
        request=None,
        responses={200: ProjectSerializer, 404: ErrorSerializer},
    )
    def post(self, request: Request, project_id: int) -> Response:
        return Response(
            ProjectSerializer(services.restore_project(person_of(request), project_id)).data
        )


class VocabularyView(APIView):
    @extend_schema(operation_id="vocabulary", responses=VocabularySerializer)
    def get(self, _request: Request) -> Response:
        document = {
            "extensions": sorted(known_extensions()),
            "groups": GROUPS,
            "sources": [*load_lexicon().sources["sources"], *vet_sources()],
            "worlds": [field.title for field in read_fields()],
        }
        return Response(VocabularySerializer(document).data)


class WordsView(APIView):
    @extend_schema(
        operation_id="openWords",
        responses={200: OpenedSerializer(many=True), 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> Response:
        brief = services.brief_of(services.own_project(person_of(request), project_id))
        opened = [open_up(k, load_lexicon(), brief.keywords) for k in brief.keywords]
        return Response(OpenedSerializer(opened, many=True).data)


class MoreView(APIView):
    @extend_schema(
        operation_id="listMore",
        request=None,
        responses={200: ProjectSerializer, 404: ErrorSerializer, 409: ErrorSerializer},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = services.list_more(services.own_project(person_of(request), project_id))
        return Response(ProjectSerializer(project).data)


def _labels(request: Request) -> list[str]:
    given = LabelsSerializer(data=request.data)
    given.is_valid(raise_exception=True)
    labels: list[str] = given.validated_data["labels"]
    return labels


class DismissedView(APIView):
    @extend_schema(
        operation_id="listDismissed",
        responses={200: LabelsSerializer, 404: ErrorSerializer},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = services.own_project(person_of(request), project_id)
        rows = project.dismissed.order_by("-id")
        return Response({"labels": list(rows.values_list("label", flat=True))})

    @extend_schema(
        operation_id="dismissNames",
        request=LabelsSerializer,
        responses={204: None, 400: ErrorSerializer, 404: ErrorSerializer, 409: ErrorSerializer},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = services.own_project(person_of(request), project_id)
        marks.dismiss(project=project, labels=_labels(request))
        return Response(status=204)

    @extend_schema(operation_id="bringAllBack", responses={204: None, 404: ErrorSerializer})
    def delete(self, request: Request, project_id: int) -> Response:
        marks.bring_back(project=services.own_project(person_of(request), project_id), labels=None)
        return Response(status=204)


class BringBackView(APIView):
    @extend_schema(
        operation_id="bringBack",
        request=LabelsSerializer,
        responses={204: None, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = services.own_project(person_of(request), project_id)
        marks.bring_back(project=project, labels=_labels(request))
        return Response(status=204)


class LooksView(APIView):
    @extend_schema(
        operation_id="lookAtNames",
        request=LooksSerializer,
        responses={204: None, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = services.own_project(person_of(request), project_id)
        given = LooksSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        verdict = Look.Verdict(given.validated_data["verdict"])
        marks.look(project=project, labels=given.validated_data["labels"], verdict=verdict)
        return Response(status=204)


def _given(request: Request) -> tuple[str | None, object]:
    data = request.data
    if not isinstance(data, dict):
        raise RefusedError([Problem("", "not_object")])
    name = data.get("name")
    if name is not None and not isinstance(name, str):
        raise RefusedError([Problem("name", "not_text")])
    return name, data.get("brief")


def _body(request: Request) -> dict[str, Any]:
    return request.data if isinstance(request.data, dict) else {}


def _seen(request: Request) -> Seen:
    seen = _body(request).get("seen")
    if seen is not None and not isinstance(seen, dict):
        raise RefusedError([Problem("seen", "not_object")])
    return seen
