"""Faults: from a symptom to its cause by the shortest way, swap tests, and what a recording of a shaking machine says."""
