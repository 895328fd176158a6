"""What is asked when a machine is added: kinds, options with a picture, numbers of things, sizes; and how a machine stands."""

from fleet.models import Machine, MachineModel
from fleet.queries import pictures
from fleet.queries.machines import machines_for
from lumvek_core.catalogue import in_force
from lumvek_core.catalogue.model import Check, Family
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.counted import noun
from lumvek_core.coupled import short
from lumvek_core.looks.wanted import looks_of
from lumvek_core.rules import figures
from lumvek_core.units import System, show_length
from shops.models import Member, Role
from shops.rights import may

from ..schemas_machines import (
    CountedOut,
    DrawnOut,
    HasOut,
    KindOut,
    KindsOut,
    MachinePictureOut,
    ModelBriefOut,
    NamedOut,
    OptionPictureOut,
    ParticularsOut,
    SizeOut,
)
from . import limits, rule_books, serializers


def kinds(member: Member) -> KindsOut:
    """Everything that the form needs. Four queries."""
    families = rule_books.shipped().families
    models = list(MachineModel.objects.of(member).order_by("maker", "name"))
    combines = [one for one in machines_for(member) if families[one.model.family].takes_headers]
    people = Member.objects.of(member).filter(left_at=None, roles__contains=[Role.OWNER]).select_related("user")
    return KindsOut(
        kinds=[
            _kind(member, family, [one for one in models if one.family == key])
            for key, family in sorted(families.items(), key=lambda one: (one[1].is_header, one[1].name))
        ],
        owners=[NamedOut(id=one.pk, name=one.name) for one in people],
        combines=[NamedOut(id=one.pk, name=one.name) for one in combines],
    )


def _kind(member: Member, family: Family, models: list[MachineModel]) -> KindOut:
    book = in_force.rule_book(rule_books.shipped(), family.family, schools=member.shop.schools)
    rows = next((thing.count for key, thing in family.things.items() if key.endswith("row")), 0)
    return KindOut(
        family=family.family,
        name=family.name,
        flow=family.flow,
        sign=max(family.stations, key=lambda station: len(station.checks)).key,
        is_header=family.is_header,
        takes_headers=family.takes_headers,
        has_rows=bool(rows),
        rows=rows,
        counter=family.counter,
        options=[_choice(family, key, name) for key, name in family.options.items()],
        counts=counts(family, {}),
        sizes=sizes(book, serializers.system_of(member)),
        models=[model_brief(family, one) for one in models],
    )


def model_brief(family: Family, model: MachineModel) -> ModelBriefOut:
    return ModelBriefOut(id=model.pk, maker=model.maker, name=model.name, counts=counts(family, model.counts))


def counts(family: Family, own: dict[str, int]) -> list[CountedOut]:
    """How many of each thing; rows are counted on the machine."""
    return [
        CountedOut(thing=short(key), name=thing.name, many=noun(2, thing.name), count=own.get(short(key), thing.count))
        for key, thing in family.things.items()
        if not thing.places and not key.endswith("row")
    ]


def _choice(family: Family, key: str, name: str) -> HasOut:
    """An option, with a picture of what it is: of the first thing drawn among its checks, else the sign of their station."""
    here = [
        (station.key, check)
        for station in family.stations
        for check in station.checks
        if key in check.wanted_options or key in check.unless
    ]
    brought = [(at, check) for at, check in here if key in check.wanted_options]
    drawn = next((look for _, check in brought for look in looks_of(check)[:1]), None)
    return HasOut(
        key=short(key),
        name=name,
        checks=len(here),
        picture=OptionPictureOut(
            motif=drawn.motif if drawn else "",
            state=drawn.state if drawn else "",
            sign=(brought or here)[0][0] if here else "",
        ),
    )


def sizes(book: CoreBook, system: System) -> list[DrawnOut]:
    """The sizes that a model has of its own, a check each, those with a drawing first."""
    checks = [(station.name, check) for station in book.family.stations for check in station.checks]
    found = [_drawn(station, check, book, system) for station, check in checks if check.rule.sizes()]
    return sorted(found, key=lambda one: not one.drawing)


def _drawn(station: str, check: Check, book: CoreBook, system: System) -> DrawnOut:
    in_force_here = book.limits[check.key]
    return DrawnOut(
        check=check.key,
        name=check.name,
        station=station,
        how=check.how,
        drawing=check.drawing or "",
        limits={name: limit.value for name, limit in in_force_here.items()},
        figures=limits.of_check(book, check, system),
        sizes=[
            SizeOut(
                check=check.key,
                figure=name,
                check_name=check.name,
                name=figures.name(check, name),
                station=station,
                shown=figures.shown(check, name, float(in_force_here[name].value), system) if name in in_force_here else "",
                unit=figures.unit(check, name),
            )
            for name in check.rule.sizes()
        ],
    )


def particulars(member: Member, machine: Machine) -> ParticularsOut:
    """How a machine stands, to be changed."""
    family, system = rule_books.shipped().families[machine.model.family], serializers.system_of(member)
    return ParticularsOut(
        name=machine.name,
        serial=machine.serial,
        rows=machine.rows,
        track_rows=machine.track_rows,
        options=machine.options,
        season_date=machine.season_date,
        priority=machine.priority,  # type: ignore[arg-type]
        row_spacing=_shown(machine.row_spacing_mm, system),
        folded_width=_shown(machine.folded_width_mm, system),
        folded_height=_shown(machine.folded_height_mm, system),
        owners=[one.pk for one in machine.owners.all()],
        goes_with=[one.pk for one in machine.goes_with.all()],
        machine=serializers.machine_out(machine),
        model=model_brief(family, machine.model),
        family=family.family,
        gone=machine.gone,
        gone_on=machine.gone_on,
        may_change=may(member, "change machines"),
        asked=[_choice(family, key, name) for key, name in family.options.items()],
        pictures=[
            MachinePictureOut(
                uuid=one.uuid,
                what=one.what,  # type: ignore[arg-type]
                path=f"/api/machines/{machine.pk}/pictures/{one.uuid}",
                by=serializers.full_name(one.by),
                at=one.at,
            )
            for one in pictures.of_machine(machine)
        ],
    )


def _shown(length: float | None, system: System) -> str:
    return "" if length is None else show_length(length, system)
