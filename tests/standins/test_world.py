"""The simulated world is believable, and the same for everyone."""

import random
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest

from standins.world import EXTENSIONS, World

NOW = datetime(2026, 11, 25, tzinfo=UTC)
WORLD = World()
ROWS = [line.split("\t") for line in Path("standins/data/words.tsv").read_text().splitlines()]
WORDS = [word for word, zipf in ROWS if int(zipf) >= 40 and 3 <= len(word) <= 7]


def taken(labels: list[str], extension: str = "com") -> float:
    found = [WORLD.registration(label, extension, NOW) is not None for label in labels]
    return sum(found) / len(found)


def pairs(count: int) -> list[str]:
    rng = random.Random(5)
    return [rng.choice(WORDS) + rng.choice(WORDS) for _ in range(count)]


def test_at_least_twelve_extensions() -> None:
    assert len(EXTENSIONS) >= 12


def test_short_and_common_names_go_first() -> None:
    rng = random.Random(6)
    odd = ["".join(rng.choices("bcdfghjklmnpqrstvwxz", k=11)) for _ in range(300)]
    assert taken([w for w in WORDS if len(w) == 4]) > 0.93
    assert 0.35 <= taken(pairs(1500)) <= 0.60
    assert taken(odd) < 0.15


@pytest.mark.parametrize("extension", [e for e in EXTENSIONS if e != "com"])
def test_com_is_the_most_sought_after(extension: str) -> None:
    assert taken(pairs(400), extension) < taken(pairs(400))


def test_who_holds_com_often_holds_the_next_one() -> None:
    in_com = [p for p in pairs(1500) if taken([p])]
    others = [p for p in pairs(1500) if not taken([p])]
    assert taken(in_com, "net") > 1.5 * taken(others, "net")


def test_dates_hang_together() -> None:
    for label in pairs(400):
        found = WORLD.registration(label, "com", NOW)
        leaving = {"auto renew period", "redemption period", "pending delete"}
        if found and leaving.isdisjoint(found.status):
            assert found.created <= found.changed <= NOW < found.expires
            assert found.created.month == found.expires.month
            assert found.holder
            assert found.organisation
            assert found.nameservers


def test_facts_stay_and_time_can_move() -> None:
    label = next(p for p in pairs(100) if taken([p]))
    then, later = NOW, NOW + timedelta(days=800)
    assert World().registration(label, "com", then) == WORLD.registration(label, "com", then)
    renewed = WORLD.registration(label, "com", later)
    assert renewed is not None
    assert renewed.expires > later
    long_ago = datetime(1990, 1, 1, tzinfo=UTC)
    assert WORLD.registration(label, "com", long_ago) is None
    other = [World(9).registration(p, "com", NOW) is None for p in pairs(60)]
    assert other != [WORLD.registration(p, "com", NOW) is None for p in pairs(60)]
