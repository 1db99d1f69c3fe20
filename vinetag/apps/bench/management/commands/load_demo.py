"""manage.py load_demo [--reset]"""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from vinetag.apps.bench.demo import load_demo


class Command(BaseCommand):
    help = "Fill the demo workspace, once; --reset puts it back as it was."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--reset", action="store_true")

    def handle(self, *_args: Any, **options: Any) -> None:
        done = load_demo(reset=options["reset"])
        self.stdout.write("Demo data loaded." if done else "Demo data is there already.")
