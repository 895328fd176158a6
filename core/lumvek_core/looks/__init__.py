"""What good and bad look like: each state of a thing as a small drawing made from numbers, so that the states of one motif are
the same drawing further worn. The screens, the catalogue page and the report draw the same strokes.
"""
