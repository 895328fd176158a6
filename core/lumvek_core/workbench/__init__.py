"""The bench: each calculation as a subject that anybody can work at without a machine, from typed text to an answer with its why."""
