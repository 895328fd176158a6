"""What members choose for themselves; what a shop owns and chooses, inside the action of whoever changes a rule."""

from .models import Feeler, Member, RuleChange, Shop, Units
from .rights import action


@action("choose units")
def choose_units(member: Member, units: str) -> None:
    """Units to read in; what is typed is understood in any."""
    member.units = Units(units)
    member.save(update_fields=["units"])


def choose_school(member: Member, subject: str, choice: str, default: str) -> str:
    """Pick a school, and forget about it where it is the default. Returns what was in force before."""
    shop = Shop.objects.select_for_update().get(pk=member.shop_id)
    before: str = shop.schools.get(subject, default)
    shop.schools = {key: one for key, one in {**shop.schools, subject: choice}.items() if key != subject or one != default}
    shop.save(update_fields=["schools"])
    member.shop = shop
    return before


def own_feeler(member: Member, name: str, thickness_mm: float) -> None:
    """Own a feeler, or change its thickness."""
    feeler = Feeler.objects.of(member).filter(name=name).first()
    Feeler.objects.update_or_create(shop=member.shop, name=name, defaults={"thickness_mm": thickness_mm})
    log_rule_change(member, f"Feeler {name}", _thick(feeler), f"{thickness_mm:g} mm")


def give_feeler_away(member: Member, name: str) -> bool:
    """Own a feeler no more. False where there was none."""
    feeler = Feeler.objects.of(member).filter(name=name).first()
    if feeler is None:
        return False
    feeler.delete()
    log_rule_change(member, f"Feeler {name}", _thick(feeler), "none")
    return True


def _thick(feeler: Feeler | None) -> str:
    return f"{feeler.thickness_mm:g} mm" if feeler else "none"


def log_rule_change(member: Member, what: str, before: str, after: str) -> None:
    """Keep that a limit, a size, a school or a feeler was changed."""
    RuleChange.objects.create(shop=member.shop, by=member.user, what=what[:200], before=before[:200], after=after[:200])
