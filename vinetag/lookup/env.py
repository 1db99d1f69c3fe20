"""What can be wrong with a variable of the environment."""

__all__ = ["SettingsError"]


class SettingsError(ValueError):
    """A variable of the environment cannot be read."""
