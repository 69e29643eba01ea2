"""Settings.

Nothing outside the machine is needed or asked; the few knobs are environment variables.
"""

import os
import re
import sys
from datetime import timedelta
from pathlib import Path

import dj_database_url
from csp.constants import NONE, SELF
from django.utils.functional import SimpleLazyObject

from gancho.folder import BASE_DIR, DATA_DIR, STATIC_DIR, secret_key

# Our matrices are small: sharing one among threads costs more than it gains.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
TESTING = "test" in sys.argv[1:2]
DEBUG = False


def _one_of(name: str, *known: str) -> str:
    """A knob's value, the first by default.

    Any other than those known ends the start with a sentence.
    """
    value = os.environ.get(name) or known[0]
    if value not in known:
        sys.exit(f"{name} is “{value}”; it can be {' or '.join(known)}.")
    return value


# read, or made, when it is first asked for
SECRET_KEY = "for tests only" if TESTING else SimpleLazyObject(secret_key)
ALLOWED_HOSTS = os.environ.get("GANCHO_HOSTS", "localhost,127.0.0.1,[::1]").split(",")

# "one": a machine of one's own, whoever sits at it is its person. "many": everybody has an account
# and sees what is theirs.
PEOPLE = _one_of("GANCHO_PEOPLE", "one", "many")
SIGN_UP = (
    _one_of("GANCHO_SIGN_UP", "open", "closed") == "open"
)  # whether strangers may make themselves an account
HTTPS = (
    _one_of("GANCHO_HTTPS", "0", "1") == "1"
)  # it is reached by https only, through a server that ends it
HSTS = _one_of(
    "GANCHO_HSTS", "this", "subdomains", "preload"
)  # for which names browsers are told so
# The address that this server calls from: what it says of the visitor is believed, and of nobody
# else.
PROXY = os.environ.get("GANCHO_PROXY") or "127.0.0.1"
ADDRESS = os.environ.get("GANCHO_ADDRESS", "").rstrip(
    "/"
)  # what links begin with that are handed to others: https://gancho.example
if ADDRESS and not re.fullmatch(r"https?://[A-Za-z0-9.:\[\]-]+", ADDRESS):
    sys.exit(
        f"GANCHO_ADDRESS is “{ADDRESS}”; it begins with https:// or http://, then a name and no "
        "more."
    )
PASSWORD_RESET_TIMEOUT = 24 * 3600

INSTALLED_APPS = [
    "whitenoise.runserver_nostatic",
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "csp",
    "django_htmx",
    "axes",
    "bench",
]
MIDDLEWARE = [
    # it pads at random, so that a page's length tells nothing of its tokens
    "django.middleware.gzip.GZipMiddleware",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.locale.LocaleMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "bench.access.OnePerson",
    "bench.access.SignedIn",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "django_htmx.middleware.HtmxMiddleware",
    "bench.room.NoRoom",
    "axes.middleware.AxesMiddleware",
]
if TESTING:
    MIDDLEWARE.remove(
        "whitenoise.middleware.WhiteNoiseMiddleware"
    )  # the live test server serves static files itself

ROOT_URLCONF = "gancho.urls"
WSGI_APPLICATION = "gancho.wsgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": sorted((BASE_DIR / "bench" / "stages").glob("*/templates")),
        "APP_DIRS": True,
        "OPTIONS": {
            "context_processors": ["django.template.context_processors.request"],
            "builtins": ["django.templatetags.i18n", "bench.templatetags.gancho"],
        },
    }
]

FORM_RENDERER = "bench.forms.Renderer"

# What makes the devices at a wall: a dotted path like "trade.devices.stand_ins.for_wall" (made-up
# readings, to try things out).
DEVICES = os.environ.get("GANCHO_DEVICES", "")
DIAL = os.environ.get(
    "GANCHO_DIAL", ""
)  # likewise a dial gauge: "trade.devices.stand_ins.StandInDial"

DATABASE_URL = os.environ.get(
    "DATABASE_URL", ""
)  # postgresql://…, for several servers; a file of our own when empty
_FILE = {
    "ENGINE": "django.db.backends.sqlite3",
    "NAME": DATA_DIR / "gancho.sqlite3",
    "CONN_MAX_AGE": 0 if TESTING else 600,
    "OPTIONS": {
        "timeout": 20,
        "transaction_mode": "IMMEDIATE",
        "init_command": "PRAGMA synchronous=OFF;"
        if TESTING
        else "PRAGMA journal_mode=WAL; PRAGMA synchronous=NORMAL;",
    },
    "TEST": {
        "NAME": DATA_DIR / "test.sqlite3"
    },  # a file: in memory, the live server's threads would share one connection
}
_SERVER = (
    dj_database_url.parse(DATABASE_URL, conn_max_age=600, conn_health_checks=True)
    if DATABASE_URL
    else None
)
DATABASES = {"default": _SERVER or _FILE}
# How the database copies itself while it is in use: what writes a copy to a path, and what puts one
# back.
COPIED_BY = "bench.backup.Server" if DATABASE_URL else "bench.backup.OneFile"
BACKUP_DIR = Path(os.environ.get("GANCHO_BACKUPS", DATA_DIR / "backups"))
CACHES = {
    "default": {"BACKEND": "django.core.cache.backends.locmem.LocMemCache"},
    "pictures": {
        "BACKEND": "django.core.cache.backends.filebased.FileBasedCache",
        "LOCATION": DATA_DIR / ("pictures-of-tests" if TESTING else "pictures"),
        "TIMEOUT": None,
        "OPTIONS": {"MAX_ENTRIES": 2_000},
    },
}
AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",
    "django.contrib.auth.backends.ModelBackend",
]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator"},
    {
        "NAME": "django.contrib.auth.password_validation.MinimumLengthValidator",
        "OPTIONS": {"min_length": 10},
    },
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
]
TEST_RUNNER = "tests.runner.Runner"
if TESTING:
    PASSWORD_HASHERS = [
        "django.contrib.auth.hashers.MD5PasswordHasher"
    ]  # quick; never outside tests
LOGIN_URL = LOGOUT_REDIRECT_URL = "people:sign-in"
LOGIN_REDIRECT_URL = "jobs"
AXES_FAILURE_LIMIT = (
    5  # wrong passwords for one name from one place, then a quarter of an hour's rest
)
AXES_COOLOFF_TIME = timedelta(minutes=15)
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_LOCKOUT_CALLABLE = "bench.people.locked_out"
AXES_VERBOSE = False
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

LANGUAGE_CODE = "en"
LANGUAGES = [("en", "English")]  # another is a catalogue in `locale/` and a line here
LOCALE_PATHS = [BASE_DIR / "locale"]
TIME_ZONE = "UTC"
USE_TZ = True
USE_I18N = True

STATIC_URL = "static/"
# filled by `serve` at its start; by `collectstatic` for another server
STATIC_ROOT = STATIC_DIR
_PLAIN = "django.contrib.staticfiles.storage.StaticFilesStorage"
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": _PLAIN if TESTING else "gancho.static.Hashed"},
}

CSRF_COOKIE_HTTPONLY = True
CSRF_FAILURE_VIEW = "bench.errors.outdated"
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = CSRF_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = HTTPS
SECURE_REFERRER_POLICY = "same-origin"
if HTTPS:
    SECURE_SSL_REDIRECT = True
    SECURE_HSTS_SECONDS = 31_536_000
    SECURE_HSTS_INCLUDE_SUBDOMAINS = HSTS in ("subdomains", "preload")
    SECURE_HSTS_PRELOAD = HSTS == "preload"
SILENCED_SYSTEM_CHECKS = [
    "security.W005",
    "security.W021",
]  # names below this one and browsers' lists: only when asked for
X_FRAME_OPTIONS = "DENY"
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [NONE],
        "script-src": [SELF],
        "style-src": [SELF],
        "font-src": [SELF],
        "img-src": [SELF, "data:"],  # Bootstrap's CSS carries its icons as data addresses
        "connect-src": [SELF],
        "worker-src": [SELF],
        "form-action": [SELF],
        "base-uri": [NONE],
        "frame-ancestors": [NONE],
    }
}
PHOTOS_DIR = DATA_DIR / ("photos-of-tests" if TESTING else "photos")
DATA_UPLOAD_MAX_MEMORY_SIZE = 6_000_000
FILE_UPLOAD_MAX_MEMORY_SIZE = 6_000_000

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING" if TESTING else "INFO"},
    "loggers": {
        name: {"level": "CRITICAL" if TESTING else "INFO"}
        for name in ("django.request", "django.security", "axes")
    },
}
