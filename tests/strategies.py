"""Hypothesis strategies shared by all tests."""

from __future__ import annotations

from hypothesis import strategies as st

from vinetag.core.brief import Brief, Chosen, Keyword, Limits
from vinetag.core.lexicon import load_lexicon

COMMON = [w.text for w in load_lexicon().words.values() if w.zipf > 4 and w.pos and len(w.text) > 2]
EXTENSIONS = ("com", "net", "org", "co.uk", "studio", "ie")

labels = st.from_regex(r"[a-z0-9]([a-z0-9-]{0,20}[a-z0-9])?", fullmatch=True).filter(
    lambda t: t[2:4] != "--"
)
words = st.sampled_from(COMMON)
keywords = st.builds(
    Keyword, words=st.lists(words, min_size=1, max_size=2).map(tuple), weight=st.integers(1, 5)
)
limits = st.builds(
    Limits,
    letters_min=st.integers(1, 6),
    letters_max=st.integers(7, 20),
    words=st.integers(1, 4),
    hyphens=st.integers(0, 1),
    digits=st.integers(0, 2),
)
chosen = st.builds(
    Chosen,
    on=st.just(("chess",)) | st.just(()),
    off=st.just(("tea",)) | st.just(()),
    drop=st.lists(words, max_size=3, unique=True).map(tuple),
    weights=st.dictionaries(words, st.integers(1, 5), max_size=3).map(lambda d: tuple(d.items())),
    own=st.just(()) | st.just((("things", ("mug", "jug")), ("pairs", ("mug & jug",)))),
)
briefs = st.builds(
    Brief,
    about=st.sampled_from(
        ["", "An app.", "A pottery studio for beginners.", "Zorbling, no vexmups"]
    ),
    world=chosen,
    name=st.sampled_from(["", "Pressroom", "Alder & Co", "Quiet sky 9"]),
    purpose=st.sampled_from(["brand", "descriptive", "mix"]),
    keywords=st.lists(keywords, min_size=1, max_size=4, unique_by=lambda k: k.text).map(tuple),
    limits=limits,
    extensions=st.lists(st.sampled_from(EXTENSIONS), min_size=1, unique=True).map(tuple),
)
json_values = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats(allow_nan=False) | st.text(max_size=8),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=8), inner),
    max_leaves=8,
)
