"""Phrases: figures brought, what is asked of them, and what is decided."""

from __future__ import annotations

from io import BytesIO
from typing import Any, BinaryIO, cast

from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.files import FILES, download
from vinetag.apps.accounts.api.parsing import AnyFile
from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.errors import NotFoundError
from vinetag.apps.accounts.waking import wake
from vinetag.apps.availability.api.serializers import CheckSerializer, HowSerializer
from vinetag.apps.availability.api.views import begin
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import own_project
from vinetag.apps.phrases import asking, asking_service, bringing, choosing
from vinetag.apps.phrases.about import About
from vinetag.apps.phrases.api import serializers as shapes
from vinetag.apps.phrases.export import exported
from vinetag.apps.phrases.grouping import groups_of
from vinetag.apps.phrases.habits import SHOWN_START, look
from vinetag.apps.phrases.ladders import ladders_of, names_to_check
from vinetag.apps.phrases.shelf import book_of, shelf_of
from vinetag.apps.phrases.tasks import read_figures

__all__ = [
    "ApartView", "AsideView", "AskView", "ChoiceView", "FigureFileView", "FiguresView",
    "GroupsView", "HeadView", "KeywordsView", "LaddersCheckView", "LaddersView", "LookView",
    "OnePhraseView", "PhraseExportView", "PhrasesView", "TypedView",
]  # fmt: skip

REFUSALS = {400: ErrorSerializer, 404: ErrorSerializer}
CONFLICTS = {**REFUSALS, 409: ErrorSerializer}
MOST_FILES = 60

# What changes phrases has them gathered and grouped at once, in its own turn (config.asgi): what is
# read after that finds it done.


def _project(request: Request, project_id: int) -> Project:
    return own_project(person_of(request), project_id)


def _asked(kind: type[Any], given: Any) -> dict[str, Any]:
    read = kind(data=given)
    read.is_valid(raise_exception=True)
    return dict(read.validated_data)


def _figures(project: Project) -> dict[str, Any]:
    shelf = shelf_of(project)
    views = [
        {
            "key": key, **view.key._asdict(), "known": view.known,
            "newest": max(view.days, default=None),
        }
        for key, view in shelf.views.items()
    ]  # fmt: skip
    files = project.phrase_files.defer("content", "figures").order_by("-id")[:MOST_FILES]
    return shapes.FiguresSerializer(
        {
            "files": files,
            "views": sorted(views, key=lambda one: -one["known"]),
            "usual": shelf.usual,
            "chosen": project.phrase_choices.count(),
            "phrases": len(shelf.phrases),
            "heads": len(shelf.heads),
            "dropped": len(book_of(project).dropped),
            "service": asking_service.is_there(),
        }
    ).data


def _columns(text: str) -> list[dict[str, str]]:
    parts = [part.partition(":") for part in text.split(",")] if text else []
    return [{"kind": kind.strip(), "month": month.strip()} for kind, _, month in parts]


class FiguresView(APIView):
    parser_classes = [AnyFile]

    @extend_schema(
        operation_id="listFigures", responses={200: shapes.FiguresSerializer, 404: ErrorSerializer}
    )
    def get(self, request: Request, project_id: int) -> Response:
        return Response(_figures(_project(request, project_id)))

    @extend_schema(
        operation_id="bringFigures",
        request={"application/octet-stream": OpenApiTypes.BINARY},
        parameters=[shapes.FileAboutSerializer],
        responses={202: shapes.FiguresSerializer, **CONFLICTS},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = _project(request, project_id)
        asked = _asked(shapes.FileAboutSerializer, request.query_params)
        name, columns = asked.pop("name"), _columns(asked.pop("columns"))
        stream = cast(BinaryIO, request.data if hasattr(request.data, "read") else BytesIO())
        about = About(**asked)
        file = bringing.take_file(project, person_of(request), about, name, stream, columns)
        wake(lambda: read_figures.delay(file.pk))
        return Response(_figures(project), status=202)


class LookView(APIView):
    parser_classes = [AnyFile]

    @extend_schema(
        operation_id="lookAtFigures",
        request={"application/octet-stream": OpenApiTypes.BINARY},
        responses={200: shapes.LookedSerializer, **REFUSALS},
    )
    def post(self, request: Request, project_id: int) -> Response:
        _project(request, project_id)
        stream = cast(BinaryIO, request.data if hasattr(request.data, "read") else BytesIO())
        looked = look(person_of(request), stream.read(SHOWN_START))
        preview = looked.preview
        document = {
            "encoding": preview.encoding, "separator": preview.separator,
            "heading": preview.heading, "heading_line": preview.heading_line,
            "rows": [[cell[:120] for cell in row] for row in preview.rows],
            "columns": looked.columns, "habit": looked.habit,
        }  # fmt: skip
        return Response(shapes.LookedSerializer(document).data)


class FigureFileView(APIView):
    @extend_schema(
        operation_id="removeFigures", responses={200: shapes.FiguresSerializer, **REFUSALS}
    )
    def delete(self, request: Request, project_id: int, file_id: int) -> Response:
        project = _project(request, project_id)
        bringing.remove_file(project, file_id)
        return Response(_figures(project))

    @extend_schema(
        operation_id="restoreFigures",
        request=None,
        responses={200: shapes.FiguresSerializer, **REFUSALS},
    )
    def post(self, request: Request, project_id: int, file_id: int) -> Response:
        project = _project(request, project_id)
        bringing.restore_file(project, file_id)
        return Response(_figures(project))


class TypedView(APIView):
    @extend_schema(
        operation_id="typePhrases",
        request=shapes.TypedPhrasesSerializer,
        responses={200: shapes.TypedTakenSerializer, **REFUSALS},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = _project(request, project_id)
        asked = _asked(shapes.TypedPhrasesSerializer, request.data)
        new, problems = bringing.type_phrases(project, asked["text"].splitlines())
        shelf_of(project)
        told = [problem.document() for problem in problems]
        return Response(shapes.TypedTakenSerializer({"new": new, "problems": told}).data)


class AskView(APIView):
    @extend_schema(
        operation_id="askForFigures",
        request=shapes.AskSerializer,
        responses={200: shapes.AnsweredSerializer, **CONFLICTS},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = _project(request, project_id)
        asked = _asked(shapes.AskSerializer, request.data)
        market = asked["country"].upper(), asked["language"].lower()
        if asked["companions"]:
            answered = asking_service.ask_companions(project, asked["phrases"][0], *market)
        else:
            answered = asking_service.ask_figures(project, asked["phrases"], *market)
        shelf_of(project)
        return Response(shapes.AnsweredSerializer(answered).data)


class PhrasesView(APIView):
    @extend_schema(
        operation_id="listPhrases",
        parameters=[shapes.PhraseQuestionSerializer],
        responses={200: shapes.PhrasePageSerializer, **REFUSALS},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = _project(request, project_id)
        asked = _asked(shapes.PhraseQuestionSerializer, request.query_params)
        page = asking.page_of(project, asking.PhraseQuestion(**asked))
        return Response(shapes.PhrasePageSerializer(page).data)


class OnePhraseView(APIView):
    @extend_schema(
        operation_id="readPhrase",
        parameters=[shapes.ViewSerializer],
        responses={200: shapes.OnePhraseSerializer, **REFUSALS},
    )
    def get(self, request: Request, project_id: int, phrase: str) -> Response:
        project = _project(request, project_id)
        view = _asked(shapes.ViewSerializer, request.query_params)["view"]
        found = asking.one_phrase(project, phrase, view)
        if found is None:
            raise NotFoundError
        document = {
            "line": found.line,
            "gathered": [
                {"phrase": phrase, "way": way, "figure": figure}
                for phrase, way, figure in found.gathered
            ],
            "figures": [{"view": key, "figure": figure} for key, figure in found.figures],
            "companions": [{"line": line, "near": near} for line, near in found.companions],
        }
        return Response(shapes.OnePhraseSerializer(document).data)


class GroupsView(APIView):
    @extend_schema(
        operation_id="groupPhrases",
        parameters=[shapes.GroupQuestionSerializer],
        responses={200: shapes.GroupsSerializer, **REFUSALS},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = _project(request, project_id)
        asked = _asked(shapes.GroupQuestionSerializer, request.query_params)
        return Response(
            shapes.GroupsSerializer(groups_of(project, asked["view"], asked["cut"])).data
        )


class ChoiceView(APIView):
    @extend_schema(
        operation_id="choosePhrases",
        request=shapes.ChoiceSerializer,
        responses={200: shapes.ChosenCountSerializer, **REFUSALS},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = _project(request, project_id)
        asked = _asked(shapes.ChoiceSerializer, request.data)
        count = choosing.choose(project, asked["phrases"], on=asked["chosen"])
        return Response(shapes.ChosenCountSerializer({"chosen": count}).data)


class ApartView(APIView):
    @extend_schema(
        operation_id="setPhrasesApart",
        request=shapes.DecideSerializer,
        responses={204: None, **REFUSALS},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = _project(request, project_id)
        asked = _asked(shapes.DecideSerializer, request.data)
        choosing.set_apart(project, asked["phrases"], on=asked["on"])
        shelf_of(project)
        return Response(status=204)


class AsideView(APIView):
    @extend_schema(
        operation_id="setPhrasesAside",
        request=shapes.DecideSerializer,
        responses={204: None, **REFUSALS},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = _project(request, project_id)
        asked = _asked(shapes.DecideSerializer, request.data)
        choosing.set_aside(project, asked["phrases"], on=asked["on"])
        shelf_of(project)
        return Response(status=204)


class KeywordsView(APIView):
    @extend_schema(
        operation_id="phrasesAsKeywords",
        request=shapes.KeywordsSerializer,
        responses={200: shapes.KeywordsTakenSerializer, **CONFLICTS},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = _project(request, project_id)
        asked = _asked(shapes.KeywordsSerializer, request.data)
        taken = choosing.as_keywords(project, asked["phrases"], asked["view"], weigh=asked["weigh"])
        return _taken(taken)


class HeadView(APIView):
    @extend_schema(
        operation_id="phraseAsHead",
        request=shapes.HeadSerializer,
        responses={200: shapes.KeywordsTakenSerializer, **CONFLICTS},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = _project(request, project_id)
        asked = _asked(shapes.HeadSerializer, request.data)
        return _taken(choosing.as_head(project, asked["phrase"]))


def _taken(taken: choosing.Taken) -> Response:
    told = [problem.document() for problem in taken.problems]
    return Response(shapes.KeywordsTakenSerializer({"taken": taken.taken, "problems": told}).data)


class LaddersView(APIView):
    @extend_schema(
        operation_id="readLadders",
        parameters=[shapes.ViewSerializer],
        responses={200: shapes.LaddersSerializer, **REFUSALS},
    )
    def get(self, request: Request, project_id: int) -> Response:
        project = _project(request, project_id)
        view = _asked(shapes.ViewSerializer, request.query_params)["view"]
        return Response(shapes.LaddersSerializer(ladders_of(project, view)).data)


class LaddersCheckView(APIView):
    @extend_schema(
        operation_id="checkLadders",
        request=HowSerializer,
        responses={201: CheckSerializer, **CONFLICTS},
    )
    def post(self, request: Request, project_id: int) -> Response:
        project = _project(request, project_id)
        how = _asked(HowSerializer, request.data)
        return begin(project, how, names=names_to_check(project))


class PhraseExportView(APIView):
    @extend_schema(
        operation_id="exportPhrases",
        parameters=[shapes.PhraseExportSerializer],
        responses=FILES,
    )
    def get(self, request: Request, project_id: int) -> HttpResponse:
        project = _project(request, project_id)
        asked = _asked(shapes.PhraseExportSerializer, request.query_params)
        what, form = asked.pop("what"), asked.pop("form")
        content, kind = exported(project, what, form, asking.PhraseQuestion(**asked))
        return download(content, kind, project.name, f"-{what}.{form}")
