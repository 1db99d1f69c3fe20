"""Word data: words, homophones, word pairs, vectors, and the bank of leads and tails."""

from vinetag.core.lexicon.bank import Bank, BankWord
from vinetag.core.lexicon.store import Lexicon, Word, load_lexicon

__all__ = ["Bank", "BankWord", "Lexicon", "Word", "load_lexicon"]
