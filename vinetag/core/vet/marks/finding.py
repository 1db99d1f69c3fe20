"""What comes of a search for marks."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Final

from vinetag.core.concepts import Weight
from vinetag.core.lexicon.sounds import as_heard
from vinetag.core.names import folded, unicode_label
from vinetag.core.vet.findings import Finding, Row
from vinetag.core.vet.marks.classes import CLASSES
from vinetag.core.vet.marks.forms import FormMaker, phones_in
from vinetag.core.vet.marks.index import Near
from vinetag.core.vet.marks.likeness import same_letters
from vinetag.core.vet.marks.record import Mark

__all__ = ["mark_findings", "marks_foreign"]

STOP, THINK, NOTE = 0.92, 0.8, 0.68
MOST_TOLD: Final = 3
SOURCE: Final = "the register of marks"
HOW: Final[Mapping[str, str]] = {
    "same": "is the same as",
    "same_sound": "sounds the same as",
    "looks": "looks the same as",
    "letters": "is spelt nearly as",
    "sounds": "sounds nearly as",
    "same_words": "says the same as",
    "meaning": "means nearly the same as",
    "contains": "stands within",
    "contained": "shares its main part with",
}
NEAR_WORDS: Final = {
    "same": "the same goods", "near": "related goods", "other": "other goods",
    "unknown": "goods that are not told",
}  # fmt: skip


def mark_findings(
    shown: str, nears: Sequence[Near], marks: Mapping[int, Mark], count: int, forms: FormMaker
) -> list[Finding]:
    """Of the nearest marks, those that weigh, at most MOST_TOLD; all of them are in the evidence of
    the first. `shown` is the name as a person writes it, `count` how many marks there are, `marks`
    holds those found by their numbers; `forms` says how they sound.
    """
    if not count:
        return [Finding("marks", "unknown", "marks_none", {"label": shown}, (), SOURCE)]
    known = [near for near in nears if near.number in marks]
    rows = tuple(_row(shown, near, marks[near.number], forms) for near in known)
    found: list[Finding] = []
    for near in known[:MOST_TOLD]:
        weight = _weight(near)
        if weight == "clear":
            break
        mark = marks[near.number]
        args = {
            "label": shown, "word": mark.word, "owner": mark.owner or "an owner not told",
            "near": NEAR_WORDS[near.nearness], "how": HOW[near.likeness.ways[0]],
        }  # fmt: skip
        same = near.likeness.ways[0] == "same"
        code = "mark_far" if weight == "note" else "mark_same" if same else "mark_close"
        found.append(Finding("marks", weight, code, args, () if found else rows, SOURCE))
    if not found:
        args = {"count": f"{count:,}", "label": shown}
        return [Finding("marks", "clear", "marks_clear", args, rows, SOURCE)]
    return found


def marks_foreign(label: str) -> Finding:
    """Of a label in other letters than a register's."""
    return Finding("marks", "unknown", "marks_foreign", {"label": unicode_label(label)}, (), SOURCE)


def _weight(near: Near) -> Weight:
    if near.weight >= STOP and near.alive:
        return "stop"
    if near.weight >= THINK:
        return "think"
    return "note" if near.weight >= NOTE else "clear"


def _row(shown: str, near: Near, mark: Mark, forms: FormMaker) -> Row:
    """`same` are the letters that stand in both, as places in the mark: from, to, in turn."""
    plain = folded(mark.word)
    made = forms.of_text(mark.word, mark.classes)
    blocks = same_letters(folded(shown), plain) if len(plain) == len(mark.word) else ()
    return {
        "word": mark.word,
        "said": as_heard(phones_in(made.sounds)) if made else "",
        "owner": mark.owner,
        "office": mark.office,
        "number": mark.number,
        "classes": " ".join(map(str, mark.classes)),
        "goods": ", ".join(CLASSES[number].title for number in mark.classes),
        "status": mark.status,
        "registered": mark.registered.isoformat() if mark.registered else None,
        "expires": mark.expires.isoformat() if mark.expires else None,
        "likeness": round(near.likeness.score, 3),
        "how": ", ".join(HOW[way] for way in near.likeness.ways),
        "nearness": near.nearness,
        "same": " ".join(f"{at} {at + size}" for _, at, size in blocks if size > 1),
    }
