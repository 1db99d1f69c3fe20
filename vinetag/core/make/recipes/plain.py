"""plain: what a descriptive name says: whom or what it is for, and the trade's own word."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.make.draft import Draft
from vinetag.core.make.job import Job
from vinetag.core.make.stems import Stem
from vinetag.core.make.worldly import mark_strength, said
from vinetag.core.world.incidental import says
from vinetag.core.world.world import TOLD

__all__ = ["Plain"]

MOST_HEADS = 60
BASE = 1.3
OF_SHARE = 0.45
OF_BELONGING = 0.8
OF_NEAR = 1.2
DESCRIBES = 0.5
WITH_PLACE = 0.35
ASKED = 0.35
# WordNet's fields of what is done, and of who does it or where: those close a trade's name.
DONE = frozenset(("act", "event", "process", "communication", "cognition"))
DOERS = frozenset(("person", "group"))
# Heads any trade may close its name with, and that are things or places.
HEADS = frozenset("clinic office press shop studio works yard".split())
SAID_TOGETHER = 0.45
# Beings, plants, feelings and what things are made of close no trade's name, unless asked for.
NO_HEADS = frozenset("animal attribute body feeling phenomenon plant quantity substance".split())
SYNONYMS = 0.58
# The head of a field that is not the brief's own, by its share, has to be near to the sentence.
SURE = 0.9
HEAD_NEAR = 0.25


class Plain:
    """A keyword, as one of many, before a head of the trade; a place before either."""

    name = "plain"

    def make(self, job: Job) -> Iterator[Draft]:
        """In the order English has them: the customer or the thing first."""
        world = job.world
        stems = [s for s in job.modifiers if s.kind == "keyword" and says(s.words[-1]) == 1.0]
        stems += [
            Stem((w.text,), "world", "", w.worth, job.pos(w.text))
            for w in world.words.values()
            if w.field == TOLD
        ]
        more = DESCRIBES if job.brief.purpose == "descriptive" else 0.0
        heads = list(_heads(job))
        fronts = [job.singulars.get(s.words[-1], s.words[-1]) for s in stems]
        if stems and heads:
            words = [head for head, _ in heads]
            belong = job.belongings(fronts, words)
            alike = job.lexicon.meanings.rows(fronts) @ job.lexicon.meanings.rows(words).T
            for i, (stem, front) in enumerate(zip(stems, fronts, strict=True)):
                for j, (head, share) in enumerate(heads):
                    job.considered[self.name] += 1
                    together = float(belong[i, j])
                    if alike[i, j] > SYNONYMS or not _go(front, stem.pos, head, together, job):
                        continue
                    said_so = (*stem.words[:-1], front, head)
                    mark = BASE + more + share + OF_BELONGING * together
                    mark += OF_NEAR * max(0.0, world.near(" ".join(said_so)))
                    yield said(said_so, job, mark_strength(mark))
        for place in job.brief.places:
            town = tuple(place.split())
            for word in [s.words for s in stems] + [
                (h,) for h, share in heads if share >= OF_SHARE
            ]:
                job.considered[self.name] += 1
                near = max(0.0, world.near(" ".join(word)))
                yield said((*town, *word), job, mark_strength(BASE + more + WITH_PLACE + near))


def _heads(job: Job) -> Iterator[tuple[str, float]]:
    """(word, points) of the trade's own heads, and of what keywords say is done or who does it."""
    heads = dict[str, float]()
    for word, _, share in job.world.plain()[:MOST_HEADS]:
        if share >= SURE or job.world.near(word) >= HEAD_NEAR:
            heads.setdefault(word, OF_SHARE * share)
    for stem in job.keyword_stems:
        word = stem.words[-1]
        if len(stem.words) == 1 and (job.lexicon.field(word) in DONE or word.endswith("ing")):
            heads[word] = ASKED
            for doer in (d for d, act in job.doers.items() if act == word):
                heads[doer] = ASKED
    return ((word, points) for word, points in heads.items() if word not in job.world.against)


def _go(front: str, pos: str, head: str, together: float, job: Job) -> bool:
    """Whether a trade would be called so: not one word twice; before a thing, no act and no
    adjective; a thing that was asked for is no head, nor an act that was not.
    """
    if job.same(front, head) or front in head or head in front:
        return False
    lemma = job.lexicon.lemma(head)
    field = job.lexicon.field(head)
    acts = field in DONE or field in DOERS
    if pos[:1] != "n" or job.lexicon.field(front) in DONE or front.endswith("ing"):
        return acts and pos[:1] in ("n", "a") and job.standing.get(head, "") != ""
    asked = head in job.standing or lemma in job.standing
    people = field == job.lexicon.field(front) == "person"  # runner joggers
    if not asked and (people or field in NO_HEADS or field in DONE or head.endswith("ing")):
        return False
    done = acts or head.endswith(("ing", "er", "ers")) or head in HEADS
    return done or (not asked and together >= SAID_TOGETHER)
