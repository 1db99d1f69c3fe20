"""A market’s list, and bringing it."""

from __future__ import annotations

import io
from datetime import timedelta
from typing import Any

from django.utils import timezone

from vinetag.apps.market import lists
from vinetag.apps.market.models import MarketRow

SOON = (timezone.now() + timedelta(days=2)).strftime("%Y-%m-%dT%H:%M:%SZ")
LIST = f"""name,kind,price,currency,bids,ends,first_registered,links,used_for
inkpost.com,fixed,1200,EUR,,,2001-03-04,17,adult
inkpost.net,auction,90,USD,4,{SOON},,,
paperbarn.com,asking,,,,,,,
quietriver.org,fixed,call,EUR,,,,,
"""


def market(code: str = "fair", **more: Any) -> MarketRow:
    return MarketRow.objects.create(code=code, name=f"The {code}", **more)


def bring(row: MarketRow, text: str | bytes = LIST) -> lists.Brought:
    body = text.encode() if isinstance(text, str) else text
    row.refresh_from_db()
    return lists.bring_list(row, io.BytesIO(body))
