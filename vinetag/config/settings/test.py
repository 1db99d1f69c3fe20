"""Settings for the tests: a throw-away secret, fast passwords, tasks on demand."""

import os

os.environ.setdefault("VINETAG_SECRET_KEY", "only-for-tests")
os.environ.setdefault("VINETAG_DEMO", "1")
# Tests run side by side: each worker has a database of Redis of its own.
os.environ["VINETAG_REDIS_URL"] = "{}/{}".format(
    os.environ.get("VINETAG_REDIS_URL", "redis://127.0.0.1:8714/0").rpartition("/")[0],
    os.environ.get("PYTEST_XDIST_WORKER", "gw0").removeprefix("gw"),
)

from vinetag.config.settings.base import *  # noqa: F403 - after the environment is set

PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
REST_FRAMEWORK["DEFAULT_THROTTLE_RATES"] = dict.fromkeys(  # noqa: F405 - layered
    ("sign-in", "sign-up", "demo", "guests", "joining", "feeds", "notices"), "100000/min"
)
REST_FRAMEWORK["TEST_REQUEST_DEFAULT_FORMAT"] = "json"  # noqa: F405
