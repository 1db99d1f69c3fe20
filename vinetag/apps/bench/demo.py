"""The demo workspace: three projects, the first with a few names kept."""

from __future__ import annotations

from typing import Any

from django.db import transaction

from vinetag.apps.accounts.services import demo_user
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import create_project
from vinetag.apps.shortlists.services import keep, note

__all__ = ["load_demo"]

DEMO: list[dict[str, Any]] = [
    {
        "name": "Harrowmere piano",
        "brief": {
            "name": "Harrowmere piano",
            "purpose": "descriptive",
            "keywords": [
                {"text": "piano", "weight": 5},
                {"text": "tuning", "weight": 4},
                {"text": "repair", "weight": 2},
                {"text": "harrowmere", "weight": 3},
            ],
            "avoid": ["cheap"],
            "limits": {"letters_min": 5, "letters_max": 18, "hyphens": 1},
            "extensions": ["ie", "com", "co.uk", "net"],
        },
        "kept": [],
    },
    {
        "name": "Backyard sky",
        "brief": {
            "name": "Backyard sky",
            "purpose": "brand",
            "keywords": [
                {"text": "stars", "weight": 4},
                {"text": "night", "weight": 3},
                {"text": "sky", "weight": 5},
                {"text": "telescope", "weight": 1},
                {"text": "quiet", "weight": 3},
            ],
            "avoid": ["horoscope", "zodiac"],
            "limits": {"letters_min": 5, "letters_max": 13},
            "extensions": ["com", "audio", "space", "net", "blog"],
        },
        "kept": [],
    },
    {
        "name": "Pressroom",
        "brief": {
            "name": "Pressroom",
            "purpose": "mix",
            "keywords": [
                {"text": "letterpress", "weight": 3},
                {"text": "paper", "weight": 4},
                {"text": "ink", "weight": 5},
                {"text": "post", "weight": 4},
                {"text": "club", "weight": 2},
            ],
            "avoid": ["cheap", "print"],
            "limits": {"letters_min": 5, "letters_max": 14},
            "extensions": ["com", "club", "press", "shop", "studio", "net"],
        },
        "kept": [
            ("inkpost", "Short, and says both halves: the ink and the posting."),
            ("paperpost", "Clear, but is it too plain for a club?"),
            ("postpress", ""),
        ],
    },
]


def load_demo(*, reset: bool = False) -> bool:
    """Fill the demo workspace once; `reset` puts it back as it was. True when anything was done."""
    owner = demo_user()
    projects = Project.objects.filter(owner=owner)
    with transaction.atomic():
        if reset:
            projects.delete()
        elif projects.exists():
            return False
        for item in DEMO:
            project = create_project(owner=owner, name=item["name"], brief=item["brief"])
            for label, text in item["kept"]:
                keep(project=project, label=label)
                note(project=project, label=label, text=text)
    return True
