"""The sheet as columns: narrowing it, counting what each filter would leave, and ordering it."""

from vinetag.core.sheet.columns import LATER, NOT_ASKED, SEEN, Columns, Line
from vinetag.core.sheet.narrowing import Counts, Narrowing
from vinetag.core.sheet.question import Question, parse_question, question_schema

__all__ = [
    "LATER", "NOT_ASKED", "SEEN", "Columns", "Counts", "Line", "Narrowing",
    "Question", "parse_question", "question_schema",
]  # fmt: skip
