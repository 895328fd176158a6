"""The sentences that explain a plan, each with its figure."""

import pytest

from supply.queries import plan_explanation
from supply.queries.serializers import money


def answer(**more):
    return {"reasons": [], "one_day_earlier": None, "surer": None, "able": []} | more


def reason(drives=True, extra=45.694, late=0, supplier="Northmere Depot"):
    return {"supplier": supplier, "date": "2026-11-30", "drives": drives, "extra_cost": extra, "more_late": late}


@pytest.mark.parametrize(
    ("one", "said"),
    [
        (reason(), "To Northmere Depot on Monday: without that trip the same parts cost 45.69 EUR more."),
        (reason(extra=None, late=1), "To Northmere Depot on Monday: without it 1 line comes too late or not at all."),
        (reason(extra=None, late=5), "To Northmere Depot on Monday: without it 5 lines come too late or not at all."),
        (reason(extra=None), "To Northmere Depot on Monday."),
        (reason(drives=False), "Not to Northmere Depot on Monday: the same parts would cost 45.69 EUR more with that trip."),
        (reason(drives=False, extra=0.0), "Driving to Northmere Depot on Monday would come to the same."),
        (
            reason(drives=False, extra=None),
            "Not to Northmere Depot on Monday: whether it would pay was not worked out in time.",
        ),
    ],
)
def test_why_it_drives_or_does_not(one, said):
    assert plan_explanation.sentences(answer(reasons=[one]), "EUR")[0] == said


def test_what_a_day_and_more_certainty_cost():
    found = plan_explanation.sentences(
        answer(
            one_day_earlier={"last_arrival": "2026-12-01", "extra_cost": 1.0},
            surer={"extra_cost": 60.84, "extra_p": 0.138225},
            able=["Northmere Depot"],
        ),
        "EUR",
    )
    assert found == [
        "Everything by Tuesday at the latest costs 1.00 EUR more.",
        "The surest plan costs 60.84 EUR more and is 13.8 points surer to have all in time.",
        "Northmere Depot has everything that is needed to run.",
    ]


def test_what_costs_nothing_more_is_said_so_and_who_is_able():
    free = {"last_arrival": "2026-12-01", "extra_cost": 0.0}
    assert (
        plan_explanation.sentences(answer(one_day_earlier=free), "EUR")[0]
        == "Everything by Tuesday at the latest costs nothing more."
    )
    assert plan_explanation.sentences(answer(), "EUR") == ["No supplier alone has everything that is needed to run."]
    both = plan_explanation.sentences(answer(able=["Bridge Street Parts", "Northmere Depot"]), "EUR")
    assert both == ["Bridge Street Parts and Northmere Depot have everything that is needed to run."]


@pytest.mark.parametrize(("amount", "shown"), [(None, ""), (0, "0.00"), (3.1, "3.10"), (2600.5, "2600.50"), (1e-9, "0.00")])
def test_money_has_two_decimals_and_what_is_not_known_is_empty(amount, shown):
    assert money(amount) == shown
