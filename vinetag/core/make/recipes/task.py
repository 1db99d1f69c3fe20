"""task: what is done and to what, as a customer would say it: tune my piano, roofs inspected."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence

import numpy as np

from vinetag.core.candidates import Part
from vinetag.core.concepts import Change
from vinetag.core.make.draft import Draft
from vinetag.core.make.job import Job
from vinetag.core.make.told import DOERS, Told, describes, told, verbs_of
from vinetag.core.make.worldly import mark_strength, said
from vinetag.core.world.incidental import says

__all__ = ["Task"]

BASE = 1.9
OF_NEAR = 1.6
# What the sentence says is done to a thing; how well keywords have to go together, unless the thing
# is one that can be touched, and nothing else that is done goes with it so much better (a piano is
# tuned, not baked).
SAID = 0.5
ENOUGH = 0.45
BESIDE = 0.5
CONCRETE = frozenset("animal artifact body food object plant substance".split())
DESCRIBES = 0.4
# What one may call one's own and have done; people are no things.
NO_THINGS = frozenset(("person", "act", "event", "time", "location", "quantity", "cognition"))
# One of a thing is said where the brief says one, or it is so much more usual (Zipf) than many: my
# piano, my windows.
MORE_USUAL = 0.55


class Task:
    """Verbs of the brief with the things they are done to, as an order and as done."""

    name = "task"

    def make(self, job: Job) -> Iterator[Draft]:
        """Those the sentence tells first, then keywords that go together."""
        sure = {t: SAID for t in told(job.brief.about, job.lexicon) if _a_thing(t.thing, job)}
        found = {**dict(_asked(job)), **sure}
        stands = dict(_standing(job))
        for task, share in sorted(found.items(), key=lambda item: -item[1]):
            for words in _forms(task, job):
                job.considered[self.name] += 1
                near = max(0.0, job.world.near(" ".join(words)))
                more = DESCRIBES if job.brief.purpose == "descriptive" else 0.0
                draft = said(words, job, mark_strength(BASE + more + share + OF_NEAR * near))
                yield draft._replace(parts=tuple(_named(p, stands) for p in draft.parts))


def _asked(job: Job) -> Iterator[tuple[Told, float]]:
    """What keywords say is done, to things that other keywords name: those that can be touched, and
    others where the two are known to go together.
    """
    verbs = {
        verb: s.words[-1]
        for s in job.keyword_stems
        if says(s.words[-1]) == 1.0
        for verb in verbs_of(s.words[-1], job.lexicon)
    }
    things = [s.words[-1] for s in job.keyword_stems if len(s.words) == 1]
    things = [t for t in dict.fromkeys(things) if says(t) == 1.0 and _a_thing(t, job)]
    if not verbs or not things:
        return
    acts = list(verbs)
    asked = [verbs[act] for act in acts]
    both = [job.belongings(things, asked).T, job.belongings(acts, things)]
    together = np.maximum.reduce([*both, job.belongings(asked, things)])
    best = together.max(axis=0)
    for (j, i), share in np.ndenumerate(together):
        act, thing = asked[j], things[i]
        touched = job.lexicon.field(thing) in CONCRETE and share >= BESIDE * best[i]
        one_word = job.same(act, thing) or describes(act, thing, job.lexicon)
        if (touched or share >= ENOUGH) and not one_word:
            yield Told(acts[j], thing), SAID * float(share)


def _standing(job: Job) -> Iterator[tuple[str, str]]:
    """The verbs of keywords and what they are when done, and of which."""
    for stem in job.keyword_stems:
        for verb in verbs_of(stem.words[-1], job.lexicon):
            yield verb, stem.keyword
            yield from ((form, stem.keyword) for form in [_participle(verb, job)] if form)


def _participle(verb: str, job: Job) -> str:
    forms = dict(reversed(job.lexicon.thesaurus.forms(verb)))
    return forms.get("participle", forms.get("past", ""))


def _a_thing(word: str, job: Job) -> bool:
    known = job.lexicon.words.get(word)
    if known is None or known.pos[:1] != "n" or job.lexicon.field(word) in NO_THINGS:
        return False
    return not (word.endswith(DOERS) and verbs_of(word, job.lexicon))


def _forms(task: Told, job: Job) -> Iterator[Sequence[str]]:
    """“tune my piano”, “tune your piano”, “pianos tuned”."""
    verb, thing = task
    words = job.lexicon.words
    one = job.lexicon.lemma(thing)
    many = dict(job.lexicon.thesaurus.forms(one)).get("plural", "")
    counted = one in words and many in words
    asked = thing == one or any(s.words[-1] == one for s in job.keyword_stems)
    single = not counted or asked or words[one].zipf > words[many].zipf + MORE_USUAL
    shown = one if single else many
    yield verb, "my", shown
    yield verb, "your", shown
    participle = _participle(verb, job)
    if participle and participle != verb:
        yield many if counted else one, participle


def _named(part: Part, stands: Mapping[str, str]) -> Part:
    """A form of a keyword as such."""
    keyword = stands.get(part.text) if part.kind == "world" else None
    if not keyword:
        return part
    change = Change("some_form", {"word": keyword})
    return part._replace(kind="form", keyword=keyword, change=change)
