"""The shapes of phrases in the API."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from vinetag.apps.accounts.api.problems import ProblemSerializer
from vinetag.apps.phrases.asking import SORTS
from vinetag.apps.phrases.choosing import MOST_CHOSEN
from vinetag.apps.phrases.export import WHATS
from vinetag.apps.phrases.models import PhraseFile
from vinetag.core.checking import RUNGS
from vinetag.core.demand import KINDS, LONGEST_PHRASE, Ways
from vinetag.core.spreadsheet import FORMS

__all__ = [
    "AnsweredSerializer",
    "AskSerializer",
    "ChoiceSerializer",
    "ChosenCountSerializer",
    "DecideSerializer",
    "FiguresSerializer",
    "FileAboutSerializer",
    "GroupQuestionSerializer",
    "GroupsSerializer",
    "HeadSerializer",
    "KeywordsSerializer",
    "KeywordsTakenSerializer",
    "LaddersSerializer",
    "LookedSerializer",
    "OnePhraseSerializer",
    "PhraseExportSerializer",
    "PhrasePageSerializer",
    "PhraseQuestionSerializer",
    "TypedPhrasesSerializer",
    "TypedTakenSerializer",
    "ViewSerializer",
]  # fmt: skip

MOST_AT_ONCE = 2_000


class PhraseText(serializers.CharField):
    """A phrase, as long as one may be."""

    def __init__(self, **options: Any) -> None:
        super().__init__(max_length=LONGEST_PHRASE, **options)


class ColumnSerializer(serializers.Serializer[Any]):
    kind = serializers.ChoiceField(choices=tuple(KINDS), help_text="What it holds, or nothing")
    month = serializers.CharField(max_length=7, allow_blank=True, default="")


class LookedSerializer(serializers.Serializer[Any]):
    """How a file is understood."""

    encoding = serializers.CharField()
    separator = serializers.CharField(trim_whitespace=False)
    heading = serializers.ListField(child=serializers.CharField(allow_blank=True))
    heading_line = serializers.IntegerField(help_text="0 where there is none")
    rows = serializers.ListField(
        child=serializers.ListField(child=serializers.CharField(allow_blank=True))
    )
    columns = ColumnSerializer(many=True)
    habit = serializers.BooleanField(help_text="As was said of such a file before")


class FileAboutSerializer(serializers.Serializer[Any]):
    """What is said of a file, in the address."""

    source = serializers.CharField(max_length=60)  # type: ignore[assignment]
    name = serializers.CharField(max_length=200, default="", allow_blank=True)
    country = serializers.CharField(max_length=10, default="", allow_blank=True)
    language = serializers.CharField(max_length=10, default="", allow_blank=True)
    currency = serializers.CharField(max_length=10, default="", allow_blank=True)
    dated = serializers.DateField(default=None, allow_null=True)
    columns = serializers.CharField(
        max_length=2_000, default="", allow_blank=True,
        help_text="Kinds of columns put right, set apart by commas; of a month month:2026-10",
    )  # fmt: skip


class FigureFileSerializer(serializers.ModelSerializer[PhraseFile]):
    problems = ProblemSerializer(many=True)
    removed = serializers.SerializerMethodField()

    class Meta:
        model = PhraseFile
        fields = (
            "id", "kind", "source", "name", "country", "language", "currency", "dated", "state",
            "lines", "taken", "wrong", "problems", "done", "brought_at", "removed",
        )  # fmt: skip

        read_only_fields = fields

    def get_removed(self, file: PhraseFile) -> bool:
        return file.removed_at is not None


class ViewItemSerializer(serializers.Serializer[Any]):
    """Figures of one source in one country and language."""

    key = serializers.CharField()
    source = serializers.CharField()  # type: ignore[assignment]
    country = serializers.CharField()
    language = serializers.CharField()
    known = serializers.IntegerField(help_text="Phrases it has a figure of")
    newest = serializers.DateField(allow_null=True)


class FiguresSerializer(serializers.Serializer[Any]):
    """The files of a project, and the views they make."""

    files = FigureFileSerializer(many=True)
    views = ViewItemSerializer(many=True)
    usual = serializers.CharField(allow_blank=True)
    chosen = serializers.IntegerField()
    phrases = serializers.IntegerField()
    heads = serializers.IntegerField()
    dropped = serializers.IntegerField()
    service = serializers.BooleanField(help_text="There is a service of demand to be asked")


class ViewSerializer(serializers.Serializer[Any]):
    view = serializers.CharField(default="", allow_blank=True, max_length=100)


class PhraseQuestionSerializer(ViewSerializer):
    text = serializers.CharField(default="", allow_blank=True, max_length=LONGEST_PHRASE)
    words_min = serializers.IntegerField(default=None, allow_null=True, min_value=1, max_value=30)
    words_max = serializers.IntegerField(default=None, allow_null=True, min_value=1, max_value=30)
    demand_min = serializers.IntegerField(
        default=None, allow_null=True, min_value=0, max_value=2_000_000_000
    )
    demand_max = serializers.IntegerField(
        default=None, allow_null=True, min_value=0, max_value=2_000_000_000
    )
    competition_max = serializers.FloatField(
        default=None, allow_null=True, min_value=0, max_value=1
    )
    known = serializers.ChoiceField(choices=("", "yes", "no"), default="")
    mark = serializers.ChoiceField(choices=("", "chosen"), default="")
    season = serializers.BooleanField(default=False)
    group = serializers.CharField(default="", allow_blank=True, max_length=LONGEST_PHRASE)
    cut = serializers.FloatField(default=None, allow_null=True, min_value=0, max_value=1)
    sort = serializers.ChoiceField(choices=SORTS, default="demand")
    reverse = serializers.BooleanField(default=False)
    offset = serializers.IntegerField(default=0, min_value=0, max_value=1_000_000)


class PhraseExportSerializer(PhraseQuestionSerializer):
    what = serializers.ChoiceField(choices=WHATS, default="phrases")
    form = serializers.ChoiceField(choices=tuple(FORMS), default="csv")


class KnownSerializer(serializers.Serializer[Any]):
    """A figure: `low` to `high` searches a month, `high` null for that many and more; null both
    where nothing is known.
    """

    low = serializers.IntegerField(allow_null=True)
    high = serializers.IntegerField(allow_null=True)
    months = serializers.ListField(child=serializers.IntegerField(allow_null=True))
    last_month = serializers.CharField(allow_blank=True)
    competition = serializers.FloatField(allow_null=True)
    price = serializers.DecimalField(12, 3, allow_null=True, normalize_output=True)
    currency = serializers.CharField(allow_blank=True)
    dated = serializers.DateField(allow_null=True)


class SeasonSerializer(serializers.Serializer[Any]):
    peak = serializers.IntegerField(help_text="Which of the twelve months, from 0")
    times = serializers.FloatField(help_text="How many times the mean it has")


class PhraseLineSerializer(serializers.Serializer[Any]):
    phrase = serializers.CharField()
    figure = KnownSerializer()
    demand = serializers.IntegerField(
        allow_null=True, help_text="With all that is gathered under it"
    )
    variants = serializers.IntegerField()
    season = SeasonSerializer(allow_null=True)
    cover = serializers.FloatField(allow_null=True, help_text="Of all demand, 0 to 1")
    chosen = serializers.BooleanField()


class PhrasePageSerializer(serializers.Serializer[Any]):
    lines = PhraseLineSerializer(many=True)
    total = serializers.IntegerField()
    heads = serializers.IntegerField()
    phrases = serializers.IntegerField()
    demand = serializers.IntegerField()
    unknown = serializers.IntegerField()
    view = serializers.CharField(allow_blank=True)


class GatheredSerializer(serializers.Serializer[Any]):
    phrase = serializers.CharField()
    way = serializers.ChoiceField(choices=tuple(Ways))
    figure = KnownSerializer()


class SourceFigureSerializer(serializers.Serializer[Any]):
    view = serializers.CharField()
    figure = KnownSerializer()


class CompanionSerializer(serializers.Serializer[Any]):
    line = PhraseLineSerializer()
    near = serializers.FloatField()


class OnePhraseSerializer(serializers.Serializer[Any]):
    line = PhraseLineSerializer()
    gathered = GatheredSerializer(many=True)
    figures = SourceFigureSerializer(many=True)
    companions = CompanionSerializer(many=True)


class GroupQuestionSerializer(ViewSerializer):
    cut = serializers.FloatField(default=None, allow_null=True, min_value=0, max_value=1)


class CoverSerializer(serializers.Serializer[Any]):
    """Why a phrase covers so much."""

    share = serializers.FloatField()
    own_share = serializers.FloatField()
    within = serializers.IntegerField(help_text="Phrases that have all its words")
    within_share = serializers.FloatField()
    near = serializers.IntegerField(help_text="Others near in meaning")
    near_share = serializers.FloatField()


class GroupedLineSerializer(serializers.Serializer[Any]):
    line = PhraseLineSerializer()
    in_group = serializers.FloatField()
    of_all = serializers.FloatField()


class GroupSerializer(serializers.Serializer[Any]):
    head = serializers.CharField()
    demand = serializers.IntegerField()
    share = serializers.FloatField()
    count = serializers.IntegerField()
    unknown = serializers.IntegerField()
    cover = CoverSerializer()
    lines = GroupedLineSerializer(many=True)


class CandidateSerializer(serializers.Serializer[Any]):
    line = PhraseLineSerializer()
    cover = CoverSerializer()


class GroupsSerializer(serializers.Serializer[Any]):
    cut = serializers.FloatField()
    usual_cut = serializers.FloatField()
    view = serializers.CharField(allow_blank=True)
    demand = serializers.IntegerField()
    grouped = serializers.IntegerField()
    heads = serializers.IntegerField()
    count = serializers.IntegerField()
    groups = GroupSerializer(many=True)
    candidates = CandidateSerializer(many=True)


class ChoiceSerializer(serializers.Serializer[Any]):
    phrases = serializers.ListField(
        child=PhraseText(), min_length=1, max_length=MOST_CHOSEN, allow_empty=False
    )
    chosen = serializers.BooleanField(default=True)


class ChosenCountSerializer(serializers.Serializer[Any]):
    chosen = serializers.IntegerField(help_text="How many are chosen now")


class DecideSerializer(serializers.Serializer[Any]):
    phrases = serializers.ListField(child=PhraseText(), min_length=1, max_length=MOST_AT_ONCE)
    on = serializers.BooleanField(default=True)


class KeywordsSerializer(ViewSerializer):
    phrases = serializers.ListField(child=PhraseText(), min_length=1, max_length=MOST_CHOSEN)
    weigh = serializers.BooleanField(default=True, help_text="By demand")


class HeadSerializer(serializers.Serializer[Any]):
    phrase = PhraseText()


class KeywordsTakenSerializer(serializers.Serializer[Any]):
    taken = serializers.ListField(child=serializers.CharField())
    problems = ProblemSerializer(many=True)


class TypedPhrasesSerializer(serializers.Serializer[Any]):
    text = serializers.CharField(max_length=100_000, help_text="A phrase a line")


class TypedTakenSerializer(serializers.Serializer[Any]):
    new = serializers.IntegerField()
    problems = ProblemSerializer(many=True)


class AskSerializer(serializers.Serializer[Any]):
    phrases = serializers.ListField(child=PhraseText(), min_length=1, max_length=500)
    country = serializers.CharField(max_length=2, default="", allow_blank=True)
    language = serializers.CharField(max_length=10, default="", allow_blank=True)
    companions = serializers.BooleanField(
        default=False, help_text="Which go with the first, instead of figures of all"
    )


class AnsweredSerializer(serializers.Serializer[Any]):
    taken = serializers.IntegerField()
    unknown = serializers.IntegerField()
    passed = serializers.IntegerField()
    source = serializers.CharField(allow_blank=True)  # type: ignore[assignment]
    why = serializers.CharField(allow_blank=True, help_text="Why not all was answered")


class FormSerializer(serializers.Serializer[Any]):
    rung = serializers.ChoiceField(choices=tuple(RUNGS))
    label = serializers.CharField()  # type: ignore[assignment]
    extension = serializers.CharField()
    status = serializers.CharField(allow_blank=True)
    likely = serializers.BooleanField()


class RungFormsSerializer(serializers.Serializer[Any]):
    rung = serializers.ChoiceField(choices=tuple(RUNGS))
    forms = FormSerializer(many=True)


class LadderSerializer(serializers.Serializer[Any]):
    phrase = serializers.CharField()
    demand = serializers.IntegerField(allow_null=True)
    figure = KnownSerializer()
    best = FormSerializer(allow_null=True)
    grade = serializers.FloatField(allow_null=True)
    asked = serializers.IntegerField()
    forms = serializers.IntegerField()
    rungs = serializers.SerializerMethodField()
    problem = serializers.CharField(allow_blank=True)

    @extend_schema_field(RungFormsSerializer(many=True))
    def get_rungs(self, line: Any) -> Any:
        """Each with its forms."""
        pairs = [{"rung": rung, "forms": forms} for rung, forms in line.rungs]
        return RungFormsSerializer(pairs, many=True).data


class LaddersSerializer(serializers.Serializer[Any]):
    lines = LadderSerializer(many=True)
    order = serializers.ListField(child=serializers.ChoiceField(choices=tuple(RUNGS)))
    view = serializers.CharField(allow_blank=True)
    asked = serializers.IntegerField()
    forms = serializers.IntegerField()
