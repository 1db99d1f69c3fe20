"""manage.py bring_zone EXTENSION FILE [--day DAY]"""

from __future__ import annotations

import time
from datetime import date
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.utils import timezone

from vinetag.apps.market.snapshots import bring_zone
from vinetag.lake.unpacking import FeedError


class Command(BaseCommand):
    help = "Keep the delegated names of a zone file (a master file, packed or not)."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("extension")
        parser.add_argument("file", type=Path)
        parser.add_argument(
            "--day", type=date.fromisoformat, help="of the zone; today's, if left out"
        )

    def handle(self, *_args: Any, **options: Any) -> None:
        began = time.monotonic()
        try:
            row = bring_zone(
                options["extension"].lstrip(".").lower(),
                options["day"] or timezone.now().date(),
                options["file"],
                lambda step: self.stderr.write(f"{time.monotonic() - began:6.1f} s  {step}"),
            )
        except OSError as error:
            raise CommandError(f"{options['file']}: {error}") from error
        except FeedError as error:
            raise CommandError("\n".join(p.text() for p in error.problems)) from error
        self.stdout.write(f"{row.names:,} names of {row} in {time.monotonic() - began:,.1f} s.")
