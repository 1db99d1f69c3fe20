"""Handles: the forms people fall back to, what a platform's answer says, and what comes of all."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Final, Literal, NamedTuple

from vinetag.core.names import unicode_label
from vinetag.core.vet.findings import Finding
from vinetag.core.vet.platforms import Platform

__all__ = [
    "Asked",
    "HandleForm",
    "HandleSays",
    "handle_finding",
    "handle_forms",
    "handles_foreign",
    "profile_says",
]

# "" is an answer that tells nothing.
HandleSays = Literal["", "free", "taken", "barred"]
FormKind = Literal["same", "front", "tail", "office", "underscore"]
MOST_LISTED: Final = 4
# Under so much of what could be asked, nothing is said of the rest.
ENOUGH: Final = 0.5
GONE: Final = frozenset({404, 410})
SOURCE: Final = "the platforms"


class HandleForm(NamedTuple):
    """A handle and how it comes from the name."""

    handle: str
    kind: FormKind


class Asked(NamedTuple):
    """What is known of one handle on one platform; `why` says why not, or why it is not known."""

    platform: str
    name: str
    handle: str
    says: HandleSays
    why: str = ""
    address: str = ""
    asked_at: str = ""


def handle_forms(label: str, words: Sequence[str], tail: str = "app") -> list[HandleForm]:
    """The handle as the name is, and what people take when that is gone, in the order they would:
    the name with a tail, with `hq`, with `the`, with an underscore between words.
    """
    plain = label.replace("-", "")
    found = [
        HandleForm(plain, "same"),
        HandleForm(plain + tail, "tail"),
        HandleForm(plain + "hq", "office"),
        HandleForm("the" + plain, "front"),
    ]
    joined = "_".join(word for word in words if word)
    if "_" in joined and joined.replace("_", "") == plain:
        found.append(HandleForm(joined, "underscore"))
    return list({form.handle: form for form in found}.values())


def handles_foreign(label: str) -> Finding:
    """Of a label in letters no platform here takes."""
    args = {"label": unicode_label(label)}
    return Finding("handles", "unknown", "handle_foreign", args, (), SOURCE)


def profile_says(platform: Platform, status: int, text: str) -> tuple[HandleSays, str]:
    """What an answer says of a handle, and why where it says nothing. `text`: the page's."""
    if status in GONE:
        return ("", "the platform does not tell") if platform.absence == "none" else ("free", "")
    if status != 200:
        return "", f"it answered with status {status}"
    if platform.absence == "none":
        return "", "the platform does not tell"
    if platform.absence == "text" and platform.absent.lower() in text.lower():
        return "free", ""
    return "taken", ""


def handle_finding(forms: Sequence[HandleForm], asked: Sequence[Asked]) -> Finding:
    """What comes of all that was asked about one name's forms, the first of which is the name."""
    own = forms[0].handle
    by_form = {form.handle: [one for one in asked if one.handle == form.handle] for form in forms}
    rows = tuple(_rows(forms, asked))
    told = {handle: _told(found) for handle, found in by_form.items()}
    platforms = len({one.platform for one in asked if one.why != "the platform does not tell"})
    if not platforms or len(told[own]) < platforms * ENOUGH:
        args = {"label": own, "count": platforms, "told": len(told[own])}
        return Finding("handles", "unknown", "handle_unknown", args, rows, SOURCE)
    free = {handle: sum(one.says == "free" for one in found) for handle, found in told.items()}
    best = max(forms, key=lambda form: (free[form.handle], -forms.index(form))).handle
    everywhere = [
        form.handle
        for form in forms
        if told[form.handle] and free[form.handle] == len(told[form.handle])
        and len(told[form.handle]) >= platforms * ENOUGH
    ]  # fmt: skip
    count = len(told[best])
    if own in everywhere:
        args = {"handle": own, "count": len(told[own])}
        return Finding("handles", "clear", "handle_free", args, rows, SOURCE)
    taken = [one.name for one in told[own] if one.says != "free"]
    if everywhere:
        args = {
            "label": own,
            "taken": _listed(taken),
            "handle": everywhere[0],
            "count": len(told[everywhere[0]]),
        }
        return Finding("handles", "note", "handle_form", args, rows, SOURCE)
    args = {"label": own, "handle": best, "free": free[best], "count": count}
    enough = free[best] >= count * ENOUGH
    code = "handle_most" if enough else "handle_none"
    return Finding("handles", "think", code, args, rows, SOURCE)


def _told(asked: Sequence[Asked]) -> list[Asked]:
    return [one for one in asked if one.says]


def _rows(
    forms: Sequence[HandleForm], asked: Sequence[Asked]
) -> Iterator[Mapping[str, str | None]]:
    """A platform after the other, what is known of each form on it."""
    kinds = {form.handle: form.kind for form in forms}
    for one in asked:
        yield {
            "platform": one.name,
            "handle": one.handle,
            "form": kinds.get(one.handle, "same"),
            "says": one.says or "unknown",
            "why": one.why,
            "address": one.address,
            "asked_at": one.asked_at,
        }


def _listed(names: Sequence[str]) -> str:
    if len(names) > MOST_LISTED:
        return f"{', '.join(names[: MOST_LISTED - 1])} and {len(names) - MOST_LISTED + 1} others"
    return ", ".join(names)
