"""manage.py bring_marks FILE [--office NAME]"""

from __future__ import annotations

import time
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from vinetag.apps.vetting.registers import bring_marks


class Command(BaseCommand):
    help = "Bring a register of marks: CSV (docs/marks.table.json) or XML after WIPO ST.96."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", type=Path)
        parser.add_argument("--office", default="", help="of marks that name none")

    def handle(self, *_args: Any, **options: Any) -> None:
        began, told = time.monotonic(), 0.0

        def far(taken: int) -> None:
            nonlocal told
            if time.monotonic() - told > 5:
                told = time.monotonic()
                self.stderr.write(f"{taken:,} marks, {taken / (told - began):,.0f} a second")

        try:
            with options["file"].open("rb") as file:
                brought = bring_marks(file, options["office"], far)
        except OSError as error:
            raise CommandError(f"{options['file']}: {error}") from error
        for problem in brought.problems:
            self.stderr.write(f"{problem.path}: {problem.text()}")
        self.stdout.write(
            f"{brought.taken:,} marks taken in {time.monotonic() - began:,.0f} s; "
            f"something was wrong in {brought.wrong:,} places."
        )
        if not brought.taken:
            raise CommandError("no mark was taken.")
