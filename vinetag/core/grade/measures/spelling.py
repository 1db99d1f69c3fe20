"""spelling: would someone who hears the name write it right?

A first model: it looks at each word (is there another that sounds the same? is it a word people
know? does it have letters nobody hears?) and at the seams between words.
"""

from __future__ import annotations

import itertools
import re
from collections.abc import Mapping
from types import MappingProxyType
from typing import Final

from vinetag.core.grade.judge import Reading
from vinetag.core.grade.scale import Assessment, Finding, assess
from vinetag.core.lexicon import Lexicon

__all__ = ["Spelling"]

UNHEARD: Final = (
    (re.compile(r"^kn|^wr|^gn|^ps|^pn"), "silent", 8.0),
    (re.compile(r"mb$|mn$"), "silent", 6.0),
    (re.compile(r"ough|augh|eigh"), "silent", 9.0),
    (re.compile(r"ph|rh"), "otherwise", 6.0),
    (re.compile(r"ie|ei"), "otherwise", 5.0),
    (re.compile(r"x[cs]|sc(?=[eiy])|xc"), "otherwise", 6.0),
    (re.compile(r"([bdfglmnprtz])\1(?!$)"), "doubled", 3.0),
    (re.compile(r"(?<=[aeiou])(?:our|re)$"), "regional", 4.0),
)


class Spelling:
    """Starts from 100 and takes points for what a hearer could write otherwise."""

    name = "spelling"
    wording: Mapping[str, str] = MappingProxyType(
        {
            "plain": "Written as it sounds: nothing a hearer would likely get wrong.",
            "homophone": "“{word}” sounds like “{other}”, which is {which}.",
            "rare": "“{word}” is a rare word; many have never seen it written.",
            "unknown": "“{word}” is no word people know: its spelling has to be told.",
            "silent": "“{letters}” in “{word}” is not heard as it is written.",
            "otherwise": "“{letters}” in “{word}” could be written otherwise.",
            "doubled": "“{letters}” in “{word}” is heard as one letter.",
            "regional": "“{word}” is spelt in two ways in different countries.",
            "seam_double": "“{letters}” where “{first}” meets “{second}”: one letter may be lost.",
            "seam_vowels": "Vowels meet where “{first}” joins “{second}”: hard to hear apart.",
            "hyphen": "The hyphen is not heard: “{closed}” is what people will type.",
            "digit": "“{digits}” may be written in digits or in words.",
        }
    )

    def __init__(self) -> None:
        self._by_word: dict[tuple[int, str], tuple[Finding, ...]] = {}

    def assess(self, reading: Reading) -> Assessment:
        """Words from the reading; findings within a word are remembered between names."""
        found: list[Finding] = []
        for start, word in reading.words:
            for f in self._word(word, reading.lexicon):
                found.append(f._replace(start=f.start + start, end=f.end + start) if start else f)
        found.extend(_seams(reading))
        label = reading.label
        if "-" in label:
            at = label.index("-")
            closed = label.replace("-", "")
            found.append(Finding("hyphen", -22.0, at, at + 1, {"closed": closed}))
        if not found:
            found.append(Finding("plain", 0.0, 0, len(label), {}))
        return assess(100.0, found)

    def _word(self, word: str, lexicon: Lexicon) -> tuple[Finding, ...]:
        key = (id(lexicon), word)
        if key not in self._by_word:
            if len(self._by_word) > 50_000:
                self._by_word.clear()
            self._by_word[key] = tuple(_word_findings(word, lexicon))
        return self._by_word[key]


def _word_findings(word: str, lexicon: Lexicon) -> list[Finding]:
    end = len(word)
    if not word.isalpha():
        return [Finding("digit", -18.0, 0, end, {"digits": word})]
    found: list[Finding] = []
    known = lexicon.words.get(word)
    if known is None:
        found.append(Finding("unknown", -24.0, 0, end, {"word": word}))
    elif known.zipf < 3.0:
        found.append(Finding("rare", -5.0 * (3.6 - known.zipf), 0, end, {"word": word}))
    others = lexicon.homophones.get(word, ())
    if others and known:
        other = others[0]
        ahead = lexicon.words[other].zipf - known.zipf
        if ahead > -2.2:
            points = -min(26.0, 12.0 + 7.0 * ahead) if ahead > -1 else -4.0
            which = "commoner" if ahead > 0.15 else "about as common" if ahead > -0.6 else "rarer"
            args = {"word": word, "other": other, "which": which}
            found.append(Finding("homophone", min(-3.0, points), 0, end, args))
    for pattern, code, cost in UNHEARD:
        match = pattern.search(word)
        if match:
            args = {"word": word, "letters": match.group()}
            found.append(Finding(code, -cost, match.start(), match.end(), args))
    return found


def _seams(reading: Reading) -> list[Finding]:
    found: list[Finding] = []
    words = reading.words
    for (at, first), (start, second) in itertools.pairwise(words):
        if at + len(first) != start:
            continue
        args = {"first": first, "second": second}
        if first[-1] == second[0]:
            letters = first[-1] + second[0]
            points = -9.0 if second[0] in "aeiou" or first[-2:-1] != first[-1:] else -14.0
            found.append(
                Finding("seam_double", points, start - 1, start + 1, {**args, "letters": letters})
            )
        elif first[-1] in "aiou" and second[0] in "aeiou":
            found.append(Finding("seam_vowels", -6.0, start - 1, start + 1, args))
    return found
