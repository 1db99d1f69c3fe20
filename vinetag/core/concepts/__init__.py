"""What there is of each kind of thing, as frozen records: purposes, measures, recipes, parts,
changes of words.

They know no code, so that whatever is below the code that does the work can name them; the apps
serve them to the front end, which repeats none. Statuses and sources have theirs in
vinetag.core.checking.
"""

from vinetag.core.concepts.changes import CHANGES, Change
from vinetag.core.concepts.market import (
    LEAVING_KINDS,
    LEAVINGS,
    OFFER_KINDS,
    OFFER_NAMES,
    PAST_USE_NAMES,
    PAST_USES,
    Leaving,
    LeavingKind,
    OfferKind,
    OfferName,
    PastUse,
    PastUseName,
)
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
from vinetag.core.concepts.watching import (
    HAPPENING_NAMES,
    WATCH_KINDS,
    WATCH_NAMES,
    HappeningName,
    WatchKind,
    WatchName,
)

__all__ = [
    "CHANGES", "FINDING_KINDS", "FINDING_NAMES", "HAPPENING_NAMES", "LEAVINGS", "LEAVING_KINDS",
    "MEASURE_KINDS", "MEASURE_NAMES", "OFFER_KINDS", "OFFER_NAMES", "PART_KINDS", "PAST_USES",
    "PAST_USE_NAMES", "PURPOSES", "PURPOSE_KINDS", "RECIPE_KINDS", "RECIPE_NAMES", "WATCH_KINDS",
    "WATCH_NAMES", "WEIGHTS", "WEIGHT_KINDS", "Change", "FindingKind", "FindingName",
    "HappeningName", "Leaving", "LeavingKind", "MeasureKind", "OfferKind", "OfferName", "PartKind",
    "PartName", "PastUse", "PastUseName", "Purpose", "PurposeKind", "RecipeKind", "WatchKind",
    "WatchName", "Weight", "WeightKind", "worst",
]  # fmt: skip
