"""The season's work on a shop's machines: who does what, where and when."""
