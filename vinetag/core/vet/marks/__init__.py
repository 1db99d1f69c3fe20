"""Marks: registers of them, and which are like a name."""

from vinetag.core.vet.marks.classes import CLASSES, Nearness, nearness, proposed_classes
from vinetag.core.vet.marks.files import marks_schema, read_register
from vinetag.core.vet.marks.forms import FormMaker, Forms
from vinetag.core.vet.marks.index import Index, Indexed, Near, Query, reach
from vinetag.core.vet.marks.likeness import Likeness, Way, same_letters
from vinetag.core.vet.marks.query import query_of
from vinetag.core.vet.marks.record import MARK_STATUSES, Mark, MarkStatus

__all__ = [
    "CLASSES", "MARK_STATUSES", "FormMaker", "Forms", "Index", "Indexed", "Likeness", "Mark",
    "MarkStatus", "Near", "Nearness", "Query", "Way", "marks_schema", "nearness",
    "proposed_classes", "query_of", "reach", "read_register", "same_letters",
]  # fmt: skip
