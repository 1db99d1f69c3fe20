"""How near every word is to a brief, all at once: what the hunt goes by before names are graded."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from typing import Final

import numpy as np
import numpy.typing as npt

from vinetag.core.world.incidental import SMALL, says
from vinetag.core.world.world import World

__all__ = ["word_nearness"]

# Cosines to the sentence from nothing to all that is usual (World.near).
FAR, NEAR = 0.2, 0.6
# The least a word of the world counts for, a keyword, and a word that says nothing.
OF_WORLD, OF_SMALL = 0.45, 0.15
AT_A_TIME: Final = 8_192
RUDE: Final = -3.0


def word_nearness(
    world: World, keywords: Mapping[str, float], words: Sequence[str], rude: Collection[str] = ()
) -> npt.NDArray[np.float32]:
    """By word, from 0 to 1. `keywords` with how they weigh from 0 to 1; other words count by their
    part in the brief's world, or by nearness in meaning to its sentence. Those in `rude` put a name
    behind all others.
    """
    found = np.zeros(len(words), np.float32)
    place = {word: at for at, word in enumerate(words)}
    if world.informed:
        for first in range(0, len(words), AT_A_TIME):
            chunk = [(word,) for word in words[first : first + AT_A_TIME]]
            near = (world.nears(chunk) - FAR) / (NEAR - FAR)
            found[first : first + AT_A_TIME] = np.clip(near, 0, 1) * OF_WORLD
    for word, told in world.words.items():
        at = place.get(word)
        if at is not None:
            found[at] = max(found[at], OF_WORLD + (1 - OF_WORLD) * told.worth * 0.9)
    for word, weight in keywords.items():
        at = place.get(word)
        if at is not None:
            found[at] = weight * (1.0 if says(word) == 1.0 else 0.5)
    for word in SMALL:
        at = place.get(word)
        if at is not None:
            found[at] = min(found[at], OF_SMALL)
    for word, worth in (*((w, 0.0) for w in world.against), *((w, RUDE) for w in rude)):
        at = place.get(word)
        if at is not None:
            found[at] = worth
    return found
