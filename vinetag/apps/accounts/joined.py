"""What accounts add: words."""

from vinetag.apps.accounts.joining import Joined

__all__ = ["JOINED"]

JOINED = Joined(
    words={
        "username_characters": "Use letters, digits and @ . + - _ only, without spaces.",
        "username_taken": "That name is taken. Choose another, or sign in.",
        "wrong_password": "This is not your password.",
        "no_match": "That name and password do not belong together.",
        "password": "{why}",
    }
)
