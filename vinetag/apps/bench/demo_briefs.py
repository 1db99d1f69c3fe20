"""What the demo workspace holds, as documents."""

from __future__ import annotations

from typing import Any

__all__ = ["DEMO"]

DEMO: list[dict[str, Any]] = [
    {
        "name": "Harrowmere piano",
        "brief": {
            "name": "Harrowmere piano",
            "about": "A piano tuner who looks after pianos at home in the valley of Harrowmere.",
            "purpose": "descriptive",
            "keywords": [
                {"text": "piano", "weight": 5},
                {"text": "tuning", "weight": 4},
                {"text": "repair", "weight": 2},
            ],
            "places": ["harrowmere"],
            "avoid": ["cheap"],
            "limits": {"letters_min": 5, "letters_max": 18, "hyphens": 1},
            "extensions": ["ie", "com", "co.uk", "net"],
            "owner": {"country": "IE", "kind": "person", "work": "local", "budget": 60},
        },
        "kept": [],
    },
    {
        "name": "Backyard sky",
        "brief": {
            "name": "Backyard sky",
            "about": "A podcast about watching the night sky from a garden chair.",
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
            "about": "A monthly letterpress stationery club for people who still write letters.",
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
            ("totheletter", "What one writes, and how carefully."),
            ("fillthepen.ie", "At home here, but what does it cost?"),
        ],
    },
]
