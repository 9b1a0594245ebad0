"""Settings. Production is the default; what differs between machines comes from the environment.

STATOR_DATA         folder for the database, photos and the secret (outside the checkout)
STATOR_BACKUPS      folder for the daily backups; beside the data folder when not set
STATOR_BACKUPS_KEPT how many are kept, 14 when not set; 0 writes none
STATOR_HOSTS        names the shop's machine answers to, comma separated
STATOR_PLAIN_HTTP   1 to serve without TLS: for this machine alone or a network you trust
STATOR_GAUGE_NETWORKS networks whose gauges may be listened to, comma separated; this machine and private networks when not set
STATOR_ADDRESS      where phones and owners reach it, for links and labels, such as https://bench.lan:8000; the shop's page may say another
STATOR_BEHIND_PROXY 1 when a proxy ends TLS and sets X-Forwarded-Proto
"""

from __future__ import annotations

import ipaddress
import os
from pathlib import Path

from csp.constants import NONE, SELF

from stator.server.data_folder import finish_swap
from stator.server.languages import catalogues
from stator.server.secret import NoSecret, secret_key

BASE_DIR = Path(__file__).resolve().parent.parent
_STATE = Path(os.environ.get("XDG_DATA_HOME") or Path.home() / ".local" / "share")
DATA_DIR = Path(os.environ.get("STATOR_DATA") or _STATE / "stator")
PLAIN_HTTP = os.environ.get("STATOR_PLAIN_HTTP") == "1"
TLS_FOLDER = DATA_DIR / "tls"  # the shop's own certificate, where `bin/serve --tls` made one
SIGNING_KEY = DATA_DIR / "signing-key"  # of exported job files
ADDRESS = os.environ.get("STATOR_ADDRESS", "")

BACKUPS = Path(os.environ.get("STATOR_BACKUPS") or DATA_DIR.with_name(f"{DATA_DIR.name}-backups"))
BACKUPS_KEPT = int(os.environ.get("STATOR_BACKUPS_KEPT") or 14)

try:
    finish_swap(DATA_DIR)
    DATA_DIR.mkdir(parents=True, exist_ok=True)
    SECRET_KEY = secret_key(DATA_DIR / "secret")
except OSError as error:
    raise SystemExit(f"Stator does not start: the data folder {DATA_DIR} cannot be used ({error}). Name another in STATOR_DATA.") from error
except NoSecret as error:
    raise SystemExit(f"Stator does not start: {error}") from error
DEBUG = False
ALLOWED_HOSTS = [host.strip() for host in os.environ.get("STATOR_HOSTS", "localhost,127.0.0.1").split(",") if host.strip()]
CSRF_TRUSTED_ORIGINS = [f"https://{host}" for host in ALLOWED_HOSTS if "*" not in host]
os.environ.setdefault("STATOR_UNIT_CACHE", str(DATA_DIR / "cache" / "units"))

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.messages",
    "stator.server.static_files.ReleasedFiles",
    "axes",
    "csp",
    "django_htmx",
    "stator.ui",
    "stator.shop",
    "stator.engines",
    "stator.jobs",
    "stator.stations",
    "stator.workbench",
    "stator.exchange",
    "stator.instruments",
    "stator.quick_checks",
    "stator.practice",
    "stator.demo",
    "stator",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "stator.ui.response_compression.CompressedTextMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "stator.shop.middleware.ReaderMiddleware",
    "django_htmx.middleware.HtmxMiddleware",
    "stator.shop.middleware.SignedInMiddleware",
    "stator.jobs.middleware.RefusalMiddleware",
    "django.contrib.messages.middleware.MessageMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "axes.middleware.AxesMiddleware",
]
ROOT_URLCONF = "stator.urls"
WSGI_APPLICATION = "stator.wsgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "APP_DIRS": True,
        "OPTIONS": {
            "context_processors": [
                "django.template.context_processors.request",
                "django.template.context_processors.i18n",
                "django.contrib.auth.context_processors.auth",
                "django.contrib.messages.context_processors.messages",
            ],
            "builtins": ["django.templatetags.i18n", "stator.ui.templatetags.stator_tags"],
        },
    }
]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATA_DIR / "stator.sqlite3",
        "CONN_MAX_AGE": None,
        "OPTIONS": {
            "transaction_mode": "IMMEDIATE",
            "timeout": 20,
            "init_command": (
                "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON; PRAGMA temp_store=MEMORY;"
                "PRAGMA cache_size=-4000; PRAGMA journal_size_limit=27103364;"  # of every thread: the system keeps the file in memory once
            ),
        },
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

_PRIVATE = "127.0.0.0/8,10.0.0.0/8,172.16.0.0/12,192.168.0.0/16,::1/128,fc00::/7"
GAUGE_NETWORKS = [ipaddress.ip_network(each.strip()) for each in os.environ.get("STATOR_GAUGE_NETWORKS", _PRIVATE).split(",")]

AUTH_USER_MODEL = "shop.Person"
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "django.contrib.auth.backends.ModelBackend"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator"},
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator", "OPTIONS": {"min_length": 10}},
    {"NAME": "stator.shop.passwords.GuessableValidator"},
    {"NAME": "stator.shop.passwords.ShopWordsValidator"},
]
CSRF_FAILURE_VIEW = "stator.ui.views.stale_form"
LOGIN_URL = "sign-in"
LOGIN_REDIRECT_URL = "bench"
LOGOUT_REDIRECT_URL = "sign-in"
AXES_FAILURE_LIMIT = 5
AXES_COOLOFF_TIME = 0.25  # hours
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_LOCKOUT_CALLABLE = "stator.shop.sign_in.locked_out"
AXES_RESET_COOL_OFF_ON_FAILURE_DURING_LOCKOUT = False  # the right password works after the wait, whoever tries meanwhile
AXES_RESET_ON_SUCCESS = True
AXES_VERBOSE = False

LANGUAGE_CODE = "en-gb"
TIME_ZONE = os.environ.get("STATOR_TIME_ZONE", "UTC")
LOCALE_PATHS = [BASE_DIR / "locale"]
LANGUAGES = [("en-gb", "English"), *catalogues(LOCALE_PATHS[0])]
USE_I18N = len(LANGUAGES) > 1  # with one language no sentence is looked up before it is said
USE_TZ = True

STATIC_URL = "static/"
STATIC_ROOT = Path(os.environ.get("STATOR_STATIC") or DATA_DIR / "static")
MEDIA_ROOT = DATA_DIR / "photos"
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "stator.server.static_files.ReleasedStaticFilesStorage"},
}
FORM_RENDERER = "django.forms.renderers.DjangoTemplates"
DATA_UPLOAD_MAX_MEMORY_SIZE = 2_500_000
FILE_UPLOAD_MAX_MEMORY_SIZE = 2_500_000

CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "script-src": [SELF],
        "style-src": [SELF],
        "img-src": [SELF],
        "font-src": [SELF],
        "connect-src": [SELF],
        "object-src": [NONE],
        "base-uri": [NONE],
        "form-action": [SELF],
        "frame-ancestors": [NONE],
    }
}
SESSION_COOKIE_AGE = 14 * 24 * 3600
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = not PLAIN_HTTP
SECURE_SSL_REDIRECT = not PLAIN_HTTP
SECURE_HSTS_SECONDS = 0 if PLAIN_HTTP else 31_536_000
SECURE_HSTS_INCLUDE_SUBDOMAINS = SECURE_HSTS_PRELOAD = not PLAIN_HTTP
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
if os.environ.get("STATOR_BEHIND_PROXY") == "1":
    SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "filters": {"no_tokens": {"()": "stator.server.log_filters.NoTokens"}},
    "formatters": {"plain": {"format": "{asctime} {levelname} {name} {message}", "style": "{"}},
    "handlers": {"console": {"class": "logging.StreamHandler", "formatter": "plain", "filters": ["no_tokens"]}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    "loggers": {
        "django": {"handlers": ["console"], "level": "WARNING", "propagate": False},
        "stator.told": {"handlers": ["console"], "level": "INFO", "propagate": False},
    },
}
