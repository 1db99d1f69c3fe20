"""What the bench adds: words for what can be wrong with a file."""

from vinetag.apps.accounts.joining import Joined

__all__ = ["JOINED"]

JOINED = Joined(
    words={
        "file_large": "This file is larger than {limit} MB.",
        "not_json": "This is not JSON: {detail}",
        "not_project": "This file holds no project of Vine Tag.",
        "version_unknown": "The file is of version {version}; only {known} is known.",
    }
)
