"""What is asked of a season is checked before it is planned: names, and an order that can be kept."""

from graphlib import CycleError, TopologicalSorter

from ...calculators.common import different_names
from ...errors import BadInput
from .model import SeasonGiven


def check_names(given: SeasonGiven) -> None:
    """Every name is there once, and whoever is named is there. Raises BadInput at the field."""
    different_names([one.name for one in given.technicians], "technicians")
    different_names([one.name for one in given.places], "places")
    different_names([one.name for one in given.machines], "machines")
    ids: set[str] = set()
    for i, job in enumerate(given.jobs):
        if job.id in ids:
            raise BadInput(f"jobs.{i}.id", f"“{job.id}” is there already")
        ids.add(job.id)
    machines, people = {one.name for one in given.machines}, {one.name for one in given.technicians}
    places = {one.name for one in given.places}
    for i, job in enumerate(given.jobs):
        _known(job.machine, machines, f"jobs.{i}.machine", "machine")
        for k, name in enumerate(job.after):
            _known(name, ids, f"jobs.{i}.after.{k}", "job")
        for k, name in enumerate(job.pin.technicians if job.pin else []):
            _known(name, people, f"jobs.{i}.pin.technicians.{k}", "technician")
        if job.pin and job.pin.place is not None:
            _known(job.pin.place, places, f"jobs.{i}.pin.place", "place")
        if job.pin and len(job.pin.technicians) > job.hands:
            raise BadInput(f"jobs.{i}.pin.technicians", f"names {len(job.pin.technicians)}, and {job.hands} do it")


def _known(name: str, known: set[str], where: str, what: str) -> None:
    if name not in known:
        raise BadInput(where, f"there is no {what} “{name}”")


def order_kept(given: SeasonGiven) -> list[int]:
    """Jobs by number, each behind those it comes after; otherwise as they were given."""
    at = {job.id: i for i, job in enumerate(given.jobs)}
    graph = TopologicalSorter({i: [at[name] for name in job.after] for i, job in enumerate(given.jobs)})
    try:
        graph.prepare()
    except CycleError as problem:
        circle = problem.args[1]
        raise BadInput(
            f"jobs.{circle[0]}.after", "goes round in a circle: " + ", ".join(given.jobs[i].id for i in circle)
        ) from None
    found: list[int] = []
    ready = sorted(graph.get_ready())
    while ready:
        found.extend(ready)
        graph.done(*ready)
        ready = sorted(graph.get_ready())
    return found
