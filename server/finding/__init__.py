"""One search over all that a shop has: an app without tables of its own."""
