"""How long what is typed may be: said in the described API, so that a field can stop there."""

from typing import Annotated

from pydantic import StringConstraints

Key = Annotated[str, StringConstraints(max_length=100)]
"""What is picked, not typed: keys of checks, places, parts."""
Figure = Annotated[str, StringConstraints(max_length=40)]
"""A measure, an amount or a day as it was typed."""
Line = Annotated[str, StringConstraints(max_length=200)]
"""A name, or a sentence."""
Said = Annotated[str, StringConstraints(max_length=500)]
"""What is typed at a check: a figure as a rule, words where it is kept in words."""
Secret = Annotated[str, StringConstraints(max_length=128)]
"""A password or a key: hashing a longer one would cost more than it protects."""
