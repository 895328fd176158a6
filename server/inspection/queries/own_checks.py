"""The checks of a shop's own that are in force, and the shipped ones that it words otherwise or leaves out.

They are read once for each edition (`Shop.checks_edition`); a shop without any costs no query.
"""

from collections.abc import Mapping, Sequence
from functools import lru_cache
from uuid import UUID

from fleet.models import MachineModel
from lumvek_core import structure
from lumvek_core.catalogue.own import Altered, OwnCheck, OwnChecks, is_own
from shops.models import Shop

from ..models import CheckVersion

Own = tuple[int, UUID | None, tuple[tuple[str, int | None], ...]]
"""Whose (shop and edition), and for which families, each with a model or none: what `read` makes own checks of."""


def of_models(shop: Shop, models: Sequence[MachineModel]) -> Own:
    """Those for these models."""
    return shop.pk, shop.checks_edition, tuple((one.family, one.pk) for one in models)


def of_family(shop: Shop, family: str, model: MachineModel | None = None) -> Own:
    """Those for any model of a family, and for this one."""
    return shop.pk, shop.checks_edition, ((family, model.pk if model else None),)


def read(own: Own) -> Mapping[str, OwnChecks]:
    """By family; empty where a shop never had any."""
    shop, edition, wanted = own
    if edition is None:
        return {}
    found = {}
    for family, model in wanted:
        held = _held(shop, edition, family)
        mine = [what for of, what in held if isinstance(what, OwnCheck) and of in (None, model)]
        found[family] = OwnChecks(family, mine, [what for _, what in held if isinstance(what, Altered)])
    return found


def newest(shop: Shop) -> dict[tuple[str, str], CheckVersion]:
    """(family, key) → the version that holds, also where it says that there is none any more."""
    return {(one.family, one.key): one for one in CheckVersion.objects.in_shop(shop.pk).select_related("model")}


def said(one: CheckVersion) -> OwnCheck | Altered | None:
    """What a version says; None where it takes away."""
    if not one.content:
        return None
    found: OwnCheck | Altered = structure.read(OwnCheck if is_own(one.key) else Altered, one.content)
    return found


@lru_cache(maxsize=256)
def _held(shop: int, edition: UUID, family: str) -> list[tuple[int | None, OwnCheck | Altered]]:
    """(model it is for, what is in force) of a family, in the order in which it was first said."""
    newest = {one.key: one for one in CheckVersion.objects.in_shop(shop).filter(family=family)}
    return [(one.model_id, what) for one in newest.values() if (what := said(one))]
