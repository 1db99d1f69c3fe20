"""Words for what can be wrong with zone files."""

from __future__ import annotations

from vinetag.core.errors import add_words

add_words(
    {
        "zone_empty": "No delegated name was found in it.",
        "zone_other": "This is the zone of .{found}, not of .{wanted}.",
        "zone_unknown": "It does not say which zone it is: it has no SOA record and no $ORIGIN.",
        "zone_extension": "“{value}” is no extension.",
        "zone_day": "“{value}” is no day from 1985 to tomorrow: write it like 2026-11-29.",
    }
)
