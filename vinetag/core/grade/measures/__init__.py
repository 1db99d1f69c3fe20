"""The measures, a module each. To add one: write its module, with a class that measures, under the
name of its record in vinetag.core.concepts.measures.
"""

from collections.abc import Sequence
from typing import Final

from vinetag.core.concepts import MEASURE_NAMES
from vinetag.core.grade.scale import Measure
from vinetag.core.naming_modules import named_in

__all__ = ["MEASURES"]

MEASURES: Final[Sequence[Measure]] = tuple(named_in(__name__, name) for name in MEASURE_NAMES)
