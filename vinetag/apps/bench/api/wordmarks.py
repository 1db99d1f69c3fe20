"""A name set in type: all faces to look at, one of them as a file."""

from __future__ import annotations

from typing import Any

from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.files import download
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.core.wordmark import CASES, as_svg, faces, set_name

__all__ = ["WordmarkView", "WordmarksView"]


class TextSerializer(serializers.Serializer[Any]):
    text = serializers.CharField(max_length=200, trim_whitespace=False)
    spacing = serializers.IntegerField(default=0, help_text="Thousandths of the type size")
    case = serializers.ChoiceField(choices=CASES, default="typed")


class FileSerializer(TextSerializer):
    face = serializers.CharField()
    ink = serializers.CharField(help_text="#rrggbb")
    second = serializers.CharField(required=False, help_text="For the letters from split on")
    split = serializers.IntegerField(default=0, min_value=0, max_value=63)
    paper = serializers.CharField(required=False, help_text="See-through when left out")
    form = serializers.ChoiceField(choices=("outlines", "text"), default="outlines")


class GlyphSerializer(serializers.Serializer[Any]):
    at = serializers.IntegerField(help_text="The place of its character in the text")
    path = serializers.CharField(help_text="SVG path data, in thousandths of the type size")


class SettingSerializer(serializers.Serializer[Any]):
    face = serializers.CharField(source="face.name")
    word = serializers.CharField(source="face.word")
    suggests = serializers.CharField(source="face.suggests")
    notice = serializers.CharField(source="face.notice")
    text = serializers.CharField()
    glyphs = GlyphSerializer(many=True)
    width = serializers.FloatField()
    ascent = serializers.FloatField()
    descent = serializers.FloatField()
    missing = serializers.CharField(allow_blank=True, help_text="Characters the face has not")


class WordmarksView(APIView):
    @extend_schema(
        operation_id="setName",
        parameters=[TextSerializer],
        responses={200: SettingSerializer(many=True), 400: ErrorSerializer},
    )
    def get(self, request: Request) -> Response:
        given = TextSerializer(data=request.query_params)
        given.is_valid(raise_exception=True)
        asked = dict(given.validated_data)
        text = asked.pop("text")
        settings = [set_name(text, name, **asked) for name in faces()]
        return Response(SettingSerializer(settings, many=True).data)


class WordmarkView(APIView):
    @extend_schema(
        operation_id="drawWordmark",
        parameters=[FileSerializer],
        responses={(200, "image/svg+xml"): OpenApiTypes.STR, 400: ErrorSerializer},
    )
    def get(self, request: Request) -> HttpResponse:
        given = FileSerializer(data=request.query_params)
        given.is_valid(raise_exception=True)
        asked = given.validated_data
        spacing = asked["spacing"]
        setting = set_name(asked["text"], asked["face"], spacing=spacing, case=asked["case"])
        inks = [asked["ink"], *([asked["second"]] if "second" in asked else [])]
        document = as_svg(
            setting,
            inks=inks,
            paper=asked.get("paper"),
            split=asked["split"],
            spacing=spacing,
            as_text=asked["form"] == "text",
        )
        called = f"{asked['text']} {asked['face']} {asked['form']}"
        return download(document, "image/svg+xml; charset=utf-8", called, ".svg")
