"""Simulated stand-ins for outside devices: they make up what a gauge or a test stand would have sent."""
