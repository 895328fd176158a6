"""What is recorded of an inspection.

A reading is never changed or removed: a correction is a new reading that replaces the older one. A verdict row says which
reading is in force at a position and what the rules make of it; it can be recomputed from the readings and the rule book.
"""

from .pictures import NotePhoto, OperatorNote, Photo, PinnedPicture, StripPicture
from .readings import Decision, PlacesBefore, Reading, SetAside, Standing, Verdict, WearForecast
from .walk_arounds import CheckVersion, HandOver, PostureHold, RuleBook, WalkAround, WalkAroundEvent

__all__ = [
    "CheckVersion",
    "Decision",
    "HandOver",
    "NotePhoto",
    "OperatorNote",
    "Photo",
    "PinnedPicture",
    "PlacesBefore",
    "PostureHold",
    "Reading",
    "RuleBook",
    "SetAside",
    "Standing",
    "StripPicture",
    "Verdict",
    "WalkAround",
    "WalkAroundEvent",
    "WearForecast",
]
