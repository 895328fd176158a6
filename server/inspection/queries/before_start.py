"""The page before a walk-around: what may be chosen, and what the choice would bring."""

from fleet.models import Machine
from fleet.queries.machines import machines_for
from lumvek_core import positions
from lumvek_core.catalogue import in_force, rounds
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.vocabulary import CROP_NAMES, PHASE_NAMES
from shops.models import Member
from shops.rights import who_may

from ..schemas import LeftOutOut, PhaseName
from ..schemas_plan import PlanOut
from ..schemas_views import PhaseOut, PreviewOut, StartInfoOut
from . import coupled, preparing, rule_books, serializers, walk_arounds

CHOICES = {"everything": "Everything, one full round"}
"""Times that are called otherwise where they are picked."""


def info(member: Member, machine: Machine) -> StartInfoOut:
    """Phases this machine has checks in, headers of the shop, people who inspect, what the operator noticed."""
    book = rule_books.now_of(machine, member.shop)
    options = [coupled.long(machine, option) for option in machine.options]
    made = {key: len(in_force.applicable(book, in_force.Scope(options, key))) for key in PHASE_NAMES}
    phases = [
        PhaseOut(key=key, name=CHOICES.get(key, name), checks=made[key])  # type: ignore[arg-type]
        for key, name in PHASE_NAMES.items()
        if key not in rounds.OF_A_FEW
    ]
    families = rule_books.shipped().families
    takes_headers = families[machine.model.family].takes_headers
    headers = [m for m in machines_for(member) if takes_headers and families[m.model.family].is_header]
    own_headers = set(machine.headers_of.values_list("pk", flat=True)) if headers else set()
    headers.sort(key=lambda one: one.pk not in own_headers)
    people = who_may(Member.objects.of(member), "record readings").select_related("user").order_by("pk")
    running = machine.walk_arounds.filter(finished_at=None, discarded_at=None).select_related("started_by")
    return StartInfoOut(
        machine=serializers.machine_out(machine),
        phases=[phase for phase in phases if phase.checks],
        usual=usual_phase(book),
        headers=[serializers.machine_out(header) for header in headers],
        own_headers=[header.pk for header in headers if header.pk in own_headers],
        people=[serializers.person(one) for one in people],
        notes=serializers.notes(machine),
        running=[serializers.brief(one) for one in running],
        earlier=[serializers.brief(one) for one in walk_arounds.of_machine(member, machine)],
        crops={key: [one["name"] for one in member.shop.crops if one["group"] == key] for key in CROP_NAMES},
    )


def usual_phase(book: CoreBook) -> PhaseName:
    """The round that a shop's machines get when nobody says otherwise."""
    return "after-season" if book.schools["inspection-time"] == "after-season" else "everything"


def preview(member: Member, machine: Machine, wanted: preparing.Wanted) -> PreviewOut:
    """Checks, places, route and tools of a walk-around that has not begun."""
    ready = preparing.prepare(member, machine, wanted)
    return PreviewOut(
        checks=len(ready.checks),
        places=sum(len(positions.expand(check.per, ready.layout)) for check in ready.checks if not check.optional),
        plan=PlanOut.model_validate(preparing.plan_json(ready.route)),
        tools=ready.tools,
        left_out=[LeftOutOut(checks=one["checks"], words=one["words"]) for one in ready.left_out],
    )
