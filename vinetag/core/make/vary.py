"""Near names of a name that keep its idea."""

from __future__ import annotations

from collections.abc import Container, Iterator, Sequence
from dataclasses import replace
from itertools import islice

from vinetag.core.brief import Brief, Keyword
from vinetag.core.candidates import Part
from vinetag.core.grade import MEASURES, Grader
from vinetag.core.lexicon import Lexicon
from vinetag.core.lexicon.segment import segment
from vinetag.core.make import worldly
from vinetag.core.make.draft import Draft, Recipe, hyphened, joined
from vinetag.core.make.graded import Graded
from vinetag.core.make.job import Job
from vinetag.core.make.listing import merge
from vinetag.core.make.recipes.affix import Affix
from vinetag.core.make.recipes.blend import Blend
from vinetag.core.make.recipes.clip import Clip
from vinetag.core.make.recipes.form import Form
from vinetag.core.make.recipes.respell import Respell
from vinetag.core.make.sieve import Sieve
from vinetag.core.make.stems import Stem
from vinetag.core.make.variety import diversify
from vinetag.core.world.incidental import SMALL

__all__ = ["one_word_more", "vary", "words_in"]

MOST_KIN = 24
MOST_OF_WORLD = 400
MOST_SAID = 24
NEAR_IN_MEANING = 0.3
KEEP = 60
NEAR = 40.0
CHANGES: Sequence[Recipe] = (Form(), Affix(), Respell(), Clip())
MOST_CHANGES = 14
SELDOM_READ = 2.8
MOST_USUAL = 7.0
LONGEST_OVERLAP = 4
A_BIT = 1.5


def vary(label: str, brief: Brief, lexicon: Lexicon, *, limit: int = 120) -> list[Graded]:
    """Names near `label` (any label, made or typed), the best first, at most `limit`.

    One part swapped for words it leads to, other leads and tails, the order turned, a part respelt,
    with an affix or in another form, the parts blended, hyphenated when the brief allows it. Names
    that keep more of the letters are nearer, and rank higher at the same grade; what was already
    shown, a word or a way to vary, is set back. The label itself is not among them. Near names may
    be three letters longer than it, whatever the brief's limit.
    """
    words = words_in(label, brief, lexicon)
    of = _around(words, label, brief)
    job, sieve = Job(of, lexicon), Sieve(of, lexicon)
    whole = "".join(words) == label.replace("-", "")
    drafts = [(way, d) for way, d in _near(job, words, whole) if sieve.passes(d)]
    grader = Grader(brief, lexicon, MEASURES)
    found = []
    for candidate in merge(drafts):
        if candidate.label != label:
            # What it carries is judged by the brief's own keywords, found in its letters.
            grade = grader.grade(grader.read_label(candidate.label))
            kept = sum(len(p.text) for p in candidate.parts if p.kind == "keyword")
            near = kept / max(len(candidate.label), len(label))
            rank = grade.grade + NEAR * near + 20 * candidate.strength
            found.append(Graded(candidate, grade, rank))
    found.sort(key=lambda g: (-round(g.rank, 2), g.candidate.label))
    return diversify(found, limit, brief, lexicon, spared=words)


def one_word_more(label: str, brief: Brief, lexicon: Lexicon, *, limit: int = 6) -> list[str]:
    """Labels that are `label` with one word before or behind it, the best first."""
    near = vary(label, brief, lexicon, limit=2_000)
    longer = (g.candidate.label for g in near if len(g.candidate.label) > len(label) + 1)
    more = [name for name in longer if name.startswith(label) or name.endswith(label)]
    return more[:limit]


def words_in(label: str, brief: Brief, lexicon: Lexicon) -> list[str]:
    """The words a label is made of, the brief's keywords whole, at most four; letters that are no
    word beside another are read as two words overlapped, when they can be.
    """
    given = {k.joined for k in brief.keywords}
    words: list[str] = []
    for piece in label.split("-"):
        read = segment(piece, lexicon, given)
        seldom = min((_usual(w, given, lexicon) for w in read), default=MOST_USUAL)
        if seldom < MOST_USUAL:
            read = _overlapped(piece, given, seldom + 1.0, lexicon) or read
        words += read
    return [w for w in words if w.isascii() and w.isalpha()][:4]


def _usual(word: str, given: Container[str], lexicon: Lexicon) -> float:
    """How readily a word is read (its Zipf value), most of all one asked for, less a short one."""
    known = lexicon.words.get(word)
    if word in given:
        return MOST_USUAL
    return (known.zipf if known and known.pos else 0.0) - (A_BIT if len(word) <= 3 else 0.0)


def _overlapped(label: str, given: Container[str], least: float, lexicon: Lexicon) -> list[str]:
    """The two words that share letters in the middle of the label and are read most readily, each
    as readily as `least`; [] when none do.
    """
    best: tuple[float, list[str]] = (0.0, [])
    for start in range(2, len(label) - 2):
        for end in range(start + 1, min(start + LONGEST_OVERLAP, len(label) - 1) + 1):
            pair = [label[:end], label[start:]]
            usual = [_usual(word, given, lexicon) for word in pair]
            whole = sum(usual) + 0.2 * (end - start)
            if min(usual) >= max(least, SELDOM_READ) and whole > best[0]:
                best = (whole, pair)
    return best[1]


def _around(words: Sequence[str], label: str, brief: Brief) -> Brief:
    """A brief whose keywords are the name's own words."""
    keywords = tuple(Keyword((word,), 5) for word in dict.fromkeys(words))
    limits = replace(
        brief.limits,
        letters_min=min(brief.limits.letters_min, max(3, len(label) - 4)),
        letters_max=max(brief.limits.letters_max, min(60, len(label) + 3)),
        words=max(brief.limits.words, min(5, len(words) + 1)),
    )
    return replace(brief, name="", keywords=keywords, limits=limits)


Way = tuple[str, Draft]


def _near(job: Job, words: Sequence[str], whole: bool) -> Iterator[Way]:
    """Drafts, each with the way it was come by; words are added to the `whole` name only where its
    words stand in it side by side.
    """
    stems = {s.text: s for s in job.keyword_stems}
    kin: dict[str, list[Stem]] = {}
    for stem in job.stems:
        if stem.kind == "kin":
            kin.setdefault(stem.keyword, []).append(stem)
    own = [stems[word] for word in words]
    for i, stem in enumerate(own):
        before, after = own[:i], own[i + 1 :]
        for draft in _swapped(job, before, after, kin.get(stem.keyword, [])[:MOST_KIN]):
            yield "swapped", draft
        yield from _altered(job, before, stem, after)
    yield from _of_world(job, words)
    if own:
        yield from _added(job, own, whole)
    if len(own) > 1:
        yield "turned", joined(own[::-1], 0.6)
        yield "turned", joined((*own[1:], own[0]), 0.5)
        # Of the name's own words: one with a word of the bank would lose the other.
        for draft in Blend().make(_only(job, own)):
            if all(part.keyword for part in draft.parts):
                yield "blend", draft
        if job.brief.limits.hyphens:
            yield "hyphen", hyphened(own[:1], own[1:], 0.8)


def _of_world(job: Job, words: Sequence[str]) -> Iterator[Way]:
    """Sayings, couples and calls of the brief's world with one of the words; and each word beside
    others swapped for those of the world nearest to it in meaning.
    """
    said = set(words) - SMALL
    holding = (e for e in job.world.entries.values() if said.intersection(e.words))
    for entry in islice(holding, MOST_SAID):
        way = {"phrases": "saying", "pairs": "couple", "does": "call"}[entry.facet]
        yield way, worldly.said(entry.words, job, worldly.mark_strength(entry.mark))
    texts = [t for t in job.world.words if " " not in t and t not in said][:MOST_OF_WORLD]
    if len(words) < 2 or not texts:
        return
    near = job.lexicon.meanings.rows(texts) @ job.lexicon.meanings.rows(words).T
    for place, word in enumerate(words):
        if word in SMALL:
            continue
        for at in near[:, place].argsort()[::-1][:MOST_KIN].tolist():
            if near[at, place] >= NEAR_IN_MEANING:
                swapped = [*words[:place], texts[at], *words[place + 1 :]]
                yield "world", worldly.said(swapped, job, float(near[at, place]))


def _only(job: Job, stems: Sequence[Stem]) -> Job:
    """A job of these keywords' stems without the words they lead to."""
    keywords = tuple(Keyword(stem.words, 5) for stem in stems)
    only = Job(replace(job.brief, keywords=keywords), job.lexicon)
    only.stems = list(stems)
    return only


def _swapped(
    job: Job, before: Sequence[Stem], after: Sequence[Stem], kin: Sequence[Stem]
) -> Iterator[Draft]:
    """The part at its place gives way to words it leads to."""
    for other in kin:
        strength = 0.4 + 0.4 * other.worth
        if after:
            strength *= 0.5 + 0.5 * job.belonging(other.text, after[0].text)
        elif before:
            strength *= 0.5 + 0.5 * job.belonging(before[-1].text, other.text)
        yield joined((*before, other, *after), strength)


def _altered(job: Job, before: Sequence[Stem], stem: Stem, after: Sequence[Stem]) -> Iterator[Way]:
    """The part in another form, with an affix, respelt or cut; the others stay."""
    alone = _only(job, [stem])
    front, back = joined(before, 0.0), joined(after, 0.0)
    for recipe in CHANGES:
        of_part = (d for d in recipe.make(alone) if any(p.keyword for p in d.parts))
        for draft in islice(of_part, MOST_CHANGES):
            shift = len(front.label)
            after_at = shift + len(draft.label)
            parts = (
                *front.parts,
                *(p._replace(start=p.start + shift) for p in draft.parts),
                *(Part(p.text, p.kind, p.keyword, p.start + after_at) for p in back.parts),
            )
            label = front.label + draft.label + back.label
            yield recipe.name, Draft(label, parts, 0.7 * draft.strength)


def _added(job: Job, own: Sequence[Stem], around: bool) -> Iterator[Way]:
    """Other leads and tails: in place of the first or last part, and around the whole."""
    whole = Stem(
        tuple(w for s in own for w in s.words), "keyword", own[0].keyword, 1.0, own[-1].pos
    )
    heads, tails = job.bank("lead"), job.bank("tail")
    for kept in {id(s): s for s in (own[0], whole)[: 1 + around]}.values():
        for first, second, strength in job.joints("vary", [kept], tails, KEEP):
            if second.text not in kept.words:
                way = "longer" if kept is whole else "tail"
                yield way, joined((first, second), 0.9 * strength)
    for kept in {id(s): s for s in (own[-1], whole)[: 1 + around]}.values():
        for first, second, strength in job.joints("vary", heads, [kept], KEEP):
            if first.text not in kept.words:
                way = "longer" if kept is whole else "lead"
                worth = min(1.0, 0.4 + first.worth)
                yield way, joined((first, second), 0.8 * strength * worth)
