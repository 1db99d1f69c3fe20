"""What costs add: words."""

from vinetag.apps.accounts.joining import Joined

__all__ = ["JOINED"]

JOINED = Joined(
    words={
        "full_name_needed": "“{value}” has no extension: write it like {value}.com.",
        "not_among": "“{value}” is not among the names.",
        "rate_missing": "There is no exchange rate of {value}.",
        "seller_unknown": "There is no seller “{value}”.",
    }
)
