"""The calculations of the trade, one module a subject, entered in the registry by ``@calculator``."""
