"""A mail server on loopback that takes letters, or misbehaves in one of the ways that mail servers do."""

import socketserver
import threading
import time
from dataclasses import dataclass, field
from email import message_from_string
from email.message import Message

SILENT_S = 30


@dataclass
class MailServer:
    """mode: ``takes``, ``silent`` (says nothing), ``knows nobody`` (refuses every address), ``refuses`` (the letter),
    ``breaks off`` (hangs up when it has the letter) or ``swallows`` (takes it, and hangs up without a word).

    letters: what it took.
    """

    mode: str = "takes"
    letters: list[Message] = field(default_factory=list)
    port: int = 0

    def __enter__(self) -> "MailServer":
        known = self

        class Handler(socketserver.StreamRequestHandler):
            def handle(self) -> None:
                known._talk(self)

        self._server = socketserver.ThreadingTCPServer(("127.0.0.1", 0), Handler)
        self._server.daemon_threads = True
        self._server.block_on_close = False
        self.port = self._server.server_address[1]
        threading.Thread(target=self._server.serve_forever, daemon=True).start()
        return self

    def __exit__(self, *_: object) -> None:
        self._server.shutdown()
        self._server.server_close()

    def _talk(self, line: socketserver.StreamRequestHandler) -> None:
        if self.mode == "silent":
            time.sleep(SILENT_S)
            return
        say = lambda text: line.wfile.write(text.encode() + b"\r\n")  # noqa: E731
        say("220 simulated")
        while asked := line.rfile.readline().decode().strip():
            match asked.split()[0].upper():
                case "QUIT":
                    say("221 goodbye")
                    return
                case "RCPT" if self.mode == "knows nobody":
                    say("550 nobody of that name")
                case "DATA":
                    say("354 go on")
                    lines = list(iter(lambda: line.rfile.readline().decode().rstrip("\r\n"), "."))
                    if self.mode == "refuses":
                        say("554 not this one")
                        continue
                    if self.mode != "breaks off":
                        self.letters.append(message_from_string("\n".join(lines)))
                    if self.mode in ("breaks off", "swallows"):
                        return
                    say("250 taken")
                case _:
                    say("250 fine")
