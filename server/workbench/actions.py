"""Keeping an answer of the bench in a machine's log, and taking it out again."""

import uuid

from django.db import IntegrityError, transaction
from django.utils import timezone

from fleet.models import Machine
from lumvek_core import structure
from lumvek_core.workbench.model import Subject, Texts
from lumvek_core.workbench.notation import carried
from shops.access import Conflict, NotFoundHere
from shops.models import Member
from shops.rights import action

from .models import BenchResult
from .queries import answer


@action("write in a machine's log")
def save(member: Member, subject: Subject, result_uuid: uuid.UUID, machine: Machine, texts: Texts, note: str) -> BenchResult:
    """Keep an answer in a machine's log. The same UUID again is the same result. Raises BadInput, Conflict."""
    found = BenchResult.objects.filter(uuid=result_uuid).select_related("machine", "by").first()
    if found is None:
        sheet = structure.write(answer(member, subject, texts))
        try:
            with transaction.atomic():
                return BenchResult.objects.create(
                    uuid=result_uuid,
                    machine=machine,
                    subject=subject.key,
                    texts=carried(subject, texts, "in") if member.units == "in" else dict(texts),
                    sheet=sheet,
                    note=note.strip(),
                    by=member.user,
                )
        except IntegrityError:  # the same request twice at once: the other was first
            found = BenchResult.objects.select_related("machine", "by").get(uuid=result_uuid)
    if found.machine_id != machine.pk or found.subject != subject.key:
        raise Conflict("This result is kept elsewhere already.")
    return found


@action("write in a machine's log")
def withdraw(member: Member, machine: Machine, result_uuid: uuid.UUID) -> None:
    """Take a result out of the log. It stays in the database. Raises NotFoundHere."""
    found = machine.bench_results.filter(uuid=result_uuid).first()
    if found is None:
        raise NotFoundHere("There is no such result.")
    if found.withdrawn_at is None:
        found.withdrawn_at = timezone.now()
        found.save(update_fields=["withdrawn_at"])
