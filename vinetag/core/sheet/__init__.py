"""The sheet as columns: narrowing it, counting what each filter would leave, and ordering it."""

from vinetag.core.sheet.columns import LATER, SEEN, Columns, Line
from vinetag.core.sheet.narrowing import Counts, Narrowing
from vinetag.core.sheet.prices import (
    NOT_ASKED,
    OPEN_TO_LISTS,
    SPANS,
    ListPrice,
    NameCost,
    NameQuote,
    SheetPrices,
    name_costs,
)
from vinetag.core.sheet.question import Question, parse_question, question_schema

__all__ = [
    "LATER", "NOT_ASKED", "OPEN_TO_LISTS", "SEEN", "SPANS", "Columns", "Counts", "Line",
    "ListPrice", "NameCost", "NameQuote", "Narrowing", "Question", "SheetPrices", "name_costs",
    "parse_question", "question_schema",
]  # fmt: skip
