"""Prior use: what a search finds for a name, and whether it is somebody's."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Final

from vinetag.core.concepts import Weight
from vinetag.core.grade import Reading
from vinetag.core.names import folded
from vinetag.core.vet.autocorrect import correction
from vinetag.core.vet.findings import Finding, Row
from vinetag.core.vet.opensearch import Result, Results

if TYPE_CHECKING:
    from vinetag.core.world.world import World

__all__ = ["SearchAnswer", "prior_findings", "searches"]

FIRST: Final = 10
# From so many results on a name is one among many; up to so many it is hardly anywhere.
MANY, FEW = 200_000, 40
# Nearness of a result to the brief's world from which it is of the same field.
SAME_FIELD: Final = 0.28
RISK_TOLD, RISK_THINK = 0.25, 0.6
SOURCE: Final = "the search service"


@dataclass(frozen=True, slots=True)
class SearchAnswer:
    """A question and what came; `trouble` in words where nothing did."""

    asked: str
    results: Results | None
    trouble: str = ""


def searches(reading: Reading, field_word: str) -> list[str]:
    """What is asked: the name closed up, as words, and with a word of its field."""
    words = " ".join(word for _, word in reading.words if word)
    plain = reading.shown.replace("-", "")
    asked = [plain, words if words.replace(" ", "") == plain else "", f"{plain} {field_word}"]
    return list(dict.fromkeys(text.strip() for text in asked if text.strip()))


def prior_findings(
    reading: Reading, world: World | None, answers: Sequence[SearchAnswer], *, service: bool = True
) -> list[Finding]:
    """What comes of the answers; what our own model says of correctors is told in any case."""
    label = reading.shown
    found = _from_search(reading, world, answers, service=service)
    likely = correction(label.replace("-", ""), reading.lexicon)
    if likely.meant and likely.risk >= RISK_TOLD:
        args = {"share": round(100 * likely.risk), "label": label, "meant": likely.meant}
        weight: Weight = "think" if likely.risk >= RISK_THINK else "note"
        row: Row = {"asked": label, "title": likely.meant, "says": "correction by our model",
               "share": round(likely.risk, 3)}  # fmt: skip
        found.append(
            Finding("prior_use", weight, "correction_likely", args, (row,), "our own model")
        )
    return found


def _from_search(
    reading: Reading, world: World | None, answers: Sequence[SearchAnswer], *, service: bool
) -> list[Finding]:
    label = reading.shown
    given = [answer for answer in answers if answer.results is not None]
    if not given:
        code = "use_unknown" if service else "use_no_service"
        silent: tuple[Row, ...] = tuple(
            {"asked": a.asked, "says": "no answer", "why": a.trouble} for a in answers
        )
        return [Finding("prior_use", "unknown", code, {"label": label}, silent, SOURCE)]
    listed: list[Row] = []
    somebody: list[tuple[str, str, float | None]] = []
    for answer in given:
        first = answer.results.first[:FIRST] if answer.results else ()
        for place, result in enumerate(first, 1):
            same = _nearness(result, world)
            own = _is_of(result, reading.label)
            listed.append(_row(answer, place, result, same, own=own))
            if own and result.host not in {host for _, host, _ in somebody}:
                somebody.append((_who(result)[:60], result.host or "an unnamed place", same))
    found = [_use(reading, answers, given, somebody, tuple(listed))]
    meant = next((a.results.correction for a in given if a.results and a.results.correction), "")
    if meant and meant.replace(" ", "") not in (label, label.replace("-", "")):
        args = {"meant": meant, "label": label}
        found.append(Finding("prior_use", "think", "corrected", args, (), SOURCE))
    return found


def _use(
    reading: Reading,
    answers: Sequence[SearchAnswer],
    given: Sequence[SearchAnswer],
    somebody: Sequence[tuple[str, str, float | None]],
    rows: tuple[Row, ...],
) -> Finding:
    label = reading.shown
    closed = given[0].results.count if given[0].results else 0
    if somebody:
        who, where, near = max(somebody, key=lambda one: one[2] or 0.0)
        same = near is None or near >= SAME_FIELD
        args = {"who": who, "label": label, "where": where}
        code, weight = ("use_somebody", "stop") if same else ("use_elsewhere", "think")
        return Finding("prior_use", weight, code, args, rows, SOURCE)  # type: ignore[arg-type]
    if len(given) < len(answers) and answers[0].results is None:
        return Finding("prior_use", "unknown", "use_unknown", {"label": label}, rows, SOURCE)
    if closed >= MANY:
        args = {"count": f"{closed:,}", "words": given[0].asked}
        return Finding("prior_use", "note", "use_common", args, rows, SOURCE)
    if closed > FEW:
        some = {"count": f"{closed:,}", "label": label, "first": min(FIRST, closed)}
        return Finding("prior_use", "note", "use_some", some, rows, SOURCE)
    return Finding("prior_use", "clear", "use_clear", {"label": label}, rows, SOURCE)


def _row(answer: SearchAnswer, place: int, result: Result, near: float | None, *, own: bool) -> Row:
    field = "unknown" if near is None else "yours" if near >= SAME_FIELD else "another"
    return {
        "asked": answer.asked, "place": place, "title": result.title, "where": result.host,
        "summary": result.summary[:200], "says": "goes by the name" if own else "speaks of it",
        "field": field, "results": answer.results.count if answer.results else None,
    }  # fmt: skip


def _plain(text: str) -> str:
    return "".join(c for c in folded(text) if c.isascii() and c.isalnum())


def _is_of(result: Result, label: str) -> bool:
    """Whether a result is somebody's who goes by the name: its place has the name, or its title
    begins with it.
    """
    own = label.replace("-", "")
    host = result.host.split(".")
    if any(part.replace("-", "") == own for part in host[:-1]):
        return True
    return _plain(_who(result)) == own


def _who(result: Result) -> str:
    """Who speaks, by the beginning of a title."""
    title = result.title
    for mark in (":", "|", " – ", " — ", " - ", ","):
        title = title.split(mark)[0]
    return title.strip() or result.title


def _nearness(result: Result, world: World | None) -> float | None:
    """How near it is to the brief's world, None where that is not known."""
    if world is None or not (result.title or result.summary):
        return None
    text = folded(f"{result.title} {result.summary}")
    words = "".join(c if c.isascii() and c.isalpha() else " " for c in text).split()
    near = sorted((world.near(word) for word in dict.fromkeys(words)), reverse=True)[:5]
    return sum(near) / len(near) if near else None
