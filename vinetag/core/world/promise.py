"""What would work against the client's promise."""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Final

__all__ = ["against"]

MEAT: Final = (
    "meat beef pork lamb ham bacon chop chops rib ribs steak sausage roast cutlet butcher brisket "
    "mince veal duck chicken turkey fish prawn crab hook cleaver carvery gravy lard suet bone bones"
)
DAIRY: Final = "milk butter cream cheese churn curd whey yoghurt egg eggs honey dairy rind creamery"
LOUD: Final = (
    "loud roar scream shout bang crash blast drill pain nip bite jab sharp shock panic rush hurry "
    "racing crunch wild fierce storm riot rowdy pull grind torque rev screech throttle"
)
# What a brief promises, and words that break it.
PROMISES: Final[Mapping[str, str]] = {
    "vegan": f"{MEAT} {DAIRY}", "vegetarian": MEAT, "plantbased": f"{MEAT} {DAIRY}",
    "calm": LOUD, "gentle": LOUD, "nervous": LOUD, "frightened": LOUD, "quiet": LOUD,
    "anxious": LOUD, "unposed": "pose posed cheese smile stage staged prop props studio",
    "natural": "fake plastic artificial", "waste": "plastic throwaway disposable landfill",
    "sober": "gin beer wine ale rum whisky vodka spirit spirits drunk tipsy cask keg",
    "alcoholfree": "gin beer wine ale rum whisky vodka spirit spirits drunk tipsy cask keg",
    "electric": "petrol diesel exhaust piston clutch sump tappet", "recycled": "new",
    "secondhand": "new brand", "beginners": "expert master pro", "slow": "fast quick rush speed",
}  # fmt: skip
_WITHOUT: Final = re.compile(
    r"\b(?:without|no|not|never|instead of|rather than|free of|free from|leaving|avoid|avoiding)"
    r"\s+(?:any\s+|the\s+)?([a-z]+)|\b([a-z]+)[- ]free\b"
)


def against(about: str) -> frozenset[str]:
    """The words a name for this sentence must not say."""
    text = about.lower()
    found: set[str] = set()
    closed = text.replace("-", "")
    for word in re.findall("[a-z]+", closed):
        found.update(PROMISES.get(word, "").split())
    for match in _WITHOUT.finditer(text):
        word = match.group(1) or match.group(2)
        found.update((word, word.removesuffix("s"), word + "s"))
    return frozenset(found)
