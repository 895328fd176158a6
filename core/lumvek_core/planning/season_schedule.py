"""The season's plan: who does what, where and when, so that every machine is ready for its date."""

from ..apart import Limits, Progress
from ..registry import calculator_at_length
from .season.answer import answer
from .season.causes import Why, why_late
from .season.model import LONGEST_S, SeasonGiven, SeasonPlan
from .season.pins import settled
from .season.planner import solve

CAUSES_S = 20.0
"""That asking for causes may take beside the plan itself."""


@calculator_at_length(Limits(seconds=LONGEST_S + CAUSES_S + 10, megabytes=2000))
def season_schedule(given: SeasonGiven, progress: Progress = lambda _what, _done, _of: None) -> SeasonPlan:
    """Who does which job, where and when, so that machines are ready for their dates; what makes one late, and what cures it.

    Two hands are two technicians throughout, one of them with the skill. A job that may be split stops at the end of a shift
    (out of doors and weather-bound: of a dry spell too) and goes on with the same people, who begin nothing else in between.
    A machine stands in one posture at a time; a change takes the minutes of `moves`. Jobs on one machine overlap only in the
    same posture at the same place, with no more people than max_hands. Bench work wants no posture and no place, and counts no
    hands at the machine. Another machine comes into a place, or this one to another, with shunt_min between; a posture change
    and shunting come one after the other. What is as wide or as high as the door, or wider, is worked on outside.
    Weather-bound work outside or in the field lies inside `dry`. Minutes are rounded up to slots; changes and shunting take
    slots in which anybody works. Due: the end of the last shift before season_date, or that day's first minute where nobody
    works before it; late hours are hours of the clock. A machine with work that has no place in the plan is late to its end.

    Least, in this order: jobs without a place; Σ priority·late hours (priorities to two digits); with `previous`: jobs that
    begin at another time or with other people; posture changes; the last finish. Pins stay, from the beginning of the slot they
    lie in; what they contradict is in `conflicts`. What begins in the previous plan within freeze_h stays, where nothing
    contradicts it. Stopped at time_limit_s, gap_pct says how far lateness may be above the least there is.

    Cause: of parts, hands, bay and weather the one without which the machine would be least late with no other one later;
    `season_date` where none of them helps. Fixes: a day on which nobody works is worked, one more person with every skill, a
    part is here now. With many jobs fifty of them give way.

    Bad input: names that are not there or there twice, circles in `after`, times that end before they begin, postures no way
    leads to, more than 6,000 slots.
    """
    given, problem, pinned = settled(given)

    def told(found: float, bound: float) -> bool | None:
        # Weighted slots, as weighted minutes of the clock.
        return progress("late", round(found * given.slot_min / 100), round(bound * given.slot_min / 100))

    solved = solve(problem, pinned, given.time_limit_s, told)
    why: dict[int, Why] = {}
    if given.causes and not solved.enough:
        seconds = min(CAUSES_S, given.time_limit_s)
        why = why_late(given, problem, solved.draft, seconds, lambda: bool(told(solved.score[1], solved.bound)))
    return answer(problem, pinned, solved, why)
