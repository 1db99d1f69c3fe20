"""The brief's limits, the words to avoid and unlucky readings, applied to drafts."""

from __future__ import annotations

from vinetag.core.brief import Brief
from vinetag.core.grade.measures.clarity import unlucky
from vinetag.core.lexicon import Lexicon
from vinetag.core.make.draft import Draft
from vinetag.core.names import is_ldh_label

__all__ = ["Sieve"]


class Sieve:
    """Tells which drafts may be names: a DNS label, within limits, with no word to avoid."""

    def __init__(self, brief: Brief, lexicon: Lexicon) -> None:
        self._limits = brief.limits
        self._lexicon = lexicon
        self._keywords = {word for k in brief.keywords for word in (*k.words, k.joined)}
        self._avoid = [a.replace(" ", "") for a in brief.avoid]

    def passes(self, draft: Draft) -> bool:
        """Whether the draft is a valid label within every limit of the brief."""
        label, limits = draft.label, self._limits
        hyphens = label.count("-")
        return (
            limits.letters_min <= len(label) - hyphens <= limits.letters_max
            and hyphens <= limits.hyphens
            and sum(1 for p in draft.parts if p.kind != "hyphen") <= limits.words
            and (label.isalpha() or sum(c.isdigit() for c in label) <= limits.digits)
            and is_ldh_label(label)
            and not any(a in label and self._reads(a, draft) for a in self._avoid)
            and not self._unlucky(draft)
        )

    def _unlucky(self, draft: Draft) -> bool:
        label = draft.label
        words = {p.text for p in draft.parts}
        if not self._lexicon.rude_inside(label) and not words & self._lexicon.unlucky_words:
            return False
        # A keyword somebody gave is what they want to read, whatever others think of it.
        parts = [(p.start, p.text) for p in draft.parts if p.text not in self._keywords]
        return unlucky(label, parts, self._lexicon) is not None

    def _reads(self, avoided: str, draft: Draft) -> bool:
        """Whether the avoided word is read in the label: as a part, as a form of one, or across a
        seam. Letters wholly inside another word (art in heart) do not count.
        """
        for part in draft.parts:
            known = self._lexicon.words.get(part.text)
            if avoided in (part.text, known.lemma if known else ""):
                return True
            rest = part.text.removeprefix(avoided)
            rest = rest if rest != part.text else part.text.removesuffix(avoided)
            if rest != part.text and len(rest) >= 3 and rest in self._lexicon.words:
                return True  # a compound of it: houseplants
        at = draft.label.find(avoided)
        while at >= 0:
            end = at + len(avoided)
            inside = [p for p in draft.parts if p.start <= at and end <= p.start + len(p.text)]
            if not inside or (inside[0].change and inside[0].text not in self._lexicon.words):
                return True
            at = draft.label.find(avoided, at + 1)
        return False
