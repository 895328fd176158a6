"""Whoever is asked outside is asked at the address of the installation, and nowhere else."""

import http.server
import threading

import pytest
import urllib3

from outside import calls


@pytest.fixture
def elsewhere():
    """Two addresses on this machine: the first says that it lies at the second, which notes who comes."""
    came = []

    class Second(http.server.BaseHTTPRequestHandler):
        def do_GET(self):
            came.append(self.path)
            self.send_response(200)
            self.end_headers()

        log_message = lambda *_: None  # noqa: E731

    second = http.server.HTTPServer(("127.0.0.1", 0), Second)

    class First(Second):
        def do_GET(self):
            self.send_response(302)
            self.send_header("Location", f"http://127.0.0.1:{second.server_port}/secret")
            self.end_headers()

    first = http.server.HTTPServer(("127.0.0.1", 0), First)
    for server in (first, second):
        threading.Thread(target=server.serve_forever, daemon=True).start()
    yield f"http://127.0.0.1:{first.server_port}/health", came
    for server in (first, second):
        server.shutdown()
        server.server_close()


@pytest.mark.parametrize("retries", [False, urllib3.Retry(2), urllib3.Retry(0)])
def test_who_says_that_it_lies_elsewhere_is_not_followed(retries, elsewhere):
    address, came = elsewhere
    with pytest.raises(calls.Silent):
        calls.call(urllib3.PoolManager(retries=retries), "GET", address, 1000)
    assert came == []
