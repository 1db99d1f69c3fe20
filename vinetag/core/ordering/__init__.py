"""Buying names: the steps a name goes through, money that balances, and who it is for."""

from vinetag.core.ordering.addresses import COUNTRIES, Country, country_named
from vinetag.core.ordering.identifiers import IDENTIFIERS, Identifier, needed_for
from vinetag.core.ordering.people import ROLES, Person, check_person
from vinetag.core.ordering.shares import share_out
from vinetag.core.ordering.states import FINAL, NEXT, State, StateError, advance, words_of
from vinetag.core.ordering.wording import SAID, said_in_words

__all__ = [
    "COUNTRIES", "FINAL", "IDENTIFIERS", "NEXT", "ROLES", "SAID", "Country", "Identifier", "Person",
    "State", "StateError", "advance", "check_person", "country_named", "needed_for",
    "said_in_words", "share_out", "words_of",
]  # fmt: skip
