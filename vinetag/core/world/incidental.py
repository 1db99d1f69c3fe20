"""Words of a brief that say little of what is being named."""

from __future__ import annotations

from typing import Final

__all__ = ["IN_PASSING", "SMALL", "says"]

# The kind of venture, and how it sells: any trade has them.
VENTURE: Final = frozenset(
    """agency app apps blog boutique brand business businesses cafe calculator centre channel
    channels class classes clinic club clubs collective company cooperative course courses
    creator customers delivered delivery directory firm firms forum generator group groups
    guide guides handmade hub kiosk kit kits lesson lessons magazine maker makers market
    newsletter newsletters office online organisation package packages people person platform
    podcast practice product products program programme project provider review reviews school
    service services session sessions shop shops show shows site software staff stall startup
    store stores studio subscription system team teams tool tools training venture video
    videos visitor visitors website weekly workshop workshops""".split()
)
# What could be said of nearly any venture.
INCIDENTAL: Final = frozenset(
    """adult adults affordable any around beginner beginners best better big busy careful cheap city
    clear clever curious daily different easy emergency empty every everyday everyone
    experienced explain explained explains families family fast four fresh friendly full fun
    good great happy help helping helps hire home homes honest independent keen large level
    local long love lover lovers made making many mobile modern monthly more new nice old open
    ordinary own owned owner owners personal place places professional quality quick quickly
    real regular rent rental rented run sell selling sells send sending sends serving simple
    simply small smart sold special three tiny town trip trips trusted two use used using want
    wants week who whose work working year young""".split()
)
# Nouns a sentence has on its way to what it speaks of, unless they are keywords.
IN_PASSING: Final = frozenset(
    """age ages kind kinds lot lots minute minutes number numbers part parts side sides sort sorts
    thing things way ways""".split()
)
SMALL: Final = frozenset(
    """a all am an and are as at back be but by do down for from go goes in into is it its let lets
    me my no nor not of off on one or our out over round so that the their them then there these
    they this to too up us we what when where which while with without you your""".split()
)


def says(word: str) -> float:
    """How much a word of a brief says of what is named, 0 to 1, whatever its rarity."""
    if word in SMALL:
        return 0.05
    if word in VENTURE:
        return 0.1
    return 0.25 if word in INCIDENTAL else 1.0
