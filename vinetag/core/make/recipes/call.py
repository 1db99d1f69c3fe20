"""call: what one does in the world: a verb and its thing, or a verb with a particle."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.make.draft import Draft
from vinetag.core.make.job import Job
from vinetag.core.make.worldly import entries

__all__ = ["Call"]


class Call:
    """The calls of the brief's fields; verb and thing were written for each other."""

    name = "call"

    def make(self, job: Job) -> Iterator[Draft]:
        """As they were written, the best expected first."""
        yield from entries(job, self.name, "does")
