"""Parts lines follow from findings and decisions."""

from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from parts import actions as parts

from ..models import WalkAround
from ..queries.decisions import needs_of


def refresh_parts(walk_around: WalkAround, book: CoreBook) -> None:
    """Bring the parts lines in step with findings and decisions."""
    parts.refresh(walk_around.pk, needs_of(walk_around, book))
