"""A finding: one thing to know of a name before it is paid for, with what speaks for it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, Final

from vinetag.core.concepts import FindingName, Weight

__all__ = ["Finding", "Row", "advice_of", "in_words"]

# A row of what speaks for a finding: texts, numbers, yes or no, or nothing.
Row = Mapping[str, Any]


@dataclass(frozen=True, slots=True)
class Finding:
    """`code` and `args` make the sentence; `evidence` are rows of the kind's own columns; `source`
    says who told it.
    """

    kind: FindingName
    weight: Weight
    code: str
    args: Mapping[str, Any] = field(default_factory=dict)
    evidence: Sequence[Row] = ()
    source: str = ""


_WORDS: Final[Mapping[str, str]] = {
    # Marks.
    "mark_same": "“{word}” is registered as a mark of {owner} for {near}.",
    "mark_close": "“{word}”, a mark of {owner} for {near}, {how} {label}.",
    "mark_far": "“{word}”, a mark of {owner} for {near}, {how} {label}; it is not close.",
    "marks_clear": "None of {count} marks is like {label}.",
    "marks_none": "There is no register here to look into: whether a mark is like {label} is not "
    "known.",
    "marks_foreign": "{label} is in letters that marks are not compared in here.",
    # Handles.
    "handle_free": "@{handle} is free on all {count} platforms that tell.",
    "handle_form": "@{label} cannot be had on {taken}; @{handle} is free on all {count} that tell.",
    "handle_most": "No form is free on all platforms; @{handle} is on {free} of {count}.",
    "handle_none": "None of the forms of {label} is free on more than {free} of {count} platforms.",
    "handle_unknown": "Of {count} platforms only {told} told whether @{label} is free.",
    "handle_foreign": "Platforms are not asked about handles in the letters of {label}.",
    # Prior use.
    "use_somebody": "{who} goes by {label} in your field ({where}).",
    "use_elsewhere": "{who} goes by {label}, in another field ({where}).",
    "use_common": "{count} results speak of “{words}”: it will be hard to be found among them.",
    "use_some": "{count} results for {label}; none of the first {first} goes by the name.",
    "use_clear": "A search for {label} finds next to nothing: the name is yours to fill.",
    "use_unknown": "The search service gave no answer: whether somebody goes by {label} is not "
    "known.",
    "use_no_service": "No search service is set up: whether somebody goes by {label} is not known.",
    "corrected": "The search service asks “did you mean {meant}?” of those who look for {label}.",
    "correction_likely": "{share} in 100 correctors would change {label} to {meant}.",
    # Typed by mistake.
    "mistyped_held": "Of 100 people who mean {full_name}, {taken} land with somebody else, most "
    "with {most}.",
    "mistyped_open": "Of 100 people who mean {full_name}, {whole} type something else, most of "
    "them what nobody holds.",
    "mistyped_few": "Of 100 people who mean {full_name}, fewer than one types something else.",
    "mistyped_unknown": "Of 100 people who mean {full_name}, {whole} type something else; with "
    "whom {unknown} of them land is not known.",
    "mistyped_foreign": "What people type who mean {label} is not known for its letters.",
    # Elsewhere in the world.
    "rude_abroad": "“{part}” is an offensive word in {language}.",
    "rude_abroad_inside": "“{part}”, which stands in it, is an offensive word in {language}.",
    "word_abroad": "{label} is a word in {language}, {often}.",
    "part_abroad": "“{part}” in it is a common word in {language}.",
    "friend_abroad": "“{part}” means “{meaning}” in {language}.",
    "abroad_clear": "In none of {count} languages is {label} a word, or an unlucky one.",
    "abroad_foreign": "Other languages were not looked into for the letters of {label}.",
    # Said and written.
    "said_like": "{label} and {other}, both on the shortlist, {how}.",
    "spelt_out": "{letters} of its letters are easily taken for others on the telephone: {which}.",
    "seen_alike": "In capitals “{letters}” can be taken for “{other}”.",
    "said_clear": "It is said in {beats} and spelt in {letters} letters, none of which is easily "
    "taken for another.",
    # What to hold.
    "hold_some": "{count} names for {cost} a year catch {share} in 100 of those who would land "
    "elsewhere.",
    "hold_dear": "What is worth holding costs {cost} a year, more than the budget of {budget}.",
    "hold_none": "Nothing near {full_name} that can be had is typed often enough to be worth its "
    "price.",
    "hold_no_prices": "What it costs to hold names near {full_name} is not known: there are no "
    "prices of sellers yet.",
    "hold_unknown": "Which names near {full_name} can be had is not known yet.",
}  # fmt: skip

_ADVICE: Final[Mapping[str, str]] = {
    "mark_same": "Ask somebody who knows the law of marks before you pay, or choose another.",
    "mark_close": "Have the likeness judged by somebody who knows the law of marks.",
    "mark_far": "Look at what it is registered for.",
    "marks_none": "Ask whoever runs this installation to bring a register, and vet it again.",
    "handle_form": "Take the free form everywhere, so that one handle is told to everybody.",
    "handle_most": "Take what is free now, and see who holds the rest.",
    "handle_none": "Choose a longer form, or another name.",
    "handle_unknown": "Ask again later, or look on the platforms yourself.",
    "handle_free": "Take it on all of them on the day you take the name.",
    "use_somebody": "See what they do before you go on: they may object, and get your mail.",
    "use_elsewhere": "See whether your people would take one for the other.",
    "use_common": "Put the name in quotes wherever it is told, and expect to pay for being found.",
    "use_unknown": "Vet it again later.",
    "corrected": "Expect to say “as it is written” for a while, until searchers know the name.",
    "correction_likely": "Hold the corrected form, too, where it can be had.",
    "mistyped_held": "Hold those that are open, and tell people how it is written.",
    "mistyped_open": "Hold the likeliest: see what to hold.",
    "mistyped_unknown": "Vet it again, or have them looked up.",
    "rude_abroad": "Choose another where these markets matter.",
    "rude_abroad_inside": "Ask somebody who speaks it how it reads.",
    "word_abroad": "Ask somebody who speaks it what it says of you.",
    "friend_abroad": "Ask somebody who speaks it what it says of you.",
    "said_like": "Keep one of the two.",
    "spelt_out": "Spell it with the alphabet below.",
    "seen_alike": "Write it in small letters.",
    "hold_some": "Take them into the plan.",
    "hold_no_prices": "Vet it again once sellers' lists are there.",
    "hold_dear": "Hold fewer: the curve says what each euro catches.",
}


def in_words(finding: Finding) -> str:
    """The sentence of a finding."""
    return _WORDS[finding.code].format(**finding.args)


def advice_of(finding: Finding) -> str:
    """What one could do, "" for nothing."""
    return _ADVICE.get(finding.code, "")
