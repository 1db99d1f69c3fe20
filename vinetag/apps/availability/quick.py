"""Names asked about while somebody waits: one as it is typed, or some at once."""

from __future__ import annotations

import asyncio
import uuid
from collections.abc import Sequence

from vinetag.apps.availability.answer_store import (
    claim_names,
    fresh_answers,
    give_up_names,
    save_answers,
)
from vinetag.apps.availability.lookups import lookup_settings, rule_of
from vinetag.apps.availability.models import Lookup
from vinetag.apps.naming.models import Project
from vinetag.core.checking import Aim
from vinetag.core.checking.pasted import read_typed
from vinetag.core.names import FullName
from vinetag.lookup import Answer, open_engine
from vinetag.lookup.engine import RuleOf

__all__ = ["look_up", "quick_check"]

# Seconds; with the wait after the last key and the way there and back it makes half a second.
DEADLINE = 0.28
BEFORE_BUYING = 4.0


def quick_check(*, project: Project, label: str, aim: Aim = "scan") -> list[Lookup]:
    """What is known, or can be found out at once, of a name under the brief's extensions, and of a
    full name under its own too. What could not be found out in time is left as it was, and is not
    told. Raises LabelError or ExtensionError.
    """
    label, own = read_typed(label)
    extensions = dict.fromkeys([*([own] if own else []), *project.brief["extensions"]])
    names = [FullName(label, e) for e in extensions]
    look_up(project, names, DEADLINE if aim == "scan" else BEFORE_BUYING, aim)
    rows = project.lookups.filter(label=label, extension__in=[n.extension for n in names])
    return list(rows)


def look_up(project: Project, names: Sequence[FullName], seconds: float, aim: Aim = "scan") -> None:
    """Find out about names, in so many seconds, and store the answers. What is fresh is not asked
    again; what somebody else is asking just now is theirs to ask, and comes when they have it.
    """
    ruled = rule_of(project)
    askable = [name for name in names if ruled(name) is None]
    known = fresh_answers(askable, aim, None)
    mine = claim_names([name for name in askable if name not in known], f"quick {uuid.uuid4().hex}")
    # Whoever asked one before may have answered between the look and the claim.
    known |= fresh_answers(mine, aim, None)
    wanted = [n for n in names if (n in mine and n not in known) or n not in askable]
    asked = asyncio.run(_ask(ruled, wanted, aim, seconds)) if wanted else []
    give_up_names(mine)
    found = [a for a in asked if a.trouble != "late"] + list(known.values())
    save_answers(project.pk, found)


async def _ask(ruled: RuleOf, names: Sequence[FullName], aim: Aim, seconds: float) -> list[Answer]:
    async with open_engine(lookup_settings(), ruled) as engine:
        return list(await asyncio.gather(*(engine.ask(name, aim, seconds) for name in names)))
