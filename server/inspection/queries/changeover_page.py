"""The page before a changeover: what is to be set otherwise, where, with what, and what is calibrated afterwards."""

from collections.abc import Sequence
from typing import Literal

from fleet.models import Machine
from fleet.queries.machines import machines_for
from lumvek_core import positions
from lumvek_core.calculators.calibrations_due import CALIBRATED
from lumvek_core.catalogue import calibration
from lumvek_core.catalogue.model import Check, Setting
from lumvek_core.catalogue.rounds import CHANGEOVER
from lumvek_core.coupled import short
from lumvek_core.looks.wanted import motif_of
from lumvek_core.planning.changeover import Changeover
from lumvek_core.rules.fitted import FittedRule
from shops.models import Member

from ..schemas_changeover import (
    CalibrationAheadOut,
    ChangeItemOut,
    ChangeoverAsked,
    ChangeoverOut,
    ChangePlaceOut,
    ChangeVisitOut,
    GrownOut,
    WantedStateOut,
)
from . import changeover, preparing, rule_books, serializers
from .stands_now import coupled_now


def page(member: Member, machine: Machine, asked: ChangeoverAsked) -> ChangeoverOut:
    """What there is to choose, and the list for what was chosen; without a crop only what there is to choose."""
    families = rule_books.shipped().families
    takes = families[machine.model.family].takes_headers
    headers = [one for one in machines_for(member) if takes and families[one.model.family].is_header]
    own = set(machine.headers_of.values_list("pk", flat=True)) if headers else set()
    running = machine.walk_arounds.filter(phase=CHANGEOVER, finished_at=None, discarded_at=None).first()
    now = coupled_now(machine)
    coupled = [now.pk] if now else []
    listed = _Listed(member, machine, asked, coupled) if asked.crop else None
    return ChangeoverOut(
        machine=serializers.machine_out(machine),
        headers=[serializers.machine_out(one) for one in sorted(headers, key=lambda one: one.pk not in own)],
        coupled=coupled,
        grown=[GrownOut(name=one["name"], group=one["group"]) for one in member.shop.crops],
        running=running.pk if running else None,
        visits=listed.visits() if listed else [],
        right=listed.names(listed.found.right) if listed else [],
        kept=listed.names(listed.found.kept) if listed else [],
        tools=listed.tools() if listed else [],
        moving_min=listed.found.moving_min if listed else 0,
        work_min=listed.found.work_min if listed else 0,
        hands=listed.found.hands if listed else 1,
        calibrations=listed.calibrations() if listed else [],
    )


class _Listed:
    """The list for one crop, in words."""

    def __init__(self, member: Member, machine: Machine, asked: ChangeoverAsked, coupled: Sequence[int]) -> None:
        self.coupled = coupled
        crops = changeover.Crops(asked.crop, asked.then_crop, asked.then_days)
        self.ready = preparing.scope(member, machine, preparing.Wanted(CHANGEOVER, asked.crop, asked.headers))
        self.checks = {check.key: check for check in self.ready.checks}
        machines = [machine, *self.ready.headers]
        self.found: Changeover = changeover.found(self.ready.book, machines, self.ready.checks, self.ready.layout, crops)

    def names(self, keys: Sequence[str]) -> list[str]:
        return [self.checks[key].name for key in keys]

    def tools(self) -> list[str]:
        keys = [key for visit in self.found.visits for key in visit.keys]
        return sorted({tool for key in keys for tool in self.checks[key].tools}, key=str.lower)

    def visits(self) -> list[ChangeVisitOut]:
        postures = self.ready.book.postures
        return [
            ChangeVisitOut(
                posture=visit.posture,
                lock=postures[visit.posture].lock,
                cautions=postures[visit.posture].cautions,
                minutes=visit.minutes,
                items=[self._item(self.checks[key]) for key in visit.keys],
            )
            for visit in self.found.visits
        ]

    def _item(self, check: Check) -> ChangeItemOut:
        change = next((one for one in self.found.change if one.key == check.key), None)
        ask = next((one.places for one in self.found.ask if one.key == check.key), [])
        states = {one.key: one for one in check.rule.states()}
        places = [
            *((place, "", "") for place in ask),
            *((one.place, one.now, one.to) for one in (change.places if change else [])),
        ]
        setting = check.setting or Setting()
        fitted = check.rule if isinstance(check.rule, FittedRule) else None
        to = next((one for one in fitted.options if change and one.key == change.places[0].to), None) if fitted else None
        now = {one.now for one in change.places} if change else set()
        return ChangeItemOut(
            check=check.key,
            name=check.name,
            station=self.ready.book.station_of[check.key].name,
            todo=self._todo(check.key),
            places=[
                ChangePlaceOut(
                    label=positions.find(place).label,
                    now=states[is_].name if is_ else "",
                    now_state=is_,
                    to=states[will].name if will else "",
                    to_state=will,
                )
                for place, is_, will in sorted(places, key=lambda one: positions.reading_order(one[0]))
            ],
            states=[
                WantedStateOut(key=one.key, name=one.name, wanted=one.key in self.wanted(check))
                for one in states.values()
                if one.severity == "sound"
            ],
            how=check.how,
            mends=to.mends if to else "",
            look=motif_of(check),
            minutes=change.minutes if change else 0 if ask else setting.minutes,
            hands=setting.hands,
            back=bool(change and change.back),
            grave=bool(fitted and any(one.key in now and one.wrong == "stop" for one in fitted.options)),
            tools=check.tools,
            cautions=[self.ready.book.hazards[name] for name in check.hazards],
        )

    def wanted(self, check: Check) -> list[str]:
        """The states the crop would have."""
        crop = self.ready.scope.crop
        if not isinstance(check.rule, FittedRule):
            return []
        schools = self.ready.book.schools
        return [one.key for one in check.rule.wanted(crop, schools) or check.rule.lasting(crop, schools)]

    def _todo(self, key: str) -> Literal["set", "ask", "manual", "do"]:
        if any(one.key == key for one in self.found.change):
            return "set"
        return "manual" if key in self.found.manual else "do" if key in self.found.do else "ask"

    def calibrations(self) -> list[CalibrationAheadOut]:
        """What the change makes due, in the order it is done."""
        machine, headers = self.ready.machine, self.ready.headers
        changed = {calibration.SET + short(one.key): f"{self.checks[one.key].name}" for one in self.found.change}
        because = {"crop": "another crop", **changed}
        if {one.pk for one in headers} != set(self.coupled) and headers:
            because["header"] = f"{headers[0].name} coupled"
        coupled = [(one.model.family, one.options) for one in headers]
        found: list[CalibrationAheadOut] = []
        for one in rule_books.shipped().calibrations.of(machine.model.family, machine.options, coupled):
            due = {because[event] for event in one.due_after if event in because}
            due |= {before.name.lower() for before in found if CALIBRATED + before.key in one.due_after}
            if due:
                found.append(CalibrationAheadOut(key=one.key, name=one.name, because=", ".join(sorted(due))))
        return found
