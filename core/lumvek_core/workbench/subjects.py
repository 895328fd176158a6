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
