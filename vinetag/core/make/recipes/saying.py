"""saying: a phrase of the world, as people say it, that means two things here."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.make.draft import Draft
from vinetag.core.make.job import Job
from vinetag.core.make.worldly import entries

__all__ = ["Saying"]


class Saying:
    """The phrases of the brief's fields."""

    name = "saying"

    def make(self, job: Job) -> Iterator[Draft]:
        """As they were written, the best expected first."""
        yield from entries(job, self.name, "phrases")
