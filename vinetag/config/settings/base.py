"""Settings shared by every way of running; what differs comes from the environment."""

from __future__ import annotations

import os
from dataclasses import replace
from pathlib import Path

from django.core.exceptions import ImproperlyConfigured

from vinetag.config import env
from vinetag.lookup import LookupSettings, SettingsError
from vinetag.lookup.epp import gateways_from_env
from vinetag.lookup.hosting import hosting_from_env
from vinetag.lookup.till import till_from_env

ROOT = Path(__file__).resolve().parents[3]
WEB_DIST = ROOT / "web/dist"

SECRET_KEY = env.text("VINETAG_SECRET_KEY")
DEBUG = False
ALLOWED_HOSTS = env.text("VINETAG_HOSTS", "127.0.0.1,localhost").split(",")
CSRF_TRUSTED_ORIGINS = env.several("VINETAG_ORIGINS")
# Addresses and networks of proxies whose X-Forwarded-For and X-Forwarded-Proto are believed.
PROXIES = env.several("VINETAG_PROXIES")
# Threads of a web process, each with a database connection; one more makes names, three serve
# streams. Two processes hold twenty of the connections ops/parts.py lets MariaDB give.
WEB_THREADS = int(env.number("VINETAG_WEB_THREADS", 6))
MOST_FILE_BYTES = 60_000_000
# Where large tables stand: a folder all processes reach.
LAKE = env.text("VINETAG_LAKE", str(Path(env.text("VINETAG_VAR", str(ROOT / "var"))) / "lake"))
# A price list has 200,000 lines at most, in JSON with its escapes.
MOST_LIST_BYTES = 20_000_000

# In order: each may stand on those before it. What an app adds to the others is in its joined.py.
JOINED_APPS = [
    "vinetag.apps.accounts",
    "vinetag.apps.naming",
    "vinetag.apps.market",
    "vinetag.apps.availability",
    "vinetag.apps.costs",
    "vinetag.apps.shortlists",
    "vinetag.apps.phrases",
    "vinetag.apps.vetting",
    "vinetag.apps.hunting",
    "vinetag.apps.watching",
    "vinetag.apps.ordering",
    "vinetag.apps.owning",
    "vinetag.apps.connecting",
    "vinetag.apps.sharing",
    "vinetag.apps.bench",
]
INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "rest_framework",
    "drf_spectacular",
    *JOINED_APPS,
]
MIDDLEWARE = [
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
]
ROOT_URLCONF = "vinetag.config.urls"
ASGI_APPLICATION = "vinetag.config.asgi.application"
TEMPLATES = [
    {"BACKEND": "django.template.backends.django.DjangoTemplates", "DIRS": [WEB_DIST]},
]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.mysql",
        "NAME": env.text("VINETAG_DB_NAME", "vinetag"),
        "USER": env.text("VINETAG_DB_USER", "vinetag"),
        "PASSWORD": env.text("VINETAG_DB_PASSWORD", ""),
        "HOST": env.text("VINETAG_DB_HOST", "127.0.0.1"),
        "PORT": int(env.number("VINETAG_DB_PORT", 8713)),
        "CONN_MAX_AGE": 60,
        "CONN_HEALTH_CHECKS": True,
        "OPTIONS": {
            "charset": "utf8mb4",
            "isolation_level": "read committed",
            "connect_timeout": 5,
            # Lists of millions of lines are loaded from files of our own.
            "local_infile": True,
            "init_command": "SET sql_mode='STRICT_ALL_TABLES', innodb_strict_mode=1",
        },
        "TEST": {
            "NAME": "test_vinetag",
            "CHARSET": "utf8mb4",
            "COLLATION": "utf8mb4_unicode_520_ci",
        },
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_USER_MODEL = "accounts.User"
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator"},
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator"},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
    {"NAME": "django.contrib.auth.password_validation.NumericPasswordValidator"},
]
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = env.flag("VINETAG_HTTPS")
CSRF_COOKIE_SAMESITE = "Lax"
CSRF_FAILURE_VIEW = "vinetag.config.urls.csrf_failure"
# Headers that guard pages are added in front (vinetag.config.front), to files as well.
HSTS_SECONDS = int(env.number("VINETAG_HSTS", 0))
# A session without a request for so long ends; 0 for two weeks from signing in.
NAMES_A_STEP = int(env.number("VINETAG_NAMES_A_STEP", 2_000))
IDLE_MINUTES = env.number("VINETAG_IDLE_MINUTES", 0)
if IDLE_MINUTES:
    SESSION_COOKIE_AGE = int(IDLE_MINUTES * 60)
    SESSION_SAVE_EVERY_REQUEST = True
DATA_UPLOAD_MAX_MEMORY_SIZE = 2_000_000

LANGUAGE_CODE = "en"
USE_I18N = False
TIME_ZONE = "UTC"
USE_TZ = True

REST_FRAMEWORK = {
    "DEFAULT_AUTHENTICATION_CLASSES": ["vinetag.apps.accounts.api.sessions.StrictSession"],
    "DEFAULT_PERMISSION_CLASSES": ["rest_framework.permissions.IsAuthenticated"],
    "DEFAULT_RENDERER_CLASSES": ["rest_framework.renderers.JSONRenderer"],
    "DEFAULT_PARSER_CLASSES": ["vinetag.apps.accounts.api.parsing.StrictJson"],
    # The front (vinetag.config.asgi) has found out whose address it is.
    "NUM_PROXIES": 0,
    "DEFAULT_SCHEMA_CLASS": "drf_spectacular.openapi.AutoSchema",
    "EXCEPTION_HANDLER": "vinetag.apps.accounts.api.problems.handle",
    "DEFAULT_THROTTLE_RATES": {
        "sign-in": env.text("VINETAG_SIGN_IN_RATE", "20/min"),
        "sign-up": env.text("VINETAG_SIGN_UP_RATE", "20/hour"),
        "demo": env.text("VINETAG_DEMO_RATE", "30/min"),
        "joining": env.text("VINETAG_JOIN_RATE", "20/hour"),
        "guests": env.text("VINETAG_GUEST_RATE", "240/min"),
        "feeds": env.text("VINETAG_FEED_RATE", "120/min"),
        "notices": env.text("VINETAG_NOTICE_RATE", "600/min"),
    },
}
SPECTACULAR_SETTINGS = {
    "TITLE": "Vine Tag",
    "VERSION": "1",
    "DESCRIPTION": "Make, grade, check and shortlist domain names.",
    "SERVE_INCLUDE_SCHEMA": False,
    "COMPONENT_SPLIT_REQUEST": True,
    "SORT_OPERATION_PARAMETERS": False,
    "POSTPROCESSING_HOOKS": [
        "drf_spectacular.hooks.postprocess_schema_enums",
        "vinetag.apps.accounts.api.documenting.document_errors",
    ],
    "ENUM_NAME_OVERRIDES": {
        "PurposeEnum": "vinetag.core.brief.PURPOSES",
        "AskedForEnum": ["scan", "buying"],
        "CarriedStateEnum": "vinetag.apps.availability.leases.Carried.State",
        "FindingNameEnum": "vinetag.core.concepts.FINDING_NAMES",
        "OfferNameEnum": "vinetag.core.concepts.OFFER_NAMES",
        "FileStateEnum": "vinetag.apps.market.models.ListFile.State",
        "LetterStateEnum": "vinetag.apps.watching.models.Letter.State",
        "TellingHowEnum": "vinetag.apps.watching.models.Telling.How",
        "OrderStageEnum": "vinetag.apps.ordering.models.Order.Stage",
        "OrderActionEnum": "vinetag.apps.ordering.models.OrderName.Action",
        "PersonKindEnum": ["person", "organisation"],
        "FeedKindEnum": "vinetag.apps.watching.models.PrivateFeed.Kind",
        "WatchNameEnum": "vinetag.core.concepts.WATCH_NAMES",
        "AgainEnum": ["stale", "unsure", "all"],
        "VettingAgainEnum": ["old", "all"],
        "WeightEnum": "vinetag.core.concepts.WEIGHTS",
        "EitherEnum": "vinetag.core.sheet.fields.EITHER",
        "RungEnum": "vinetag.core.checking.RUNG_NAMES",
    },
}

REDIS_URL = env.text("VINETAG_REDIS_URL", "redis://127.0.0.1:8714/0")
CACHES = {
    "default": {
        "BACKEND": "vinetag.apps.accounts.caching.SteadyCache",
        "LOCATION": REDIS_URL,
        "OPTIONS": {"socket_timeout": 1.0, "socket_connect_timeout": 0.5},
    }
}
# A check whose worker has not been heard of for so many seconds is taken up by another.
CHECK_LEASE = env.number("VINETAG_CHECK_LEASE", 8)
CELERY_BROKER_URL = REDIS_URL
CELERY_ACCEPT_CONTENT = ["json"]
CELERY_TASK_SERIALIZER = "json"
CELERY_TASK_PUBLISH_RETRY = False
CELERY_TASK_DEFAULT_QUEUE = "checks"
CELERY_TASK_ROUTES = {
    "bench.*": {"queue": "files"},
    "costs.*": {"queue": "files"},
    "vetting_files.*": {"queue": "files"},
    "phrases.*": {"queue": "files"},
    "market.*": {"queue": "files"},
    "watching.*": {"queue": "watching"},
    "ordering.*": {"queue": "ordering"},
    "owning.*": {"queue": "watching"},
}
# A process that has read a large file is replaced, for it does not give the memory back (kB). One
# that holds a register of a million marks has 900 MB, and keeps it.
CELERY_WORKER_MAX_MEMORY_PER_CHILD = int(env.number("VINETAG_WORKER_MEMORY", 1_400_000))
CELERY_TASK_ACKS_LATE = True
CELERY_TASK_REJECT_ON_WORKER_LOST = True
CELERY_TASK_IGNORE_RESULT = True
CELERY_WORKER_PREFETCH_MULTIPLIER = 1
CELERY_WORKER_HIJACK_ROOT_LOGGER = False
CELERY_BROKER_CONNECTION_RETRY_ON_STARTUP = True
CELERY_BROKER_TRANSPORT_OPTIONS = {
    "visibility_timeout": 120,
    "unacked_restore_interval": 5,
    "unacked_restore_throttle": 1,
    "socket_connect_timeout": 2,
}
CELERY_BEAT_SCHEDULE = {
    "resume-checks": {"task": "availability.resume_checks", "schedule": min(5.0, CHECK_LEASE)},
    "resume-vettings": {"task": "vetting.resume_vettings", "schedule": min(5.0, CHECK_LEASE)},
    "read-figures": {"task": "phrases.read_waiting_figures", "schedule": 10.0},
    "resume-filing": {"task": "bench.resume_filing", "schedule": 10.0},
    "refresh-markets": {"task": "market.refresh_when_due", "schedule": 20.0},
    "spread-lists": {"task": "availability.spread_lists", "schedule": 10.0},
    "read-lists": {"task": "market.read_waiting_lists", "schedule": 15.0},
    "refresh-sellers": {"task": "costs.refresh_when_due", "schedule": 20.0},
    "orders": {"task": "ordering.go_on", "schedule": 5.0},
    "look-after": {"task": "owning.look_after", "schedule": 10.0},
    "watch": {"task": "watching.go_round", "schedule": 5.0},
    "delete-removed": {"task": "naming.delete_removed", "schedule": 600.0},
}

# How many full names watching may ask about for one person in a day (UTC).
WATCH_LOOKUPS = int(env.number("VINETAG_WATCH_LOOKUPS", 2_000))
# Where people reach the interface: for links in letters and feeds.
PUBLIC_ADDRESS = env.text("VINETAG_ADDRESS", "http://127.0.0.1:8700").rstrip("/")
# Letters go by this host; without one none are sent, and nobody is offered any.
MAIL_HOST, _, _mail_port = env.text("VINETAG_MAIL", "").partition(":")
EMAIL_BACKEND = f"django.core.mail.backends.{'smtp' if MAIL_HOST else 'dummy'}.EmailBackend"
EMAIL_HOST, EMAIL_PORT = MAIL_HOST, int(_mail_port or 25)
EMAIL_HOST_USER = env.text("VINETAG_MAIL_USER", "")
EMAIL_HOST_PASSWORD = env.text("VINETAG_MAIL_PASSWORD", "")
EMAIL_USE_TLS = env.flag("VINETAG_MAIL_TLS")
EMAIL_TIMEOUT = 10
DEFAULT_FROM_EMAIL = env.text("VINETAG_MAIL_FROM", "Vine Tag <post@vinetag.example>")
# Where letters can be read that a simulated host kept.
MAIL_READER = env.text("VINETAG_MAIL_READER", "")

# Look-ups. Only addresses named here, those of the catalogue of extensions, and those the bootstrap
# document lists, are ever asked. "simulated" asks the stand-ins; "live" the published bootstrap,
# the registries' WHOIS and the system's resolver. Limits hold across all processes.
try:
    LOOKUP = replace(LookupSettings.from_env(os.environ), redis=REDIS_URL)
except SettingsError as error:
    raise ImproperlyConfigured(str(error)) from error
# Sellers' gateways and the payment page, where orders are placed here; without them an order is a
# file for elsewhere.
try:
    GATEWAYS = gateways_from_env(os.environ)
    TILL = till_from_env(os.environ)
    HOSTING = hosting_from_env(os.environ)
    # How many sessions with one gateway an order is sent over at once.
    GATEWAY_LINES = max(1, int(env.number("VINETAG_GATEWAY_LINES", 2)))
except SettingsError as error:
    raise ImproperlyConfigured(str(error)) from error
# What contacts are encrypted with: the first key seals, each of them opens.
CONTACT_KEYS = env.several("VINETAG_CONTACT_KEYS") or [f"contacts {SECRET_KEY}"]
# Whoever comes may enter the demo workspace: not where real registries are asked.
DEMO_MODE = env.flag("VINETAG_DEMO") and not LOOKUP.live
CHECK_TOP_NAMES = 200
# How many answers may be streamed at once, by all processes together, and to one person.
MOST_STREAMS = 120
MOST_STREAMS_OF_ONE = 8

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {"plain": {"format": "{levelname} {name}: {message}", "style": "{"}},
    # The address of a shared link is all it takes to open it.
    "filters": {"no-tokens": {"()": "vinetag.config.logs.WithoutTokens"}},
    "handlers": {
        "console": {
            "class": "logging.StreamHandler",
            "formatter": "plain",
            "filters": ["no-tokens"],
        }
    },
    "root": {"handlers": ["console"], "level": "WARNING"},
    # Who signed in, who failed to, and what was refused for it.
    "loggers": {"vinetag.security": {"level": "INFO"}},
}
