"""The rules a check can be judged by: one module a kind.

A kind is a dataclass of its limits, written as it stands in the catalogue, with everything else that is to be known of it: what
can be answered, what it looks at besides its own reading, how it judges, and what a drawing is told. Everything that lists
kinds – catalogue, limits, entry, exchange, stand-ins, types of the front end – asks `kinds.kinds()`. docs/rules.md says how to
add one.
"""
