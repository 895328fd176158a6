"""All subjects of the bench, in the order they are shown."""

from . import chains, combine, cutting, forecast, planter, seed, settings, upkeep
from .model import Subject

SUBJECTS: dict[str, Subject] = {
    subject.key: subject
    for subject in (
        *planter.SUBJECTS,
        *seed.SUBJECTS,
        *chains.SUBJECTS,
        *cutting.SUBJECTS,
        *combine.SUBJECTS,
        *settings.SUBJECTS,
        *upkeep.SUBJECTS,
        *forecast.SUBJECTS,
    )
}


def subject_of(calculator: str) -> str:
    """The subject that a calculation belongs to; empty where there is none."""
    return next((one.key for one in SUBJECTS.values() if calculator and calculator in one.calculators), "")
