"""The product under torture: the demo's launcher with an instance of its own, and the line between it and its devices."""

import contextlib
import os
import signal
import socket
import struct
import subprocess
import threading
import time
import urllib.request
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
NAME = "torture"
HOME = ROOT / ".lumvek" / NAME


def shell(*lines: str) -> str:
    program = "\n".join([". scripts/common.sh", ". scripts/database.sh", f"instance {NAME} demo >&2", *lines])
    return subprocess.run(["bash", "-c", program], cwd=ROOT, capture_output=True, text=True, check=True).stdout.strip()


def database(statement: str) -> list[str]:
    return shell(f'sql lumvek -e "{statement}"').split()


def numbers_in(file: Path) -> list[int]:
    return [int(word) for word in file.read_text().split() if word.isdecimal()] if file.exists() else []


def kill(process: int, how: signal.Signals = signal.SIGKILL) -> None:
    with contextlib.suppress(ProcessLookupError):
        os.kill(process, how)


class Product:
    """The demo's launcher with an instance of its own."""

    def __init__(self) -> None:
        self.launcher: subprocess.Popen[bytes] | None = None
        self.url = ""

    def start(self, *how: str) -> None:
        environment = {key: value for key, value in os.environ.items() if not key.startswith(("LUMVEK_", "PYTHONPATH"))}
        self.launcher = subprocess.Popen(
            ["./lumvek", "demo", *how],
            cwd=ROOT,
            env=environment | {"LUMVEK_INSTANCE": NAME, "LUMVEK_PORT": "8920"},
            stdout=(ROOT / f".lumvek/logs/{NAME}.log").open("ab"),
            stderr=subprocess.STDOUT,
            start_new_session=True,
        )
        for _ in range(1800):
            said = (HOME / "run").read_text() if (HOME / "run").exists() else ""
            if said.startswith(f"{self.launcher.pid} ") or self.launcher.poll() is not None:
                break
            time.sleep(0.1)
        else:
            raise RuntimeError(f"it did not start; .lumvek/logs/{NAME}.log says why")
        if self.launcher.poll() is not None:
            raise RuntimeError(f"it ended instead of starting; .lumvek/logs/{NAME}.log says why")
        url = said.split()[1]
        assert self.url in ("", url), f"another address than before: {url}, what waits in a browser belongs to {self.url}"
        self.url = url
        self.wait()

    def wait(self) -> None:
        for _ in range(600):
            try:
                urllib.request.urlopen(self.url + "/health", timeout=2)
            except OSError:
                time.sleep(0.1)
            else:
                return
        raise RuntimeError("it does not answer any more")

    def server(self) -> int:
        return numbers_in(HOME / "pids")[0]

    def workers(self) -> list[int]:
        return numbers_in(Path(f"/proc/{self.server()}/task/{self.server()}/children"))

    def stop(self) -> None:
        if self.launcher and self.launcher.poll() is None:
            self.launcher.terminate()
            self.launcher.wait(60)


class Line:
    """The way between devices and the product, which can be cut and can lose answers."""

    def __init__(self, product: Product) -> None:
        self.product = product
        self.open: set[socket.socket] = set()
        self.loses = False
        self.held = threading.Lock()
        self.door = socket.create_server(("127.0.0.1", 0))
        self.port = self.door.getsockname()[1]
        threading.Thread(target=self._accept, daemon=True).start()

    def _accept(self) -> None:
        while True:
            device, _ = self.door.accept()
            threading.Thread(target=self._join, args=(device,), daemon=True).start()

    def _join(self, device: socket.socket) -> None:
        try:
            server = socket.create_connection(("127.0.0.1", int(self.product.url.rpartition(":")[2])), timeout=20)
        except OSError:
            device.close()
            return
        with self.held:
            self.open |= {device, server}
        threading.Thread(target=self._pass, args=(device, server, False), daemon=True).start()
        self._pass(server, device, True)

    def _pass(self, one: socket.socket, other: socket.socket, answers: bool) -> None:
        try:
            while said := one.recv(65536):
                if answers and self.loses:
                    break
                other.sendall(said)
        except OSError:
            pass
        for end in (one, other):
            self._cut(end)

    def _cut(self, end: socket.socket) -> None:
        with self.held:
            self.open.discard(end)
        try:
            end.setsockopt(socket.SOL_SOCKET, socket.SO_LINGER, struct.pack("ii", 1, 0))  # broken off, not ended
            end.shutdown(socket.SHUT_RDWR)
        except OSError:
            pass
        end.close()

    def cut(self) -> None:
        with self.held:
            ends = list(self.open)
        for end in ends:
            self._cut(end)
