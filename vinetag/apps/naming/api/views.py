"""Projects and their briefs."""

from __future__ import annotations

from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.errors import RefusedError
from vinetag.apps.naming import services
from vinetag.apps.naming.api.serializers import (
    CatalogueSerializer,
    ProjectChangeSerializer,
    ProjectSerializer,
)
from vinetag.core.errors import Problem
from vinetag.core.extensions import known_extensions

__all__ = ["CatalogueView", "ProjectView", "ProjectsView", "RestoreProjectView"]


class ProjectsView(APIView):
    @extend_schema(operation_id="listProjects", responses=ProjectSerializer(many=True))
    def get(self, request: Request) -> Response:
        return Response(ProjectSerializer(services.own_projects(request.user), many=True).data)

    @extend_schema(
        operation_id="createProject",
        request=ProjectChangeSerializer,
        responses={201: ProjectSerializer, 400: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        name, brief = _given(request)
        project = services.create_project(
            owner=request.user, name=name or "", brief={} if brief is None else brief
        )
        return Response(ProjectSerializer(project).data, status=201)


class ProjectView(APIView):
    @extend_schema(
        operation_id="readProject", responses={200: ProjectSerializer, 404: ErrorSerializer}
    )
    def get(self, request: Request, project_id: int) -> Response:
        return Response(ProjectSerializer(services.own_project(request.user, project_id)).data)

    @extend_schema(
        operation_id="changeProject",
        request=ProjectChangeSerializer,
        responses={200: ProjectSerializer, 400: ErrorSerializer, 404: ErrorSerializer},
    )
    def patch(self, request: Request, project_id: int) -> Response:
        project = services.own_project(request.user, project_id)
        name, brief = _given(request)
        project = services.change_project(project=project, name=name, brief=brief)
        return Response(ProjectSerializer(project).data)

    @extend_schema(operation_id="removeProject", responses={204: None, 404: ErrorSerializer})
    def delete(self, request: Request, project_id: int) -> Response:
        services.remove_project(services.own_project(request.user, project_id))
        return Response(status=204)


class RestoreProjectView(APIView):
    @extend_schema(
        operation_id="restoreProject",
        request=None,
        responses={200: ProjectSerializer, 404: ErrorSerializer},
    )
    def post(self, request: Request, project_id: int) -> Response:
        return Response(ProjectSerializer(services.restore_project(request.user, project_id)).data)


class CatalogueView(APIView):
    @extend_schema(operation_id="catalogue", responses=CatalogueSerializer)
    def get(self, _request: Request) -> Response:
        return Response({"extensions": sorted(known_extensions())})


def _given(request: Request) -> tuple[str | None, object]:
    data = request.data
    if not isinstance(data, dict):
        raise RefusedError([Problem("", "not_object")])
    name = data.get("name")
    if name is not None and not isinstance(name, str):
        raise RefusedError([Problem("name", "not_text")])
    return name, data.get("brief")
