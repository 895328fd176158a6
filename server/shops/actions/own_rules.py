"""The schools a shop picks, the feelers it owns, its own checks. Called inside the action of whoever changes a rule."""

from uuid import uuid4

from ..models import Change, Feeler, Member, Shop
from .log import log_change


def choose_school(member: Member, subject: str, choice: str, default: str) -> str:
    """Pick a school, and forget about it where it is the default. Returns what was in force before."""
    shop = Shop.objects.select_for_update().get(pk=member.shop_id)
    before: str = shop.schools.get(subject, default)
    shop.schools = {key: one for key, one in {**shop.schools, subject: choice}.items() if key != subject or one != default}
    shop.save(update_fields=["schools"])
    member.shop = shop
    return before


def checks_changed(member: Member) -> None:
    """A check of the shop's own is another now: whoever keeps what they come to in memory reads it again."""
    member.shop.checks_edition = uuid4()
    member.shop.save(update_fields=["checks_edition"])


def own_feeler(member: Member, name: str, thickness_mm: float) -> None:
    """Own a feeler, or change its thickness."""
    feeler = Feeler.objects.of(member).filter(name=name).first()
    Feeler.objects.update_or_create(shop=member.shop, name=name, defaults={"thickness_mm": thickness_mm})
    log_change(member, Change.About.RULE, f"Feeler {name}", _thick(feeler), f"{thickness_mm:g} mm")


def give_feeler_away(member: Member, name: str) -> bool:
    """Own a feeler no more. False where there was none."""
    feeler = Feeler.objects.of(member).filter(name=name).first()
    if feeler is None:
        return False
    feeler.delete()
    log_change(member, Change.About.RULE, f"Feeler {name}", _thick(feeler), "none")
    return True


def _thick(feeler: Feeler | None) -> str:
    return f"{feeler.thickness_mm:g} mm" if feeler else "none"
