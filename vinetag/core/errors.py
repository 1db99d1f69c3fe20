"""The core's error tree.

    CoreError
    ├── LabelError       a text is not a DNS label
    ├── ExtensionError   an extension is unknown or malformed
    ├── CatalogueError   a list of extensions cannot be read, line by line
    ├── WordmarkError    a name cannot be set in type as asked
    ├── QuestionError    what is asked of the sheet makes no sense, field by field
    └── BriefError       a brief has one or more problems, each at a path

Every error carries `problems`; a problem has a code and data, and `text()` says it in words.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

__all__ = [
    "BriefError", "CatalogueError", "CoreError", "ExtensionError", "LabelError", "Problem",
    "QuestionError", "WordmarkError", "add_words",
]  # fmt: skip

_WORDING: dict[str, str] = {
    "blank": "Write something here.",
    "not_text": "This should be text.",
    "not_number": "This should be a whole number.",
    "not_yes_no": "This should be yes or no.",
    "not_list": "This should be a list.",
    "not_object": "This should be an object with named fields.",
    "unknown_field": "There is no field called “{field}”.",
    "unknown_choice": "“{value}” is not one of {choices}.",
    "too_long": "At most {limit} characters, please: this has {length:,}.",
    "too_many": "At most {limit} here: there are {count:,}.",
    "too_few": "At least {limit} here.",
    "out_of_range": "Choose a number from {low} to {high}; {value} is outside.",
    "no_weight": "Every measure is at 0: give at least one of them some weight.",
    "min_over_max": "The smallest number of letters ({low}) is above the largest ({high}).",
    "repeated": "“{value}” is listed twice.",
    "colour": "“{value}” is no colour: write it like #24625b.",
    "entry_unreadable": "This entry lacks something or has it in a wrong form.",
    "letters_only": (
        "“{value}” has {what}: keywords use the letters a to z, with spaces between words."
    ),
    "full_name": "“{value}” is a full name. Write its words without the extension: “{label}”.",
    "script": "“{value}” is written in {script} letters. Write the sound in the letters a to z.",
    "avoided_keyword": "“{value}” is also among the words to avoid. Remove one of the two.",
    "shape": "A shape is 3 to 12 letters C and V, for consonants and vowels, such as CVCV.",
    "label_blank": "A name needs at least one letter or digit.",
    "label_dots": "Two dots follow each other.",
    "label_long": "A name has at most 63 characters; this has {length:,}.",
    "label_character": "A name cannot contain “{character}”: only letters, digits and hyphens.",
    "label_edge_hyphen": "A name cannot begin or end with a hyphen.",
    "label_reserved_hyphens": "Hyphens in both the third and fourth place are reserved (RFC 5891).",
    "label_idna": "“{value}” is not valid in international names (IDNA 2008): {detail}.",
    "as_told": "{text}",
    "column_unknown": "There is no column called “{value}”.",
    "column_missing": "The column “{value}” is missing.",
    "not_price": "“{value}” is no price: write a number such as 12.50.",
    "not_address": "“{value}” is no web address.",
    "not_host": "“{value}” is no host: write it like whois.nic.example, with :port if not 43.",
    "not_query": "“{value}” is no question: it needs {{name}} once, in plain letters.",
    "extension_blank": "An extension looks like .com or .co.nz.",
    "extension_unknown": "There is no extension “.{value}”.",
    "extension_two_level": "Names are not registered directly under “.{value}”.",
}


def add_words(words: Mapping[str, str]) -> None:
    """Words for codes of whoever stands above the core; their arguments stand in braces."""
    _WORDING.update(words)


@dataclass(frozen=True, slots=True)
class Problem:
    """One thing that is wrong: `path` locates it (`keywords.3.text`), `code` names it."""

    path: str
    code: str
    args: Mapping[str, object] = field(default_factory=dict)

    def text(self) -> str:
        """The problem as a sentence for the person who made it."""
        return _WORDING[self.code].format(**self.args)

    def document(self) -> dict[str, object]:
        """As a JSON object: where, which code with which arguments, and in words."""
        plain = {
            key: value if isinstance(value, str | int | float) else str(value)
            for key, value in self.args.items()
        }
        return {"path": self.path, "code": self.code, "args": plain, "message": self.text()}


class CoreError(ValueError):
    """Base of the tree; never raised itself."""

    def __init__(self, *problems: Problem) -> None:
        self.problems: Sequence[Problem] = problems
        super().__init__("; ".join(p.text() for p in problems))


class LabelError(CoreError):
    """A text is not a DNS label."""


class ExtensionError(CoreError):
    """An extension is unknown or malformed."""


class CatalogueError(CoreError):
    """A list of extensions has one or more problems, each at a line."""


class WordmarkError(CoreError):
    """A name cannot be set in type as asked."""


class QuestionError(CoreError):
    """What is asked of the sheet makes no sense, each problem at a field."""


class BriefError(CoreError):
    """A brief cannot be used as it stands."""
