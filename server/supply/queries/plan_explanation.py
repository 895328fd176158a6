"""Saying why a plan is as it is, in sentences with the figures."""

import datetime as dt
from typing import Any

from lumvek_core.counted import counted


def sentences(answer: dict[str, Any], currency: str) -> list[str]:
    """Why the cheapest plan drives where it drives, what a day earlier and more certainty cost, and what cannot be."""
    found = [_drive(reason, currency) for reason in answer["reasons"]]
    if earlier := answer["one_day_earlier"]:
        day = _day(earlier["last_arrival"])
        found.append(f"Everything by {day} at the latest costs {_more(earlier['extra_cost'], currency)}.")
    if surer := answer["surer"]:
        gain = round(100 * surer["extra_p"], 1)
        found.append(
            f"The surest plan costs {_more(surer['extra_cost'], currency)} and is {counted(gain, 'point')} surer to have "
            "all in time."
        )
    if answer["able"]:
        found.append(
            f"{' and '.join(answer['able'])} {'has' if len(answer['able']) == 1 else 'have'} everything that is needed to run."
        )
    else:
        found.append("No supplier alone has everything that is needed to run.")
    return found


def _drive(reason: dict[str, Any], currency: str) -> str:
    where, day = reason["supplier"], _day(reason["date"])
    if not reason["drives"]:
        if reason["extra_cost"] is None:
            return f"Not to {where} on {day}: whether it would pay was not worked out in time."
        if reason["extra_cost"] < 0.005:
            return f"Driving to {where} on {day} would come to the same."
        return f"Not to {where} on {day}: the same parts would cost {reason['extra_cost']:.2f} {currency} more with that trip."
    if reason["more_late"]:
        n = reason["more_late"]
        return f"To {where} on {day}: without it {counted(n, 'line comes', 'lines come')} too late or not at all."
    if reason["extra_cost"] is None:
        return f"To {where} on {day}."
    return f"To {where} on {day}: without that trip the same parts cost {reason['extra_cost']:.2f} {currency} more."


def _more(extra: float, currency: str) -> str:
    return f"{extra:.2f} {currency} more" if extra >= 0.005 else "nothing more"


def _day(date: str) -> str:
    return f"{dt.date.fromisoformat(date):%A}"
