"""The trade's knowledge as data: what a family is, loading it, and which limits are in force."""
