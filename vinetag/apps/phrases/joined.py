"""What phrases add: figures in a project's file, and what people look for with a name's words."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

from vinetag.apps.accounts.joining import Filed, Joined, Shown
from vinetag.apps.naming.models import Project
from vinetag.apps.phrases.api.serializers import KnownSerializer
from vinetag.apps.phrases.carried import looked_for_with
from vinetag.apps.phrases.filed import PhraseFields, bring, write

__all__ = ["JOINED"]


class LookedForSerializer(serializers.Serializer[Any]):
    """A phrase with the words of a name."""

    phrase = serializers.CharField()
    demand = serializers.IntegerField(allow_null=True)
    figure = KnownSerializer()


def show(project: Project, label: str) -> dict[str, Any]:
    """The phrases with the words of a name, the most looked for first."""
    return {
        "looked_for": [
            {"phrase": phrase, "figure": figure, "demand": demand}
            for phrase, figure, demand in looked_for_with(project, label)
        ]
    }


JOINED = Joined(
    filed=Filed(PhraseFields, write, bring),
    shown=Shown(
        {"looked_for": LookedForSerializer(many=True, help_text="With the words of the name")}, show
    ),
)
