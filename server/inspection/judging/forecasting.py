"""Forecasts as they are kept: each with what it rests on.

Whatever a forecast rests on marks its machine as stale when it changes; the next one who looks has it checked, and made anew
where its digest says so.
"""

import hashlib
import json
from collections.abc import Sequence
from dataclasses import asdict, replace

from fleet.actions.history import mark_fresh
from fleet.models import Machine
from lumvek_core.catalogue.model import Check
from lumvek_core.forecast.wearing import wearing_of
from shops.models import Shop

from ..models import WearForecast
from ..queries import rule_books
from ..queries.forecasts import Known, know, predict, wearing_checks


def forecasts(machines: Sequence[Machine], shop: Shop, *, paths: bool = False) -> dict[int, list[WearForecast]]:
    """The forecasts of each machine, fresh. Two queries while nothing has changed."""
    bring_up_to_date([machine for machine in machines if machine.wear_stale], shop)
    stored = WearForecast.objects.filter(machine__in=machines)
    found: dict[int, list[WearForecast]] = {machine.pk: [] for machine in machines}
    for one in stored.order_by("machine", "id") if paths else stored.order_by("machine", "id").defer("paths", "rests_on"):
        found[one.machine_id].append(one)
    return found


def bring_up_to_date(stale: Sequence[Machine], shop: Shop) -> None:
    """Make anew what no longer rests on what is known; the number of queries does not grow with the machines, but for
    writing.
    """
    stale = [machine for machine in stale if machine.model.family in rule_books.shipped().families]
    if not stale:
        return
    checks = {machine.pk: wearing_checks(rule_books.now_of(machine, shop)) for machine in stale}
    # Marked as looked at before looking: what is recorded meanwhile marks it again.
    mark_fresh(checks)
    known = know(stale, set().union(*(one.keys() for one in checks.values())))
    had = {
        (one.machine_id, one.check_key): one for one in WearForecast.objects.filter(machine__in=stale).defer("paths", "places")
    }
    made = []
    for machine in stale:
        for key, check in checks[machine.pk].items():
            digest = _digest(known[machine.pk], check)
            old = had.pop((machine.pk, key), None)
            if digest and old and old.digest == digest:
                continue
            if digest and (new := _made(known[machine.pk], check, digest)):
                made.append(new)
            elif old:
                had[machine.pk, key] = old
    WearForecast.objects.filter(pk__in=[one.pk for one in had.values()]).delete()
    WearForecast.objects.bulk_create(
        made,
        update_conflicts=True,
        update_fields=["digest", "made_at", "rests_on", "season", "sizes", "places", "paths"],
    )


def _digest(known: Known, check: Check) -> str:
    """Of everything a forecast is made from; empty where there is nothing to make one from."""
    wearing, coming, places = wearing_of(check), known.coming(), known.places(check)
    if wearing is None or coming is None or not places:
        return ""
    return hashlib.sha256(json.dumps([asdict(wearing), asdict(coming), [asdict(one) for one in places]]).encode()).hexdigest()


def _made(known: Known, check: Check, digest: str) -> WearForecast | None:
    judged, wearing, coming = predict(known, check), wearing_of(check), known.coming()
    if judged is None or wearing is None or coming is None:
        return None
    coming = replace(coming, season_share=judged.season_share)
    return WearForecast(
        machine=known.machine,
        check_key=check.key,
        digest=digest,
        rests_on=sorted(one.key for place in known.places(check) for one in place.readings),
        season=asdict(coming) | {"seasons": judged.seasons},
        sizes={"new": wearing.new, "limit": wearing.limit, "reading_sd": wearing.reading_sd, "life": wearing.life},
        places=[{k: v for k, v in asdict(one).items() if k != "path"} for one in judged.places],
        paths={one.name: [asdict(told) for told in one.path] for one in judged.places},
    )
