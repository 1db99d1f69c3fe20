"""The app everybody else stands on: once all are there, their words are known."""

from __future__ import annotations

from django.apps import AppConfig

__all__ = ["AccountsConfig"]


class AccountsConfig(AppConfig):
    name = "vinetag.apps.accounts"

    def ready(self) -> None:
        """Words for what can be wrong, of every app."""
        from vinetag.apps.accounts.joining import joined
        from vinetag.core.errors import add_words

        for one in joined():
            add_words(one.words)
