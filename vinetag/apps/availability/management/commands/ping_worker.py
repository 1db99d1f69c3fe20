"""manage.py ping_worker NAME: ends with 0 when a worker of that name answers, with 1 otherwise."""

from __future__ import annotations

import socket
import sys
from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from vinetag.jobs import app


class Command(BaseCommand):
    help = "Ask a worker, through the queue, whether it is there."
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("name", help="checks or files")
        parser.add_argument("--seconds", type=float, default=5.0)

    def handle(self, *_args: Any, **options: Any) -> None:
        worker = f"{options['name']}@{socket.gethostname()}"
        try:
            told = app.control.ping([worker], timeout=options["seconds"], limit=1)
        except Exception as error:
            self.stderr.write(f"The queue cannot be reached: {error}")
            sys.exit(1)
        sys.exit(0 if told else 1)
