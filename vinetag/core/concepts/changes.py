"""What can have been done to a word of a name: each a code with arguments, and the words for it."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final, NamedTuple

__all__ = ["CHANGES", "Change"]

CHANGES: Final[Mapping[str, str]] = {
    "plural": "plural of {word}",
    "third": "third person of {word}",
    "past": "past of {word}",
    "participle": "participle of {word}",
    "ing": "-ing form of {word}",
    "more": "comparative of {word}",
    "most": "superlative of {word}",
    "doer": "who does {word}",
    "trade": "the trade or doing of {word}",
    "noun": "noun from {word}",
    "verb": "verb from {word}",
    "adj": "adjective from {word}",
    "adv": "adverb from {word}",
    "some_form": "a form of {word}",
    "backwards": "{word} read backwards",
    "initials": "initials of {words}",
    "respelt": "{word} with {put} for {letters}",
    "same_sound": "it sounds the same",
    "new": "new word",
    "new_from": "new word on {start} from {word}",
    "across_dot": "{word}, with the dot before {extension}: {before}.{extension}",
    "cut": "{word} cut to {short}",
    "no_last_vowel": "{word} without its last vowel",
    "no_first_letter": "{word} without its first letter",
    "no_last_letter": "{word} without its last letter",
    "with_beginning": "{beginning}- before {word}",
    "with_ending": "{word} with -{ending}",
    "blend": "blend of {first} and {second}, sharing {letters}",
    "blend_by_sound": "blend of {first} and {second}, sharing the sound of {left} and {right}",
    # A sentence kept by an earlier version.
    "as_told": "{text}",
}


class Change(NamedTuple):
    """What was done to a word: a key of CHANGES, and its arguments by name."""

    code: str
    args: Mapping[str, str]

    def text(self) -> str:
        """In words."""
        return CHANGES[self.code].format(**self.args)
