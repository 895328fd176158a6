"""The application for gunicorn. Static files of the built front end are served from their folder, without a copy step."""

import os

from django.core.wsgi import get_wsgi_application
from whitenoise import WhiteNoise

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")

_django = get_wsgi_application()

from django.conf import settings  # noqa: E402  (settings are ready only now)

from inspection.queries import rule_books  # noqa: E402

rule_books.shipped()  # read now rather than while the first technician waits

application = WhiteNoise(
    _django,
    root=str(settings.WEB_DIST),
    prefix="static/",
    immutable_file_test=lambda path, url: "/assets/" in url,
)
