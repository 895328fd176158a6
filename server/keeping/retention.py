"""Which nightly backups stay: by days and weeks, so that many in one day push out nothing of the days before."""

import datetime as dt
from collections.abc import Iterable

DAYS, WEEKS = 14, 8
NAME = "lumvek-%Y%m%d-%H%M%S.zip"


def name_at(moment: dt.datetime) -> str:
    """What a backup of this moment is called (UTC)."""
    return moment.astimezone(dt.UTC).strftime(NAME)


def made_at(name: str) -> dt.datetime | None:
    """When a backup of this name was made; None where it is no such name."""
    try:
        return dt.datetime.strptime(name, NAME).replace(tzinfo=dt.UTC)
    except ValueError:
        return None


def staying(names: Iterable[str], days: int = DAYS, weeks: int = WEEKS) -> set[str]:
    """The newest of each of the last `days` days and `weeks` weeks *that have one*: neither a clock that jumped ahead nor a
    month without backups takes anything away. What has another name stays.
    """
    moments = {name: made_at(name) for name in names}
    stay = {name for name, moment in moments.items() if moment is None}
    dated = sorted(((moment, name) for name, moment in moments.items() if moment), reverse=True)
    for of_one, most in ((dt.datetime.date, days), (lambda moment: moment.isocalendar()[:2], weeks)):
        newest: dict[object, str] = {}
        for moment, name in dated:
            newest.setdefault(of_one(moment), name)
        stay |= set(list(newest.values())[:most])
    return stay
