"""The application for gunicorn. Static files of the built front end are served from their folder, without a copy step."""

import os
from wsgiref.headers import Headers

from django.core.wsgi import get_wsgi_application
from whitenoise import WhiteNoise

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")

_django = get_wsgi_application()

from django.conf import settings  # noqa: E402  (settings are ready only now)

from inspection.queries import rule_books  # noqa: E402
from lumvek_core import apart  # noqa: E402

# Now rather than while the first technician waits.
rule_books.shipped()
apart.make_ready("weasyprint", "openpyxl")


WORKER = "/static/worker.js"


def _guarded(headers: Headers, path: str, url: str) -> None:
    """The front end's files are parts of its page; none is a page by itself, nor in anybody else's frame."""
    headers["Content-Security-Policy"] = "default-src 'none'; frame-ancestors 'none'"
    if url == WORKER:
        # It lays the product's own files on the device, and answers for every screen of it.
        headers["Content-Security-Policy"] = "default-src 'none'; script-src 'self'; connect-src 'self'; frame-ancestors 'none'"
        headers["Service-Worker-Allowed"] = "/"
    headers["X-Frame-Options"], headers["X-Content-Type-Options"] = "DENY", "nosniff"
    headers["Referrer-Policy"] = "same-origin"


application = WhiteNoise(
    _django,
    add_headers_function=_guarded,
    root=str(settings.WEB_DIST),
    prefix="static/",
    immutable_file_test=lambda path, url: "/assets/" in url,
)
