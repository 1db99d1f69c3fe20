"""Figures nobody measured, so that the demo's piano tuner has phrases to look at."""

from __future__ import annotations

import hashlib
import io
import math
from typing import Final

from vinetag.apps.accounts.models import User
from vinetag.apps.naming.models import Project
from vinetag.apps.phrases.about import About
from vinetag.apps.phrases.bringing import read_waiting, take_file
from vinetag.apps.phrases.choosing import choose

__all__ = ["load_figures"]

SOURCE: Final = "Saltley Almanac"
# A subject with its searches a month, the month it is looked for most (0 for none), and what is
# looked for with it at which share.
SUBJECTS: Final = (
    ("piano", 27100, 12, "pianos:.1"),
    ("piano tuning", 1900, 9, "piano tuner:.9 tuning piano:1 piano tuners:.5 piano-tuning:.02"),
    ("piano tuning near me", 720, 9, "piano tuner near me:.9 piano tuners near me:.3"),
    ("piano tuning cost", 480, 0, "cost of piano tuning:.4 how much does piano tuning cost:.6"),
    ("how often should a piano be tuned", 260, 0, "tune a piano:.8 how to tune a piano:1.4"),
    ("piano tuning galway", 170, 0, "piano tuner cork:1.2 piano tuner dublin:2.4"),
    ("pitch raise piano", 50, 0, "piano out of tune:2 tuning an old piano:.8"),
    ("piano repair", 590, 0, "piano repairs:.6 repair piano:.3 piano restoration:.7"),
    ("sticking piano keys", 140, 0, "piano key replacement:.8 ivory piano keys:1.6"),
    ("broken piano string", 90, 0, "piano string replacement:1.1 piano pedal repair:.5"),
    ("piano lessons", 5400, 9, "piano lesson:.2 piano teacher:.4 piano lessons for beginners:.2"),
    ("learn piano online", 880, 1, "piano lessons online:.7 learn piano as an adult:.3"),
    ("piano lessons for children", 320, 9, "piano classes for kids:.8 piano grade exams:1.5"),
    ("piano movers", 390, 6, "moving a piano:.5 piano removal:.6 piano transport:.3"),
    ("piano storage", 40, 0, "how to move a piano upstairs:.9 piano dolly:1.5"),
    ("second hand piano", 720, 12, "used pianos for sale:1.1 secondhand piano:.3 piano for sale:2"),
    ("upright piano", 2400, 12, "upright pianos:.3 grand piano:2.2 baby grand piano:1.1"),
    ("piano valuation", 110, 0, "how much is my piano worth:.9 old piano worth:.4"),
    ("digital piano", 3600, 12, "best digital piano:.5 digital pianos:.3 weighted keyboard:.4"),
    ("piano stool", 1000, 12, "piano bench:.6 piano stools:.2 piano lamp:.4"),
    ("piano humidity", 70, 12, "piano dehumidifier:.8 piano cracked soundboard:.6"),
    ("piano sheet music", 4400, 12, "easy piano songs:1.3 piano chords:1.1 piano notes:.9"),
)  # fmt: skip
CHOSEN: Final = (
    "piano tuning", "piano tuning near me", "piano repair", "piano restoration", "piano movers",
    "second hand piano", "piano valuation", "piano lessons for beginners", "tuning an old piano",
    "piano key replacement", "piano tuner cork",
)  # fmt: skip


def load_figures(project: Project, person: User) -> None:
    """Bring the figures, and choose some of the phrases."""
    about = About(SOURCE, "IE", "en", "EUR")
    file = take_file(project, person, about, "valley-phrases.csv", io.BytesIO(_table().encode()))
    read_waiting(file.pk)
    choose(project, CHOSEN, on=True)


def _table() -> str:
    months = [f"2025-{m:02}" for m in (11, 12)] + [f"2026-{m:02}" for m in range(1, 11)]
    lines = [f"phrase;searches a month;competition;price a click;{';'.join(months)}"]
    for subject, searches, peak, others in SUBJECTS:
        lines.append(_line(subject, searches, peak))
        words: list[str] = []
        for word in others.split():
            phrase, _, share = word.partition(":")
            words.append(phrase)
            if share:
                lines.append(_line(" ".join(words), searches * float(share), peak))
                words = []
    return "\n".join(lines)


def _line(phrase: str, searches: float, peak: int) -> str:
    # Sources tell one figure for a phrase in any order.
    swing = 0.15 + 0.5 * _chance("swing", " ".join(sorted(phrase.split()))) if peak else 0.06
    months = [
        round(searches * (1 + swing * math.cos(2 * math.pi * ((at + 11) % 12 - peak % 12) / 12)))
        for at in range(12)
    ]
    return ";".join(
        [
            phrase,
            str(round(searches)),
            f"{_chance('contested', phrase):.2f}",
            f"{0.2 + 2 * _chance('price', phrase):.2f}",
            *map(str, months),
        ]
    )


def _chance(kind: str, key: str) -> float:
    digest = hashlib.blake2b(f"{kind}/{key}".encode(), digest_size=7).digest()
    return int.from_bytes(digest, "big") / 2**56
