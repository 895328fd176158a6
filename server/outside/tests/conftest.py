"""A mail server that takes letters or misbehaves, and time that passes when it is told to."""

import pytest

from testing.mail_server import MailServer


@pytest.fixture
def post(settings):
    """The installation's mail server: post.mode = "silent"."""
    with MailServer() as server:
        settings.EMAIL_BACKEND = "django.core.mail.backends.smtp.EmailBackend"
        settings.EMAIL_HOST, settings.EMAIL_PORT = "127.0.0.1", server.port
        settings.EMAIL_USE_TLS = settings.EMAIL_USE_SSL = False
        settings.EMAIL_TIMEOUT = 0.5
        yield server
