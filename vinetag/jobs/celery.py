"""The Celery application; tasks live in the apps' own tasks modules."""

import os

from celery import Celery

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "vinetag.config.settings.run")
app = Celery("vinetag")
app.config_from_object("django.conf:settings", namespace="CELERY")
app.autodiscover_tasks()
