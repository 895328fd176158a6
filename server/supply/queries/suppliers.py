"""The shop's suppliers."""

from django.db.models import QuerySet

from shops.access import NotFoundHere
from shops.models import Member

from ..models import Supplier


def of_shop(member: Member) -> QuerySet[Supplier]:
    """Every supplier, nearest first."""
    return Supplier.objects.of(member)


def supplier_of(member: Member, supplier_id: int) -> Supplier:
    """One supplier. Raises NotFoundHere."""
    supplier = Supplier.objects.of(member).filter(pk=supplier_id).first()
    if supplier is None:
        raise NotFoundHere("There is no such supplier.")
    return supplier
