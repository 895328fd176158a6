"""Holding a machine while something of it is written."""

from ..models import Machine


def hold(machine: Machine) -> None:
    """Until the transaction ends: the same write sent twice at once waits here, and finds what the first has done. It comes
    before anything else that is locked, so that nobody waits in a circle.
    """
    Machine.objects.select_for_update().only("pk").get(pk=machine.pk)
