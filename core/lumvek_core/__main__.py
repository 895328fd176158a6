"""Command line of the calculators: JSON on standard input, JSON on standard output.

Exit 0 with the result, or exit 2 with nothing on standard output and the error object on standard error.
"""

import json
import sys

from . import registry
from .errors import BadInput

USAGE = """usage: ./lumvek calc NAME < input.json    calculate: JSON in, JSON out
       ./lumvek calc --list            the names
       ./lumvek calc --help NAME       what one does, and its input"""


def main(arguments: list[str]) -> int:
    """Run one calculation, list them all, or explain one."""
    try:
        match arguments:
            case ["--list"]:
                for name, entry in registry.calculators().items():
                    print(f"{name:16} {entry.summary}")
            case ["--help", name]:
                _explain(registry.find(name))
            case ["--help"] | ["-h"] | []:
                print(USAGE, file=sys.stdout if arguments else sys.stderr)
                return 0 if arguments else 2
            case [name]:
                entry = registry.find(name)
                print(json.dumps(entry.run(_read_input()), allow_nan=False, ensure_ascii=False))
            case _:
                raise BadInput("", "give one name; ./lumvek calc --list shows them")
    except BadInput as problem:
        print(json.dumps(problem.as_dict(), ensure_ascii=False), file=sys.stderr)
        return 2
    return 0


def _read_input() -> object:
    try:
        return json.loads(sys.stdin.buffer.read())
    except (ValueError, RecursionError):
        # UnicodeDecodeError and JSONDecodeError are both ValueErrors.
        raise BadInput("", "the input is not JSON") from None


def _explain(entry: registry.Calculator) -> None:
    from .structure import schema

    print(entry.description, "\n\ninput:\n", json.dumps(schema(entry.given), indent=2), sep="")


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
