"""Wear ahead of time. Needs NumPy, and is loaded only when somebody asks for a forecast."""
