"""Solvers that need SciPy. Nothing of the verdict path comes here; they are loaded when they are used."""
