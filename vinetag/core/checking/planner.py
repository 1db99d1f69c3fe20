"""Which source to ask next about a full name, and what the answers come to. No I/O here."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime

from vinetag.core.checking.evidence import Evidence, Purpose, Says, Source, Status, Trouble
from vinetag.core.checking.fresh import PRICE_STANDS

__all__ = ["Verdict", "next_step", "standing_quote", "verdict"]

STANDS_AS: Mapping[Says, Status] = {
    "usual": "open",
    "premium": "premium",
    "offered": "offered",
    "reserved": "reserved",
}
OUT: frozenset[Says] = frozenset({"registered", "dropping", "reserved"})


@dataclass(frozen=True, slots=True)
class Verdict:
    """`likely`: no source with authority has said so; `trouble`: why it is unsure."""

    status: Status
    likely: bool = False
    trouble: Trouble = ""


def next_step(
    evidence: Mapping[Source, Evidence], purpose: Purpose, can: Collection[Source]
) -> Source | None:
    """The source to ask next, None when what is known is enough for the purpose.

    `can` are the sources there are for this name. "scan" stops at a delegation and the registry's
    word; "buying" wants the registry's word in any case, and then a seller's.
    """
    if "rules" in evidence:
        return None
    if "dns" in can and "dns" not in evidence:
        return "dns"
    delegated = _says(evidence, "dns") == "delegated"
    if delegated and purpose == "scan":
        return None
    if "rdap" in can and "rdap" not in evidence:
        return "rdap"
    if "quote" not in can or "quote" in evidence:
        return None
    registry = _says(evidence, "rdap")
    if "rdap" not in can:
        return "quote" if purpose == "buying" or not delegated else None
    known = registry in ("registered", "unregistered")
    return "quote" if purpose == "buying" and known else None


def verdict(evidence: Mapping[Source, Evidence], can: Collection[Source]) -> Verdict:
    """What the answers come to. A failed question never makes a name open or taken, and sources
    that contradict each other make it unsure.
    """
    if rules := evidence.get("rules"):
        return Verdict("reserved" if rules.says == "reserved" else "barred")
    dns, registry, seller = (
        _says(evidence, "dns"), _says(evidence, "rdap"), _says(evidence, "quote"),
    )  # fmt: skip
    delegated = dns == "delegated"
    if registry == "unregistered":
        if delegated or seller in ("held", "offered"):
            return Verdict("unsure", trouble="contradiction")
        if seller == "reserved":
            return Verdict("reserved")
        return Verdict("premium" if seller == "premium" else "open")
    if registry in OUT:
        if seller in ("usual", "premium"):
            return Verdict("unsure", trouble="contradiction")
        if registry == "registered":
            return Verdict("offered" if seller == "offered" else "taken")
        return Verdict("dropping" if registry == "dropping" else "reserved")
    if delegated:
        if seller in ("usual", "premium"):
            return Verdict("unsure", trouble="contradiction")
        return Verdict("offered" if seller == "offered" else "taken")
    if "rdap" in can:
        asked = evidence.get("rdap")
        return Verdict("unsure", trouble=asked.trouble if asked else "late")
    return _without_registry(evidence, seller, dns, can)


def _without_registry(
    evidence: Mapping[Source, Evidence], seller: Says, dns: Says, can: Collection[Source]
) -> Verdict:
    """Nobody with authority can be asked: what a seller, and the name servers, hint at."""
    if seller == "reserved":
        return Verdict("reserved", likely=True)
    if seller == "offered":
        return Verdict("offered", likely=True)
    if seller == "held":
        return Verdict("unsure", trouble="no_service")
    if dns == "absent":
        return Verdict("premium" if seller == "premium" else "open", likely=True)
    if "dns" in can and "dns" not in evidence:
        return Verdict("unsure", trouble="late")
    failed = evidence.get("dns")
    return Verdict("unsure", trouble=failed.trouble if failed and failed.trouble else "no_service")


def standing_quote(
    before: Sequence[Evidence], evidence: Sequence[Evidence], at: datetime
) -> Evidence | None:
    """What a seller said before that still holds beside younger `evidence` in which no seller was
    asked: only a seller knows that a name has a price of its own, so the lack of that is no news.
    None when nobody said so, it is outdated, or the younger answers speak against it.
    """
    if any(e.source in ("quote", "rules") for e in evidence):
        return None
    quote = next((e for e in before if e.source == "quote"), None)
    if quote is None or quote.says not in STANDS_AS or at - quote.at > PRICE_STANDS:
        return None
    now: dict[Source, Evidence] = {e.source: e for e in evidence}
    if verdict(now, now.keys()).status == "unsure":
        return quote  # nothing speaks against it, and once the name is found open it will be wanted
    found = verdict({**now, "quote": quote}, now.keys())
    return quote if found.status == STANDS_AS[quote.says] else None


def _says(evidence: Mapping[Source, Evidence], source: Source) -> Says:
    found = evidence.get(source)
    return found.says if found else ""
