"""Loading the word data before the first person asks for it."""

from __future__ import annotations

import gc
import threading

from vinetag.core.brief import parse_brief
from vinetag.core.lexicon import load_lexicon
from vinetag.core.make import make_names

__all__ = ["warm_up"]


def warm_up() -> None:
    """Load it beside the first requests, which wait no longer than for what they need themselves.
    What is loaded stays, so the collector need not go through it again at every making.
    """

    def load() -> None:
        make_names(parse_brief({"keywords": ["vine", "tag"]}), load_lexicon(), limit=100)
        gc.collect()
        gc.freeze()

    threading.Thread(target=load, name="warm-up", daemon=True).start()
