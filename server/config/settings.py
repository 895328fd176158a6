"""Settings. Everything that differs between machines comes from the environment; docs/deploy.md lists the names.

LUMVEK_MODE is ``serve`` (the default and the strictest), ``demo`` or ``test``.
"""

import os
import sys
from math import log2
from pathlib import Path

from csp.constants import NONCE, NONE, SELF
from django.core.exceptions import ImproperlyConfigured

ROOT = Path(__file__).resolve().parents[2]
sys.path.insert(0, str(ROOT / "core"))  # gunicorn and pytest start here, not in manage.py

MODE = os.environ.get("LUMVEK_MODE", "serve")
if MODE not in ("serve", "demo", "test"):
    raise ImproperlyConfigured("LUMVEK_MODE must be serve, demo or test.")


def needed(name: str) -> str:
    """An environment variable that has no safe default."""
    value = os.environ.get(name, "")
    if not value:
        raise ImproperlyConfigured(f"{name} is not set; docs/deploy.md lists what ./lumvek serve needs.")
    if MODE == "serve" and value.startswith("demo-"):
        raise ImproperlyConfigured(f"{name} is a demo secret; make your own before serving (docs/deploy.md).")
    return value


def bits_in(secret: str) -> float:
    """How much there is to guess, at most: by how evenly its characters are drawn."""
    shares = [secret.count(one) / len(secret) for one in set(secret)]
    return -len(secret) * sum(share * log2(share) for share in shares)


def number(name: str, usual: int) -> int:
    """A whole number above 0 from the environment."""
    text = os.environ.get(name, "") or str(usual)
    if not text.isdecimal() or not int(text):
        raise ImproperlyConfigured(f"{name} must be a whole number above 0.")
    return int(text)


SECRET_KEY = needed("LUMVEK_SECRET_KEY")
if MODE == "serve" and (len(SECRET_KEY) < 40 or bits_in(SECRET_KEY) < 128):
    raise ImproperlyConfigured("LUMVEK_SECRET_KEY must be at least 40 characters, drawn at random.")
DEBUG = False
CATALOGUE_RELOADS = MODE == "demo"
ALLOWED_HOSTS = os.environ.get("LUMVEK_HOSTS", "127.0.0.1 localhost").split()
CSRF_FAILURE_VIEW = "config.pages.forged"
# Whoever stands in front and tells who came to it; nobody else is believed.
PROXIES = frozenset(os.environ.get("LUMVEK_PROXIES", "").split())
CSRF_TRUSTED_ORIGINS = os.environ.get("LUMVEK_ORIGINS", "").split()

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django_otp",
    "django_otp.plugins.otp_totp",
    "django_otp.plugins.otp_static",
    "ninja",
    "csp",
    "guarding",
    "outside",
    "shops",
    "fleet",
    "parts",
    "inspection",
    "report",
    "workbench",
    "supply",
    "logbook",
    "calibration",
    "field",
    "faults",
    "season",
    "keeping",
    "demo",
]

MIDDLEWARE = [
    "config.client_address.of_stated_proxies",
    "config.sizes.refuse_large",
    "django.middleware.security.SecurityMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.middleware.gzip.GZipMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "guarding.pace.keep_pace",
    "config.lane.in_turn",
    "config.clock.tell_time",
    "config.caching.keep_nothing",
]

ROOT_URLCONF = "config.urls"
WSGI_APPLICATION = "config.wsgi.application"
TEMPLATES = [{"BACKEND": "django.template.backends.django.DjangoTemplates", "APP_DIRS": True, "DIRS": [], "OPTIONS": {}}]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.mysql",
        "NAME": os.environ.get("LUMVEK_DB_NAME", "lumvek"),
        "USER": os.environ.get("LUMVEK_DB_USER", "lumvek"),
        "PASSWORD": needed("LUMVEK_DB_PASSWORD"),
        "HOST": os.environ.get("LUMVEK_DB_HOST", "127.0.0.1"),
        "PORT": os.environ.get("LUMVEK_DB_PORT", "3306"),
        "CONN_MAX_AGE": 300,
        "CONN_HEALTH_CHECKS": True,
        "OPTIONS": {
            "charset": "utf8mb4",
            "connect_timeout": 5,
            # Strict mode refuses what does not fit instead of cutting it off.
            "init_command": "SET sql_mode='STRICT_ALL_TABLES', innodb_lock_wait_timeout=10",
            "isolation_level": "read committed",
        },
        "TEST": {"CHARSET": "utf8mb4", "COLLATION": "utf8mb4_unicode_ci"},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTHENTICATION_BACKENDS = ["shops.backend.MemberBackend"]
PASSWORD_HASHERS = ["django.contrib.auth.hashers.Argon2PasswordHasher"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator", "OPTIONS": {"min_length": 12}},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
    {"NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator"},
    {"NAME": "django.contrib.auth.password_validation.NumericPasswordValidator"},
]
# There is one measure for all guessing (guarding/guesses.py): the devices' own would shut their owner out.
OTP_TOTP_THROTTLE_FACTOR = OTP_STATIC_THROTTLE_FACTOR = 0

SECURE = MODE == "serve" and os.environ.get("LUMVEK_PLAIN_HTTP") != "1"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = SECURE
DEVICE_COOKIE_NAME = "device"
if SECURE:  # of this host alone, whoever else there is under its domain
    SESSION_COOKIE_NAME, CSRF_COOKIE_NAME, DEVICE_COOKIE_NAME = "__Host-session", "__Host-csrf", "__Host-device"
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https") if SECURE else None
SECURE_HSTS_SECONDS = 31_536_000 if SECURE else 0
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = CSRF_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_AGE = 60 * 60 * 24 * 14
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [NONE],
        "script-src": [SELF],
        # PrimeVue writes its theme into style elements; each carries the page's nonce.
        "style-src": [SELF, NONCE],
        "img-src": [SELF, "data:"],
        "font-src": [SELF],
        "connect-src": [SELF],
        "manifest-src": [SELF],
        "base-uri": [NONE],
        "form-action": [SELF],
        "frame-ancestors": [NONE],
    }
}

LANGUAGE_CODE = "en-gb"
TIME_ZONE = os.environ.get("LUMVEK_TIME_ZONE", "UTC")
USE_TZ = True

# Where web workers of one machine share out what costs much (config/lane.py).
LANE = ROOT / ".lumvek" / "lane"
WEB_DIST = ROOT / "web" / "dist"
STATIC_URL = "/static/"

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {"line": {"format": "{asctime} {levelname} {name} {message}", "style": "{"}},
    "filters": {"discreet": {"()": "config.access_log.WithoutSecrets"}},
    "handlers": {"console": {"class": "logging.StreamHandler", "formatter": "line", "filters": ["discreet"]}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}

# The suppliers' desk, and where e-mail goes: to a folder while trying things out, to the configured host when serving.
DESK_URL = os.environ.get("LUMVEK_DESK_URL", "")
# Where machines with a modem send their counters.
TELEMATICS_URL = os.environ.get("LUMVEK_TELEMATICS_URL", "")
FORECAST_URL = os.environ.get("LUMVEK_FORECAST_URL", "")
# What talks to somebody outside is done in a thread beside; tests do it at once.
BACKGROUND = True
DEFAULT_FROM_EMAIL = os.environ.get("LUMVEK_EMAIL_FROM", "parts@lumvek.invalid")
EMAIL_HOST = os.environ.get("LUMVEK_EMAIL_HOST", "")
EMAIL_TLS = os.environ.get("LUMVEK_EMAIL_TLS", "starttls")
if EMAIL_TLS not in ("starttls", "tls", "none"):
    raise ImproperlyConfigured("LUMVEK_EMAIL_TLS must be starttls, tls or none.")
EMAIL_USE_TLS, EMAIL_USE_SSL = EMAIL_TLS == "starttls", EMAIL_TLS == "tls"
EMAIL_PORT = number("LUMVEK_EMAIL_PORT", {"starttls": 587, "tls": 465, "none": 25}[EMAIL_TLS])
EMAIL_HOST_USER = os.environ.get("LUMVEK_EMAIL_USER", "")
EMAIL_HOST_PASSWORD = os.environ.get("LUMVEK_EMAIL_PASSWORD", "")
EMAIL_TIMEOUT = number("LUMVEK_EMAIL_TIMEOUT", 10)
# Whether letters go out at all; while trying things out without a mail server they go into a folder.
MAILS = MODE != "serve" or bool(EMAIL_HOST)
OTP_TOTP_ISSUER = "Lumvek"
if not EMAIL_HOST:
    EMAIL_BACKEND = "django.core.mail.backends.filebased.EmailBackend"
    EMAIL_FILE_PATH = str(ROOT / ".lumvek" / "mail")
