"""What there is of each kind of thing, as frozen records: purposes, measures, recipes, parts,
changes of words.

They know no code, so that whatever is below the code that does the work can name them; the apps
serve them to the front end, which repeats none. Statuses and sources have theirs in
vinetag.core.checking.
"""

from vinetag.core.concepts.changes import CHANGES, Change
from vinetag.core.concepts.measures import MEASURE_KINDS, MEASURE_NAMES, MeasureKind
from vinetag.core.concepts.parts import PART_KINDS, PartKind, PartName
from vinetag.core.concepts.purposes import PURPOSE_KINDS, PURPOSES, Purpose, PurposeKind
from vinetag.core.concepts.recipes import RECIPE_KINDS, RECIPE_NAMES, RecipeKind
from vinetag.core.concepts.vetting import (
    FINDING_KINDS,
    FINDING_NAMES,
    WEIGHT_KINDS,
    WEIGHTS,
    FindingKind,
    FindingName,
    Weight,
    WeightKind,
    worst,
)

__all__ = [
    "CHANGES", "FINDING_KINDS", "FINDING_NAMES", "MEASURE_KINDS", "MEASURE_NAMES", "PART_KINDS",
    "PURPOSES", "PURPOSE_KINDS", "RECIPE_KINDS", "RECIPE_NAMES", "WEIGHTS", "WEIGHT_KINDS",
    "Change", "FindingKind", "FindingName", "MeasureKind", "PartKind", "PartName", "Purpose",
    "PurposeKind", "RecipeKind", "Weight", "WeightKind", "worst",
]  # fmt: skip
