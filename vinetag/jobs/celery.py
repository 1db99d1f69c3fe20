"""The Celery application; tasks live in the apps' own tasks modules."""

import ctypes
import os
import signal
from typing import Any, Final

from celery import Celery
from celery.signals import worker_process_init

PR_SET_PDEATHSIG: Final = 1  # prctl(2)

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "vinetag.config.settings.run")
app = Celery("vinetag")
app.config_from_object("django.conf:settings", namespace="CELERY")
app.autodiscover_tasks()


@worker_process_init.connect
def end_with_parent(**_about: Any) -> None:
    """A worker that is killed takes its processes with it: what they did is taken up by others."""
    ctypes.CDLL(None).prctl(PR_SET_PDEATHSIG, signal.SIGKILL)
