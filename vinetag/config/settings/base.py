"""Settings shared by every way of running; what differs comes from the environment."""

from __future__ import annotations

from pathlib import Path

from vinetag.config import env
from vinetag.lookup import DEFAULT_BOOTSTRAP, DEFAULT_DNS, DEFAULT_SELLER, LIVE_BOOTSTRAP

ROOT = Path(__file__).resolve().parents[3]
WEB_DIST = ROOT / "web/dist"

SECRET_KEY = env.text("VINETAG_SECRET_KEY")
DEBUG = False
DEMO_MODE = env.flag("VINETAG_DEMO")
ALLOWED_HOSTS = env.text("VINETAG_HOSTS", "127.0.0.1,localhost").split(",")
CSRF_TRUSTED_ORIGINS = [o for o in env.text("VINETAG_ORIGINS", "").split(",") if o]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "rest_framework",
    "drf_spectacular",
    "vinetag.apps.accounts",
    "vinetag.apps.naming",
    "vinetag.apps.availability",
    "vinetag.apps.shortlists",
    "vinetag.apps.sharing",
    "vinetag.apps.bench",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "vinetag.config.headers.ContentSecurityPolicy",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
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
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
DATA_UPLOAD_MAX_MEMORY_SIZE = 2_000_000

LANGUAGE_CODE = "en"
USE_I18N = False
TIME_ZONE = "UTC"
USE_TZ = True

REST_FRAMEWORK = {
    "DEFAULT_AUTHENTICATION_CLASSES": ["vinetag.apps.accounts.api.sessions.StrictSession"],
    "DEFAULT_PERMISSION_CLASSES": ["rest_framework.permissions.IsAuthenticated"],
    "DEFAULT_RENDERER_CLASSES": ["rest_framework.renderers.JSONRenderer"],
    "DEFAULT_PARSER_CLASSES": ["rest_framework.parsers.JSONParser"],
    "DEFAULT_SCHEMA_CLASS": "drf_spectacular.openapi.AutoSchema",
    "EXCEPTION_HANDLER": "vinetag.apps.accounts.api.problems.handle",
    "DEFAULT_THROTTLE_RATES": {
        "sign-in": env.text("VINETAG_SIGN_IN_RATE", "20/min"),
        "guests": env.text("VINETAG_GUEST_RATE", "240/min"),
    },
}
SPECTACULAR_SETTINGS = {
    "TITLE": "Vine Tag",
    "VERSION": "1",
    "DESCRIPTION": "Make, grade, check and shortlist domain names.",
    "SERVE_INCLUDE_SCHEMA": False,
    "COMPONENT_SPLIT_REQUEST": True,
    "SORT_OPERATION_PARAMETERS": False,
    "ENUM_NAME_OVERRIDES": {
        "PurposeEnum": "vinetag.core.brief.PURPOSES",
        "AskedForEnum": ["scan", "buying"],
    },
}

REDIS_URL = env.text("VINETAG_REDIS_URL", "redis://127.0.0.1:8714/0")
CACHES = {
    "default": {"BACKEND": "django.core.cache.backends.redis.RedisCache", "LOCATION": REDIS_URL}
}
CELERY_BROKER_URL = REDIS_URL
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
}
CELERY_BEAT_SCHEDULE = {
    "resume-checks": {"task": "availability.resume_checks", "schedule": 5.0},
}

# Look-ups. Only addresses named here, and those the bootstrap document lists, are ever asked.
# "simulated" asks the stand-ins; "live" the published bootstrap and the system's resolver.
LIVE = env.choice("VINETAG_LOOKUP", ("simulated", "live")) == "live"
RDAP_BOOTSTRAP_URL = env.text(
    "VINETAG_RDAP_BOOTSTRAP", LIVE_BOOTSTRAP if LIVE else DEFAULT_BOOTSTRAP
)
DNS_SERVER = env.text("VINETAG_DNS", "system" if LIVE else DEFAULT_DNS)
SELLER_URL = env.text("VINETAG_SELLER", "" if LIVE else DEFAULT_SELLER)
RDAP_TIMEOUT_SECONDS = env.number("VINETAG_RDAP_TIMEOUT", 6.0)
DNS_TIMEOUT_SECONDS = env.number("VINETAG_DNS_TIMEOUT", 2.0)
RDAP_AT_ONCE_A_HOST = int(env.number("VINETAG_RDAP_AT_ONCE", 2 if LIVE else 10))
RDAP_PER_SECOND_A_HOST = env.number("VINETAG_RDAP_PER_SECOND", 1.0 if LIVE else 0.0)
# Of particular registries: "rdap.registry.example=5,other.example=0.5".
RDAP_PER_SECOND_BY_HOST = env.rates("VINETAG_RDAP_LIMITS")
CHECK_TOP_NAMES = 200
# How many answers may be streamed at once, in one process.
MOST_STREAMS = 60

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {"plain": {"format": "{levelname} {name}: {message}", "style": "{"}},
    "handlers": {"console": {"class": "logging.StreamHandler", "formatter": "plain"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}
