"""manage.py bring_offers CODE FILE [--name NAME]"""

from __future__ import annotations

import time
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from vinetag.apps.market.lists import bring_list
from vinetag.apps.market.models import MarketRow
from vinetag.lake.unpacking import FeedError


class Command(BaseCommand):
    help = "Bring a market's list of offers or drops: CSV or JSON lines, packed or not."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("code", help="the market's short name")
        parser.add_argument("file", type=Path, help="as docs/market-list.table.json describes it")
        parser.add_argument("--name", default="", help="of the market, where it is new")

    def handle(self, *_args: Any, **options: Any) -> None:
        began, code = time.monotonic(), options["code"]

        def step(name: str) -> None:
            self.stderr.write(f"{time.monotonic() - began:6.1f} s  {name}")

        try:
            with options["file"].open("rb") as source:
                row, _ = MarketRow.objects.get_or_create(
                    code=code, defaults={"name": options["name"] or code}
                )
                brought = bring_list(row, source, step)
        except OSError as error:
            raise CommandError(f"{options['file']}: {error}") from error
        except FeedError as error:
            told = "\n".join(f"{p.path}: {p.text()}" for p in error.problems)
            raise CommandError(f"The list before it stays in force.\n{told}") from error
        for problem in brought.read.problems:
            self.stderr.write(f"{problem.path}: {problem.text()}")
        found = brought.edition
        self.stdout.write(
            f"{found.names:,} names in {time.monotonic() - began:,.0f} s: {found.new:,} new, "
            f"{found.changed:,} changed, {found.gone:,} gone; something was wrong in "
            f"{brought.read.wrong:,} places."
        )
