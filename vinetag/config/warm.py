"""Loading the word data before the first person asks for it."""

from __future__ import annotations

import gc
import threading
import time
from typing import Final

from vinetag.core.brief import parse_brief
from vinetag.core.grade.judge import hearing_of
from vinetag.core.lexicon import load_lexicon
from vinetag.core.make import make_names

__all__ = ["warm_up"]

# Seconds between two words, so that requests are not held up.
YIELDS: Final = 0.002


def warm_up() -> None:
    """Load it beside the first requests, which wait no longer than for what they need themselves.
    What is loaded stays, so the collector need not go through it again at every making.
    """

    def load() -> None:
        lexicon = load_lexicon()
        make_names(parse_brief({"keywords": ["vine", "tag"]}), lexicon, limit=100)
        # Words of the bank come in every list: hearing them is half of what a first list takes.
        hearing = hearing_of(lexicon)
        for word in {entry.text for entry in (*lexicon.bank.leads, *lexicon.bank.tails)}:
            hearing.word(word)
            time.sleep(YIELDS)
        gc.collect()
        gc.freeze()

    threading.Thread(target=load, name="warm-up", daemon=True).start()
