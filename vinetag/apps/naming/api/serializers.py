"""The shapes of projects in the API. Briefs are read by the core; these only describe them."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

from vinetag.core.brief import PURPOSES

__all__ = ["CatalogueSerializer", "ProjectChangeSerializer", "ProjectSerializer"]


class KeywordSerializer(serializers.Serializer[Any]):
    text = serializers.CharField()
    weight = serializers.IntegerField(min_value=1, max_value=5)


class LimitsSerializer(serializers.Serializer[Any]):
    letters_min = serializers.IntegerField()
    letters_max = serializers.IntegerField()
    words = serializers.IntegerField()
    hyphens = serializers.IntegerField()
    digits = serializers.IntegerField()


class BriefSerializer(serializers.Serializer[Any]):
    name = serializers.CharField(allow_blank=True)
    purpose = serializers.ChoiceField(choices=PURPOSES)
    keywords = KeywordSerializer(many=True)
    avoid = serializers.ListField(child=serializers.CharField())
    limits = LimitsSerializer()
    extensions = serializers.ListField(child=serializers.CharField())


class ProjectSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField()
    name = serializers.CharField()
    brief = BriefSerializer()
    drafts = serializers.IntegerField(help_text="What the recipes made")
    within = serializers.IntegerField(help_text="Distinct names within the limits")
    good = serializers.IntegerField(help_text="Names graded good enough")
    created_at = serializers.DateTimeField()
    changed_at = serializers.DateTimeField()


class ProjectChangeSerializer(serializers.Serializer[Any]):
    name = serializers.CharField(required=False)
    brief = BriefSerializer(required=False)


class CatalogueSerializer(serializers.Serializer[Any]):
    extensions = serializers.ListField(child=serializers.CharField())
