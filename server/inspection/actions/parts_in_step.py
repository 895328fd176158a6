"""Parts lines follow from findings and decisions."""

from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.judgement.companions import parts_for
from parts import actions as parts

from ..models import WalkAround
from ..queries.decisions import called


def refresh_parts(walk_around: WalkAround, book: CoreBook) -> None:
    """Bring the parts lines in step with findings and decisions."""
    parts.refresh(walk_around.pk, parts_for(book, called(walk_around)))
