"""A copy of a backup in another house, by commands of the shop's own: one takes the file there, another reads it back.

``LUMVEK_COPY`` is run by the shell with the file as ``$1`` and its name as ``$2``; ``LUMVEK_COPY_BACK`` writes what lies there
to its standard output, with the name as ``$1``. What comes back must be the file to the last byte.
"""

import hashlib
import os
import subprocess
from pathlib import Path

MOST_S = 3 * 60 * 60
AT_ONCE = 1024 * 1024


class NotCopied(Exception):
    """Why there is no copy elsewhere, in a sentence."""


def wanted() -> bool:
    return bool(os.environ.get("LUMVEK_COPY"))


def copy(file: Path) -> int:
    """Take a file there and read it back. Returns its bytes. Raises NotCopied."""
    there, back = os.environ.get("LUMVEK_COPY", ""), os.environ.get("LUMVEK_COPY_BACK", "")
    if not back:
        raise NotCopied("LUMVEK_COPY_BACK is not set: a copy that nobody reads back is none.")
    _run(there, str(file), file.name)
    digest, length = hashlib.sha256(), 0
    command = ["/bin/sh", "-c", back, "copy-back", file.name]
    with subprocess.Popen(command, stdout=subprocess.PIPE) as reading:  # noqa: S603 - whoever runs the server wrote it
        assert reading.stdout  # noqa: S101 - asked for above
        while part := reading.stdout.read(AT_ONCE):
            digest.update(part)
            length += len(part)
    if reading.returncode:
        raise NotCopied(f"LUMVEK_COPY_BACK ended with {reading.returncode}: the copy could not be read back.")
    with file.open("rb") as ours:
        if hashlib.file_digest(ours, "sha256").digest() != digest.digest():
            raise NotCopied(f"What came back of {file.name} is not the file: {length} bytes of {file.stat().st_size}.")
    return length


def _run(command: str, *arguments: str) -> None:
    try:
        done = subprocess.run(["/bin/sh", "-c", command, "copy", *arguments], check=False, timeout=MOST_S)  # noqa: S603
    except subprocess.TimeoutExpired:
        raise NotCopied(f"LUMVEK_COPY was not done after {MOST_S // 3600} h.") from None
    if done.returncode:
        raise NotCopied(f"LUMVEK_COPY ended with {done.returncode}.")
