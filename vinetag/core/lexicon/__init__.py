"""Word data: words, homophones, word pairs, vectors, and the bank of leads and tails."""

from vinetag.core.lexicon.bank import Bank, BankWord
from vinetag.core.lexicon.store import Lexicon, load_lexicon
from vinetag.core.lexicon.word import Word

__all__ = ["Bank", "BankWord", "Lexicon", "Word", "load_lexicon"]
