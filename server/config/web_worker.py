"""gunicorn's threaded worker, but for one thing: nobody waits for a client that does not hang up.

After an answer that ends its connection gunicorn waits up to two seconds for the client to close as well, in the one loop that
takes every new connection: a client that keeps its end open stopped the whole worker. Here that is waited for aside.
"""

from concurrent.futures import Future, ThreadPoolExecutor
from functools import partial
from typing import Any

from gunicorn.workers.gthread import TConn, ThreadWorker

AT_ONCE = 8


class WebWorker(ThreadWorker):  # type: ignore[misc]  # it comes without types
    """Threads for requests, and a few that see connections to their end."""

    def __init__(self, *given: Any, **more: Any) -> None:
        super().__init__(*given, **more)
        self.closing = ThreadPoolExecutor(AT_ONCE, "closing")

    def finish_request(self, conn: TConn, fs: "Future[Any]") -> None:
        conn.close = partial(self._close, conn)
        super().finish_request(conn, fs)

    def _close(self, conn: TConn, graceful: bool = False) -> None:
        if graceful:
            self.closing.submit(TConn.close, conn, graceful=True)
        else:
            TConn.close(conn)
