"""Settings for ./start and for a real deployment."""

from vinetag.config.settings.base import *  # noqa: F403 - Django's way to layer settings
