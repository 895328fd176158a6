"""What a shop sets for a model of its own. Called inside the action of whoever changes a rule."""

from lumvek_core.units import stated_in

from ..models import LimitOverride, MachineModel


def replace_limit(model: MachineModel, check: str, figure: str, value: float | None, source: str, note: str) -> None:
    """A limit of the model's own instead of the shipped one; None takes it away."""
    model.overrides.filter(check_key=check, figure=figure).delete()
    if value is not None:
        LimitOverride.objects.create(
            model=model,
            check_key=check,
            figure=figure,
            value=float(value),
            stated=stated_in(value),
            source=source,
            note=note,
        )


def set_count(model: MachineModel, thing: str, count: int) -> None:
    """How many of a thing the model has. thing: without a header's prefix."""
    model.counts = {**model.counts, thing: count}
    model.save(update_fields=["counts"])
