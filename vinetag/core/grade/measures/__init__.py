"""The measures, one module each. To add one: write its module, list it here, and weigh it."""

from collections.abc import Sequence
from typing import Final

from vinetag.core.grade.measures.clarity import Clarity
from vinetag.core.grade.measures.fit import Fit
from vinetag.core.grade.measures.length import Length
from vinetag.core.grade.measures.memory import Memory
from vinetag.core.grade.measures.sense import Sense
from vinetag.core.grade.measures.sound import Sound
from vinetag.core.grade.measures.spelling import Spelling
from vinetag.core.grade.scale import Measure

__all__ = ["MEASURES"]

MEASURES: Final[Sequence[Measure]] = (
    Length(), Spelling(), Fit(), Sense(), Sound(), Memory(), Clarity(),
)  # fmt: skip
