"""manage.py prepare [--demo | --reset-demo]"""

from __future__ import annotations

from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser

from vinetag.apps.availability.catalogue import load_catalogue
from vinetag.apps.bench.demo import load_demo
from vinetag.apps.naming.services import complete_briefs
from vinetag.apps.vetting.demo import load_marks
from vinetag.apps.vetting.platforms import load_platforms


class Command(BaseCommand):
    help = "Bring the database up to date, and fill the demo workspace once when asked to."
    # Checks import every address of the API, which a start need not wait for; ./test runs them.
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--demo", action="store_true", help="fill the demo workspace, once")
        parser.add_argument("--reset-demo", action="store_true", help="put it back as it was")

    def handle(self, *_args: Any, **options: Any) -> None:
        call_command("migrate", interactive=False, verbosity=0, skip_checks=True)
        load_catalogue()
        load_platforms()
        if count := complete_briefs():
            self.stdout.write(f"Names made anew for {count:,} projects of an earlier version.")
        if options["demo"] or options["reset_demo"]:
            load_marks()
            done = load_demo(reset=options["reset_demo"])
            self.stdout.write("Demo data loaded." if done else "Demo data is there already.")
