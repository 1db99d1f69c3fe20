"""The words a great many labels are made of, all at once: a label whole, else as two words, else as
three, the commonest there are. What is none of these has none.
"""

from __future__ import annotations

import csv
from collections.abc import Iterable
from pathlib import Path
from typing import Final

from vinetag.lake.duck import Duck, first_row, literal

__all__ = ["add_splits", "load_words"]

LONGEST_SPLIT: Final = 30
LONGEST_WORD: Final = 16
# Shorter words are found in everything: only the commonest count.
SHORT_WORDS: Final = 500
# Labels are split in so many parts, so that memory stays flat.
LABELS_A_PART: Final = 150_000


def load_words(duck: Duck, words: Iterable[tuple[str, int, int]], folder: Path) -> None:
    """The table `words` of (word, its number, how common it is from 0 to 1000). A file in `folder`
    is the quickest way in.
    """
    file = folder / "words.tsv"
    with file.open("w", encoding="ascii", newline="") as out:
        csv.writer(out, delimiter="\t").writerows(words)
    duck.execute(
        "create or replace table words as select * from read_csv("
        f"{literal(str(file))}, header=false, delim='\t', quote='', auto_detect=false, "
        "columns={'word': 'VARCHAR', 'id': 'INTEGER', 'common': 'INTEGER'})"
    )


def add_splits(duck: Duck, labels: str) -> None:
    """The table `splits` (label, w1, w2, w3: numbers of words) of the labels the query `labels`
    gives as `label`; those without a split are not in it.
    """
    duck.execute(
        "create or replace table to_split as select distinct label, hash(label) as h from "
        f"({labels}) where length(label) <= {LONGEST_SPLIT} and regexp_full_match(label, '[a-z]+')"
    )
    duck.execute("create or replace table splits (label varchar, w1 int, w2 int, w3 int)")
    (count,) = first_row(duck, "select count(*) from to_split")
    parts = -(-count // LABELS_A_PART)
    for part in range(parts):
        duck.execute(
            f"""
        insert into splits with
        those as (select label from to_split where h % {parts} = {part}),
        firsts as (
          select label, words.id as w1, length(word) as k, common
          from those, unnest(range(2, least(length(label), {LONGEST_WORD}) + 1)) u(k)
          join words on word = substr(label, 1, u.k)
          where length(word) > 2 or common > {SHORT_WORDS}
        ),
        whole as (select label, w1 from firsts where k = length(label)),
        two as (
          select label, arg_max(w1, common + other) as w1, arg_max(w2, common + other) as w2
          from (
            select label, w1, words.id as w2, firsts.common, words.common as other
            from firsts join words on word = substr(label, k + 1)
            where length(word) > 2 or words.common > {SHORT_WORDS}
          ) group by label
        ),
        seconds as (
          select label, w1, k, firsts.common, words.id as w2, length(word) as k2,
                 words.common as second
          from firsts anti join two using (label), unnest(range(2, length(label) - k - 1)) u(j)
          join words on word = substr(label, k + 1, u.j)
          where length(word) > 2 or words.common > {SHORT_WORDS}
        ),
        three as (
          select label, arg_max(w1, worth) as w1, arg_max(w2, worth) as w2,
                 arg_max(w3, worth) as w3
          from (
            select label, w1, w2, words.id as w3, seconds.common + second + words.common as worth
            from seconds join words on word = substr(label, k + k2 + 1)
            where length(word) > 2 or words.common > {SHORT_WORDS}
          ) group by label
        )
        select label, w1, null, null from whole
        union all select label, w1, w2, null from two anti join whole using (label)
        union all select label, w1, w2, w3 from three anti join whole using (label)"""
        )
    duck.execute("drop table to_split")
