"""The trade in plain Python: units, calculators, judgement, catalogue. Knows no web, no database and no clock."""
