"""From what was typed to a verdict, and from verdicts to parts."""
