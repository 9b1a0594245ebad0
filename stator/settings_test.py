"""Settings of the tests: the product's, with plain static names, a cheap hash and a database file that a live server can share."""

import os
import tempfile

os.environ["STATOR_PLAIN_HTTP"] = "1"
os.environ.setdefault("STATOR_DATA", tempfile.mkdtemp(prefix="stator-test-"))
os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"  # Playwright's sync API leaves a running loop in the test thread

from stator.settings import *  # noqa: F403
from stator.settings import DATA_DIR, DATABASES, LOGGING, STORAGES

ALLOWED_HOSTS = ["*"]
USE_I18N = True  # some tests bring a language of their own
STORAGES = {**STORAGES, "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"}}
PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
AXES_ENABLED = False
DATABASES["default"]["CONN_MAX_AGE"] = 0
DATABASES["default"]["TEST"] = {"NAME": DATA_DIR / "test.sqlite3"}
TEST_RUNNER = "tests.runner.Runner"
(DATA_DIR / "static").mkdir(exist_ok=True)
LOGGING = {**LOGGING, "loggers": {"django": {"handlers": ["console"], "level": "ERROR", "propagate": False}, "axes": {"level": "ERROR"}}}
