"""The shapes of projects in the API. Briefs are read by the core; these only describe them."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

from vinetag.apps.accounts.api.described import DescribedSerializer
from vinetag.apps.accounts.api.problems import ProblemSerializer
from vinetag.apps.accounts.api.seen import SeenField
from vinetag.apps.naming.marks import MOST_DISMISSED
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import only_first
from vinetag.core.brief import PURPOSES, brief_schema

__all__ = [
    "ChangedSerializer",
    "KeptWorldSerializer",
    "LabelsSerializer",
    "LooksSerializer",
    "OpenedSerializer",
    "ProjectChangeSerializer",
    "ProjectSerializer",
    "TitlesSerializer",
    "ViewsSerializer",
    "VocabularySerializer",
    "WorldSerializer",
]


class BriefSerializer(DescribedSerializer):
    """What is being named, and within which limits; the core reads it."""

    described = brief_schema()
    mode = "whole"
    purpose = serializers.ChoiceField(choices=PURPOSES)


class ViewSerializer(serializers.Serializer[Any]):
    name = serializers.CharField(max_length=40, allow_blank=True)
    search = serializers.CharField(
        max_length=2000, allow_blank=True, help_text="An address's query"
    )


class KeptViewsSerializer(serializers.Serializer[Any]):
    """How a sheet was looked at last, and its views."""

    view = serializers.CharField(allow_blank=True)
    views = ViewSerializer(many=True)


class ViewsSerializer(serializers.Serializer[Any]):
    view = serializers.CharField(
        max_length=2000, allow_blank=True, required=False, help_text="As looked at last"
    )
    views = ViewSerializer(many=True, required=False)
    place = serializers.ChoiceField(
        choices=("", "hunt"), default="", help_text="Which sheet; empty: that of the names"
    )
    seen = SeenField(help_text="`views` as they were; 409 when they are otherwise by now")


class ProjectSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField()
    name = serializers.CharField()
    brief = BriefSerializer()
    version = serializers.IntegerField(help_text="Counts the changes of name and brief")
    considered = serializers.IntegerField(help_text="Names the recipes weighed")
    within = serializers.IntegerField(help_text="Distinct names within the limits")
    good = serializers.IntegerField(help_text="Names graded good enough")
    only_first = serializers.SerializerMethodField(
        help_text="Only the first names are listed; asking for more lists as many as is usual"
    )
    view = serializers.CharField(allow_blank=True, help_text="The sheet as looked at last")
    views = ViewSerializer(many=True)
    sheets = serializers.DictField(
        child=KeptViewsSerializer(), help_text="The same of other sheets, by what they are called"
    )
    created_at = serializers.DateTimeField()
    changed_at = serializers.DateTimeField()
    archived_at = serializers.DateTimeField(allow_null=True)

    def get_only_first(self, project: Project) -> bool:
        return only_first(project)


class ProjectChangeSerializer(serializers.Serializer[Any]):
    name = serializers.CharField(required=False)
    brief = BriefSerializer(required=False)
    seen = SeenField(
        help_text="The `version` the change was made to; 409 with the project when it has another"
    )
    partly = serializers.BooleanField(
        required=False, help_text="Take what makes sense, and say what was not taken"
    )


class ChangedSerializer(ProjectSerializer):
    not_taken = ProblemSerializer(many=True, help_text="What of the brief made no sense, and why")


class SenseSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField()
    pos = serializers.CharField()
    gloss = serializers.CharField()
    words = serializers.ListField(child=serializers.CharField())


class OfferSerializer(serializers.Serializer[Any]):
    text = serializers.CharField()
    group = serializers.CharField()
    pos = serializers.CharField(allow_blank=True)
    closeness = serializers.FloatField(help_text="0 to 1")


class OpenedSerializer(serializers.Serializer[Any]):
    keyword = serializers.CharField()
    senses = SenseSerializer(many=True)
    taken = serializers.ListField(child=serializers.IntegerField())
    offers = OfferSerializer(many=True)
    suggestion = serializers.CharField(allow_blank=True, help_text="A likelier spelling")
    known = serializers.BooleanField()


class FieldSerializer(serializers.Serializer[Any]):
    title = serializers.CharField()
    near = serializers.FloatField(help_text="To the brief, 0 to 1")
    on = serializers.BooleanField()
    chosen = serializers.BooleanField(help_text="Switched by the person")


class WorldEntrySerializer(serializers.Serializer[Any]):
    text = serializers.CharField()
    field = serializers.CharField(allow_blank=True, help_text="Where it is from")
    worth = serializers.FloatField(help_text="0 to 1")
    weight = serializers.IntegerField(min_value=1, max_value=5)
    dropped = serializers.BooleanField()


class FacetSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    word = serializers.CharField()
    entries = WorldEntrySerializer(many=True)


class QuestionSerializer(serializers.Serializer[Any]):
    facet = serializers.CharField()
    asks = serializers.CharField()
    example = serializers.CharField()


class WorldSerializer(serializers.Serializer[Any]):
    fields_near = FieldSerializer(many=True, help_text="Those that are on, then the nearest others")
    facets = FacetSerializer(many=True)
    questions = QuestionSerializer(many=True)
    fits = serializers.BooleanField(help_text="A field says what the brief is about")
    informed = serializers.BooleanField(help_text="There is a sentence or a word to go by")


class TitlesSerializer(serializers.Serializer[Any]):
    titles = serializers.ListField(child=serializers.CharField())


class KeptWorldSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField(read_only=True)
    title = serializers.CharField(max_length=60)
    entries = serializers.DictField(child=serializers.ListField(child=serializers.CharField()))


class SourceSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    version = serializers.CharField()
    licence = serializers.CharField()


class LabelsSerializer(serializers.Serializer[Any]):
    labels = serializers.ListField(
        child=serializers.CharField(max_length=255, allow_blank=True), max_length=MOST_DISMISSED
    )


class LooksSerializer(LabelsSerializer):
    verdict = serializers.ChoiceField(choices=("seen", "later", ""), allow_blank=True)


class VocabularySerializer(serializers.Serializer[Any]):
    extensions = serializers.ListField(child=serializers.CharField())
    groups = serializers.DictField(child=serializers.CharField(), help_text="Of related words")
    sources = SourceSerializer(many=True)
    worlds = serializers.ListField(child=serializers.CharField(), help_text="Titles of fields")
