"""Which source to ask next about a full name, and what the answers come to. No I/O here."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime

from vinetag.core.checking.evidence import Aim, Evidence, Says, Trouble
from vinetag.core.checking.sources import IN_ORDER, SOURCES, Authority, Source
from vinetag.core.checking.statuses import Status

__all__ = ["Verdict", "next_step", "standing_quote", "verdict"]

STANDS_AS: Mapping[Says, Status] = {
    "usual": "open",
    "premium": "premium",
    "offered": "offered",
    "reserved": "reserved",
}
# What an account says of a name that can be had.
HAD: frozenset[Says] = frozenset({"usual", "premium"})
OUT: frozenset[Says] = frozenset({"registered", "dropping", "reserved"})


@dataclass(frozen=True, slots=True)
class Verdict:
    """`likely`: no source with authority has said so; `trouble`: why it is unsure."""

    status: Status
    likely: bool = False
    trouble: Trouble = ""


def next_step(
    evidence: Mapping[Source, Evidence], aim: Aim, can: Collection[Source]
) -> Source | None:
    """The source to ask next, None when what is known is enough for the aim.

    `can` are the sources there are for this name. "scan" stops at a hint that the name is taken and
    at the registry's word, or that of an account that a name is open; "buying" wants the one or the
    other in any case, and then a seller's.
    """
    if _first(evidence, "rules"):
        return None
    delegated = _says(evidence, "hint") == "delegated"
    if delegated and aim == "scan":
        return None
    if hint := _unasked(evidence, can, "hint"):
        return hint
    if account := _unasked(evidence, can, "account"):
        return account
    if _says(evidence, "account") in HAD and not delegated:
        return None
    registry = _says(evidence, "registry")
    if not registry and (source := _unasked(evidence, can, "registry")):
        return source
    if _there_is(can, "registry"):
        if aim == "scan" or registry not in ("registered", "unregistered"):
            return None
    elif aim == "scan" and delegated:
        return None
    return _unasked(evidence, can, "seller")


def _first(evidence: Mapping[Source, Evidence], authority: Authority) -> Evidence | None:
    """What the cheapest source of an authority said, among those asked."""
    return next((evidence[s] for s in IN_ORDER[authority] if s in evidence), None)


def _says(evidence: Mapping[Source, Evidence], authority: Authority) -> Says:
    """What the sources of an authority say, the cheapest that says something. Of hints one that a
    name is taken goes before one that says nothing against it: that may only be older.
    """
    said = [evidence[s].says for s in IN_ORDER[authority] if s in evidence and evidence[s].says]
    if authority == "hint" and "delegated" in said:
        return "delegated"
    return said[0] if said else ""


def _trouble(evidence: Mapping[Source, Evidence], authority: Authority) -> Trouble:
    """Why the sources of an authority that were asked gave nothing: that of the last."""
    for source in reversed(IN_ORDER[authority]):
        if source in evidence and evidence[source].trouble:
            return evidence[source].trouble
    return ""


def _there_is(can: Collection[Source], authority: Authority) -> bool:
    return any(source in can for source in IN_ORDER[authority])


def _unasked(
    evidence: Mapping[Source, Evidence], can: Collection[Source], authority: Authority
) -> Source | None:
    """The cheapest source of an authority that there is and that was not asked yet."""
    for source in IN_ORDER[authority]:
        if source in can and source not in evidence:
            return source
    return None


def verdict(evidence: Mapping[Source, Evidence], can: Collection[Source]) -> Verdict:
    """What the answers come to. A failed question never makes a name open or taken, and sources
    that contradict each other make it unsure.
    """
    if rules := _first(evidence, "rules"):
        return Verdict("reserved" if rules.says == "reserved" else "barred")
    hint, registry, seller, market = (
        _says(evidence, "hint"), _says(evidence, "registry"), _says(evidence, "seller"),
        _says(evidence, "market"),
    )  # fmt: skip
    offered = "offered" in (seller, market)
    delegated = hint == "delegated"
    account = _says(evidence, "account")
    if account in HAD:
        if delegated or registry in OUT or seller in ("unavailable", "offered"):
            return Verdict("unsure", trouble="contradiction")
        return Verdict("premium" if "premium" in (account, seller) else "open")
    if account == "unavailable" and registry == "unregistered" and seller != "reserved":
        return Verdict("unsure", trouble="contradiction")
    if registry == "unregistered":
        if delegated or seller in ("unavailable", "offered"):
            return Verdict("unsure", trouble="contradiction")
        if seller == "reserved":
            return Verdict("reserved")
        return Verdict("premium" if seller == "premium" else "open")
    if registry in OUT:
        if seller in ("usual", "premium"):
            return Verdict("unsure", trouble="contradiction")
        if registry == "registered":
            return Verdict("offered" if offered else "taken")
        return Verdict("dropping" if registry == "dropping" else "reserved")
    if delegated:
        if seller in ("usual", "premium"):
            return Verdict("unsure", trouble="contradiction")
        if market == "dropping" and not offered:
            return Verdict("dropping", likely=True)
        return Verdict("offered" if offered else "taken")
    if _there_is(can, "registry"):
        asked = _first(evidence, "registry")
        if account == "unavailable":
            # It is registered or held back: which of the two, nobody said.
            return Verdict("taken", likely=True)
        return Verdict("unsure", trouble=_trouble(evidence, "registry") if asked else "late")
    return _without_registry(evidence, seller, hint, can)


def _without_registry(
    evidence: Mapping[Source, Evidence], seller: Says, hint: Says, can: Collection[Source]
) -> Verdict:
    """Nobody with authority can be asked: what a seller, and the name servers, hint at."""
    if _says(evidence, "account") == "unavailable":
        return Verdict("taken", likely=True)
    if seller == "reserved":
        return Verdict("reserved", likely=True)
    if seller == "offered":
        return Verdict("offered", likely=True)
    if seller == "unavailable":
        return Verdict("unsure", trouble="no_service")
    if hint == "absent":
        return Verdict("premium" if seller == "premium" else "open", likely=True)
    if _unasked(evidence, can, "hint"):
        return Verdict("unsure", trouble="late")
    return Verdict("unsure", trouble=_trouble(evidence, "hint") or "no_service")


def standing_quote(
    before: Sequence[Evidence], evidence: Sequence[Evidence], at: datetime
) -> Evidence | None:
    """What a seller said before that still holds beside younger `evidence` in which no seller was
    asked: only a seller knows that a name has a price of its own, so the lack of that is no news.
    None when nobody said so, it is outdated, or the younger answers speak against it.
    """
    if any(SOURCES[e.source].authority in ("seller", "account", "rules") for e in evidence):
        return None
    sold = ("seller", "account")
    quote = next((e for e in before if SOURCES[e.source].authority in sold), None)
    if quote is None or quote.says not in STANDS_AS:
        return None
    stands = SOURCES[quote.source].stands
    if stands is None or at - quote.at > stands:
        return None
    now: dict[Source, Evidence] = {e.source: e for e in evidence}
    if verdict(now, now.keys()).status == "unsure":
        return quote  # nothing speaks against it, and once the name is found open it will be wanted
    found = verdict({**now, quote.source: quote}, now.keys())
    return quote if found.status == STANDS_AS[quote.says] else None
