"""The field with which a change says what it was made from."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

__all__ = ["SeenField"]

HELP = "The fields as they were seen by who changes them; 409 when one is otherwise by now"


class SeenField(serializers.DictField):
    """Fields by name, as vinetag.apps.accounts.seen compares them."""

    def __init__(self, **kwargs: Any) -> None:
        usual = {"required": False, "allow_null": True, "write_only": True, "help_text": HELP}
        super().__init__(**{**usual, **kwargs})
