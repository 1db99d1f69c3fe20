"""quality: a quality of the world and a thing of it."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.make.draft import Draft
from vinetag.core.make.job import Job
from vinetag.core.make.recipes.moment import combined

__all__ = ["Quality"]


class Quality:
    """Every quality before every thing, tool, stuff and being; the best."""

    name = "quality"

    def make(self, job: Job) -> Iterator[Draft]:
        """Only what goes side by side and says something of the brief."""
        yield from combined(job, self.name, ("qualities",), ("things", "tools", "stuff", "beings"))
