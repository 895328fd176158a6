"""Keys of what is coupled together: a header's carry its prefix, so that header and combine, or two headers, stand in one rule
book.

``draper.knife-sections`` is the check ``knife-sections`` of the draper. Files are written with short keys, and so are parts
that are fitted; nothing outside this module knows how the long ones are made.
"""


def long(prefix: str, key: str) -> str:
    """A key as a rule book has it; without a prefix it stays as it is."""
    return f"{prefix}.{key}" if prefix else key


def short(key: str) -> str:
    """A key as the files write it."""
    return key.rpartition(".")[2]


def prefix_of(key: str) -> str:
    """The header's prefix in a key; empty for the machine's own."""
    return key.rpartition(".")[0]


def renamed(key: str, name: str) -> str:
    """The same key with another short one."""
    return long(prefix_of(key), name)
