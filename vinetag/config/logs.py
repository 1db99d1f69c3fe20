"""What logs do not keep."""

from __future__ import annotations

import logging
import re
from typing import Final

__all__ = ["WithoutTokens"]

TOKEN: Final = re.compile(r"(/shared/|/feeds/|confirm=)[^/\s\"'&]{8,}")


class WithoutTokens(logging.Filter):
    """Takes the tokens of shared links, feeds and letters out of what is logged."""

    def filter(self, record: logging.LogRecord) -> bool:
        """Change the record; every one passes."""
        message = record.getMessage()
        if TOKEN.search(message):
            record.msg, record.args = TOKEN.sub(r"\1…", message), ()
        return True
