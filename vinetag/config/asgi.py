"""The ASGI application: the built interface's files, and Django for all else."""

import os

from django.conf import settings
from django.core.asgi import get_asgi_application
from servestatic import ServeStaticASGI

from vinetag.config.warm import warm_up

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "vinetag.config.settings.run")
django = get_asgi_application()
application = ServeStaticASGI(
    django,
    root=settings.WEB_DIST,
    # Vite puts a hash of the content into these names, so they never change.
    immutable_file_test=r"^/assets/.+-[A-Za-z0-9_-]{8}\.",
    allow_all_origins=False,
)
warm_up()
