"""The shapes of the bench in the API."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from vinetag.apps.accounts.api.described import DescribedSerializer
from vinetag.apps.accounts.joining import Fields, Joined, JoinedSerializer
from vinetag.apps.availability.api.serializers import (
    CellSerializer,
    HowSerializer,
)
from vinetag.apps.bench import selectors
from vinetag.apps.costs.api.name_costs import SpansSerializer
from vinetag.core.candidates import read_part, starts_of
from vinetag.core.concepts import Change
from vinetag.core.names import unicode_label
from vinetag.core.sheet import question_schema
from vinetag.core.spreadsheet import FORMS

__all__ = [
    "MOST_CHECKED",
    "CountsSerializer",
    "DotsSerializer",
    "ExamplesSerializer",
    "ExportFormSerializer",
    "ExportQuestionSerializer",
    "FunnelSerializer",
    "JudgedSerializer",
    "PagePlaceSerializer",
    "PageQuestionSerializer",
    "PageSerializer",
    "QuestionSerializer",
    "RungSerializer",
    "ShownSerializer",
    "StretchQuestionSerializer",
    "StretchSerializer",
]

# Names of a sheet that are marked, checked or exported at once.
MOST_CHECKED = 10_000


class QuestionSerializer(DescribedSerializer):
    """What is asked of the sheet, as in an address; vinetag.core.sheet reads it."""

    described = question_schema()
    mode = "optional"


class PagePlaceSerializer(serializers.Serializer[Any]):
    offset = serializers.IntegerField(default=0, min_value=0, max_value=1_000_000)
    limit = serializers.IntegerField(default=100, min_value=1, max_value=500)


class PageQuestionSerializer(QuestionSerializer, PagePlaceSerializer):
    pass


class StretchSerializer(serializers.Serializer[Any]):
    offset = serializers.IntegerField(default=0, min_value=0, max_value=1_000_000)
    limit = serializers.IntegerField(default=MOST_CHECKED, min_value=1, max_value=MOST_CHECKED)


class StretchQuestionSerializer(QuestionSerializer, StretchSerializer):
    pass


class CountsSerializer(serializers.Serializer[Any]):
    total = serializers.IntegerField()
    values = serializers.DictField(
        child=serializers.DictField(child=serializers.IntegerField()),
        help_text="Of letters, syllables and words: names by value",
    )
    least = serializers.DictField(
        child=serializers.DictField(child=serializers.IntegerField()),
        help_text="Of the grade and each measure: names with at least that score",
    )
    prices = serializers.DictField(
        child=serializers.DictField(child=serializers.IntegerField()),
        help_text="Of price (the first year), later and whole: names up to each amount",
    )
    currency = serializers.CharField(help_text="That prices are compared in")
    years = serializers.IntegerField(help_text="All the years a name is kept")
    demand = serializers.DictField(
        child=serializers.IntegerField(), help_text="Names looked for so often a month, or more"
    )
    choices = serializers.DictField(
        child=serializers.DictField(child=serializers.IntegerField()), help_text="By filter"
    )


class CarriedSerializer(serializers.Serializer[Any]):
    phrase = serializers.CharField()
    demand = serializers.IntegerField(allow_null=True, help_text="Searches a month, if known")


class ChangeSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    args = serializers.DictField(child=serializers.CharField())
    message = serializers.CharField(source="text")


def _change_of(row: selectors.Row) -> Change | None:
    parts = (read_part(part) for part in row.candidate.parts)
    return next((part.change for part in parts if part.change), None)


class RowSerializer(serializers.Serializer[Any]):
    label = serializers.CharField(source="candidate.label")  # type: ignore[assignment] # a field called as DRF's own
    grade = serializers.FloatField(source="candidate.grade")
    letters = serializers.IntegerField(source="candidate.letters")
    scores = serializers.DictField(source="candidate.scores", child=serializers.FloatField())
    recipes = serializers.ListField(source="candidate.recipes", child=serializers.CharField())
    starts = serializers.SerializerMethodField(help_text="Where each part begins, from 0")
    change = serializers.SerializerMethodField(help_text="What was done to a word, if anything")
    dot = serializers.SerializerMethodField(help_text="The extension that completes the word")
    syllables = serializers.IntegerField(source="candidate.syllables")
    words = serializers.IntegerField(source="candidate.words")
    added = serializers.ListField(source="candidate.added", child=serializers.CharField())
    kept = serializers.BooleanField()
    verdict = serializers.ChoiceField(choices=("", "seen", "later"), allow_blank=True)
    cells = CellSerializer(many=True)
    costs = SpansSerializer(help_text="Under the cheapest of the brief's extensions")
    carried = CarriedSerializer(allow_null=True, help_text="The phrase it carries")

    def get_starts(self, row: selectors.Row) -> list[int]:
        return starts_of(row.candidate.parts)

    @extend_schema_field(ChangeSerializer(allow_null=True))
    def get_change(self, row: selectors.Row) -> dict[str, Any] | None:
        found = _change_of(row)
        return dict(ChangeSerializer(found).data) if found else None

    def get_dot(self, row: selectors.Row) -> str:
        found = _change_of(row)
        return found.args["extension"] if found and found.code == "across_dot" else ""


class PageSerializer(serializers.Serializer[Any]):
    rows = RowSerializer(many=True)
    total = serializers.IntegerField()


class FunnelSerializer(serializers.Serializer[Any]):
    made = serializers.IntegerField()
    within = serializers.IntegerField()
    listed = serializers.IntegerField()
    good = serializers.IntegerField()
    open = serializers.IntegerField()
    kept = serializers.IntegerField()
    good_from = serializers.FloatField(help_text="The grade from which a name is good enough")


class ReasonSerializer(serializers.Serializer[Any]):
    text = serializers.CharField()
    points = serializers.FloatField()
    start = serializers.IntegerField()
    end = serializers.IntegerField()


class MeasureSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    score = serializers.FloatField(allow_null=True)
    weight = serializers.FloatField()
    reasons = ReasonSerializer(many=True)


class WarningSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    text = serializers.CharField()
    start = serializers.IntegerField()
    end = serializers.IntegerField()


class MisspellingSerializer(serializers.Serializer[Any]):
    label = serializers.CharField()  # type: ignore[assignment] # a field called as DRF's own
    share = serializers.FloatField(help_text="Of those who hear the name, 0 to 1")


class DotsSerializer(serializers.Serializer[Any]):
    labels = serializers.ListField(child=serializers.CharField())
    letters = serializers.ListField(child=serializers.IntegerField())
    scores = serializers.DictField(
        child=serializers.ListField(child=serializers.FloatField(allow_null=True))
    )
    kept = serializers.ListField(child=serializers.BooleanField())


class ExampleSerializer(serializers.Serializer[Any]):
    project = serializers.CharField()
    label = serializers.CharField()  # type: ignore[assignment] # a field called as DRF's own
    score = serializers.FloatField(allow_null=True)
    reasons = ReasonSerializer(many=True)


class ExamplesSerializer(serializers.Serializer[Any]):
    examples = serializers.DictField(child=ExampleSerializer(many=True), help_text="By measure")


class RungNameSerializer(serializers.Serializer[Any]):
    full_name = serializers.CharField()
    label = serializers.CharField()  # type: ignore[assignment] # a field called as DRF's own
    extension = serializers.CharField()
    status = serializers.CharField(allow_blank=True, help_text="Empty when never asked")
    likely = serializers.BooleanField()
    asked_at = serializers.DateTimeField(allow_null=True)


class PartSerializer(serializers.Serializer[Any]):
    text = serializers.CharField()
    kind = serializers.CharField()
    keyword = serializers.CharField(allow_blank=True)
    start = serializers.IntegerField()
    change = ChangeSerializer(allow_null=True, help_text="What was done to the word")


class JudgedSerializer(JoinedSerializer):
    """All about one name, with what each app shows of it."""

    label = serializers.CharField()  # type: ignore[assignment] # a field called as DRF's own
    shown = serializers.SerializerMethodField(help_text="The label as a person writes it")
    grade = serializers.FloatField(allow_null=True)
    recipes = serializers.ListField(child=serializers.CharField())
    parts = PartSerializer(many=True)
    measures = MeasureSerializer(many=True)
    warnings = WarningSerializer(many=True)
    misspellings = serializers.SerializerMethodField(help_text="The likeliest first")
    typed_extension = serializers.CharField(
        allow_blank=True, help_text="With which it was asked for, if it was a full name"
    )

    def added(self, one: Joined) -> Fields:
        """What the app shows of a name."""
        return one.shown.fields if one.shown else {}

    @extend_schema_field(MisspellingSerializer(many=True))
    def get_misspellings(self, judged: selectors.Judged) -> list[dict[str, Any]]:
        return [{"label": text, "share": share} for text, share in judged.misspellings]

    def get_shown(self, judged: selectors.Judged) -> str:
        return unicode_label(judged.label)


class ShownSerializer(HowSerializer):
    shown = QuestionSerializer(help_text="The rows meant, as the sheet is asked for them")


class RungSerializer(serializers.Serializer[Any]):
    kind = serializers.CharField()
    title = serializers.CharField()
    names = serializers.SerializerMethodField()

    @extend_schema_field(RungNameSerializer(many=True))
    def get_names(self, step: selectors.Step) -> list[dict[str, Any]]:
        return [
            {
                "full_name": str(name),
                "label": name.label,
                "extension": name.extension,
                "status": cell.status if cell else "",
                "likely": bool(cell and cell.likely),
                "asked_at": cell.asked_at if cell else None,
            }
            for name, cell in step.names
        ]


class ExportFormSerializer(serializers.Serializer[Any]):
    form = serializers.ChoiceField(choices=list(FORMS), default="csv")
    what = serializers.ChoiceField(choices=("sheet", "pasted"), default="sheet")


class ExportQuestionSerializer(QuestionSerializer, ExportFormSerializer):
    pass
