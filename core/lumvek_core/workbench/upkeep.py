"""Bench subjects of upkeep: what to renew while it is apart, which service comes next."""

from ..units import plain
from .drawings import CostsDrawing, PartCost, ServiceMark, ServicesDrawing, TrayDrawing
from .model import Example, Field, Line, Mark, Sheet, Subject, Table, Work, pct


def apart(work: Work) -> Sheet:
    found = work.run("while_apart", **work.given)
    renew = found["renew"]
    words = {"renew": "renew", "leave": "leave", "either": "either way"}
    marks: dict[str, Mark] = {"renew": "due", "leave": "sound", "either": "watch"}
    lines = [
        Line(
            part["name"],
            f"{words[part['advice']]}: now {plain(part['cost_now'], 2)}, later {plain(part['cost_later'], 2)}"
            + ("" if part["break_even"] is None else f", even at {pct(100 * part['break_even'], 1)}"),
            marks[part["advice"]],
        )
        for part in found["parts"]
    ]
    either = [part["name"] for part in found["parts"] if part["advice"] == "either"]
    said = (
        f"Renew {', '.join(renew)} while it is apart."
        if renew
        else "Renewing anything now costs more than it is likely to save."
    )
    if either:
        said += f" The figures do not decide on {', '.join(either)}."
    return work.sheet(
        f"Renew {len(renew)} of {len(found['parts'])}" if renew else "Leave them" if not either else "Either way", said, "due" if renew else "sound", lines=lines,
        why=[
            "Now: what is thrown away of the part's life, and the extra labour. Later: the chance that it fails before the next strip-down, times "
            "stripping down again, the time lost and what it breaks.",
            "Within 20 % of the break-even chance the figures do not decide. Costs in the shop's own currency.",
        ],
        caution="Never for brakes, steering, locks or anything else that can hurt somebody: those are renewed.",
        drawing=CostsDrawing([PartCost(one["name"], one["cost_now"], one["cost_later"], one["advice"]) for one in found["parts"]]),
    )  # fmt: skip


STATES: dict[str, tuple[str, Mark]] = {
    "overdue": ("overdue", "due"), "due": ("due now", "due"), "soon": ("soon", "watch"), "later": ("later", "sound"), "unknown": ("unknown: last time not known", "watch"),
}  # fmt: skip


def services(work: Work) -> Sheet:
    found = work.run("services_due", **work.given)["services"]
    lines = []
    for one in found:
        left = [f"{plain(one['left_h'], 0)} h left"] if one["left_h"] is not None else []
        left += [f"on {one['due_date']}"] if one["due_date"] else []
        word, mark = STATES[one["state"]]
        lines.append(Line(one["name"], ", ".join([word, *left]), mark))
    pressing = [one["name"] for one in found if one["state"] in ("overdue", "due")]
    first = found[0]
    return work.sheet(
        f"{len(pressing)} due" if pressing else f"Next: {first['name']}",
        ", ".join(pressing) + "." if pressing else f"{STATES[first['state']][0].capitalize()}"
        + (f", {first['due_date']}." if first["due_date"] else "."),
        "due" if pressing else STATES[first["state"]][1], lines=lines,
        why=["Due at the earlier of last hours + interval and last day + interval; with hours a day known, hours become a day."],
        drawing=ServicesDrawing(
            [ServiceMark(one["name"], one["state"], one["left_days"], one["left_h"]) for one in found], work.get("soon_days", 14)
        ),
    )  # fmt: skip


def truck_stock(work: Work) -> Sheet:
    found = work.run("truck_stock", **work.given)
    carry, expected = found["carry"], found["expected"]
    given = work.given
    risk = 100 * (1 - given.get("service", 0.95))
    return work.sheet(
        f"Carry {carry}",
        f"{plain(expected, 1)} expected to fail before the next delivery; with {carry} it runs out in fewer than {plain(risk, 1)} of 100 cases.",
        "",
        why=[
            "How often it failed so far, with what is usual for such a part, gives the rate and how unsure it is; the number is the "
            "smallest that is enough in all but the chosen share of cases.",
            "Hours are machine hours times the places it sits at.",
        ],
        caution="A part that needs heat, a press or a vice is carried as a ready assembly.",
        drawing=TrayDrawing(carry, expected),
    )


SUBJECTS = (
    Subject(
        key="apart",
        name="While it is apart",
        group="Upkeep",
        about="Which parts behind a long strip-down are worth renewing now.",
        draws=CostsDrawing,
        calculators=("while_apart",),
        fields=(
            Table(
                "parts", "Parts reached by the same strip-down",
                (
                    Field("name", "Part", "text"),
                    Field("part_cost", "Cost", "number"),
                    Field("p_fail", "Chance to fail", "number", hint="0 to 1, before the next strip-down"),
                    Field("remaining", "Life left", "number", hint="0 to 1"),
                    Field("extra_h", "Extra labour", "number", "h", "0"),
                    Field("p_fail_new", "Chance when new", "number", "", "0"),
                ),
            ),
            Field("teardown_h", "Stripping down again", "number", "h", "6"),
            Field("labour_rate", "Labour", "number", "an hour", "62"),
            Field("downtime_h", "Standing", "number", "h", "8"),
            Field("downtime_rate", "An hour standing costs", "number", "", "240"),
        ),
        examples=(
            Example("One of two", {"parts": [["Bearing", "38", "0.18", "0.35", "0.25", "0.01"], ["Sprocket", "210", "0.02", "0.7", "0.3"]]}),
            Example("Too near to call", {"parts": [["Bearing", "38", "0.025", "0.35", "0.25", "0.01"], ["Seal", "12", "0.02", "0.5", "0.25"]]}),
            Example("Leave all", {"parts": [["Sprocket", "210", "0.02", "0.7", "0.3"], ["Shaft", "640", "0.01", "0.9", "1"]]}),
        ),
        source="Expected cost; chances are yours to judge.",
        work=apart,
    ),
    Subject(
        key="services",
        name="Services due",
        group="Upkeep",
        about="What is due by hours and by calendar, most pressing first.",
        draws=ServicesDrawing,
        calculators=("services_due",),
        fields=(
            Field("counter_now", "Counter now", "number", "h", "2140"),
            Field("date_now", "Today", "date", start="2026-06-01"),
            Field("counter_per_day", "Hours a day in work", "number", "h", "10", optional=True),
            Table(
                "services", "Services",
                (
                    Field("name", "Service", "text"),
                    Field("every_h", "Every", "number", "h", optional=True),
                    Field("every_days", "or every", "number", "days", optional=True),
                    Field("last_h", "Last at", "number", "h", optional=True),
                    Field("last_date", "Last on", "date", optional=True),
                ),
            ),
            Field("soon_days", "Soon is within", "count", "days", "14"),
        ),
        examples=(
            Example("In time", {"services": [["Engine oil", "500", "365", "1900", "2026-02-01"], ["Gear cases", "", "365", "", "2026-03-01"]]}),
            Example("Soon", {"services": [["Engine oil", "250", "365", "2000", "2026-02-01"], ["Gear cases", "", "365", "", "2025-06-12"]]}),
            Example("Overdue", {"services": [["Engine oil", "250", "365", "1800", "2026-02-01"], ["Gear cases", "", "365", "", "2025-05-01"], ["Coolant", "1500", "730", "900"]]}),
        ),
        source="Intervals from the manual.",
        work=services,
    ),
    Subject(
        key="truck-stock",
        name="Truck stock",
        group="Upkeep",
        about="How many of a part to carry until the next delivery.",
        draws=TrayDrawing,
        calculators=("truck_stock",),
        fields=(
            Field("events", "Failed so far", "count", "", "5"),
            Field("hours", "In hours × places", "number", "h", "1800"),
            Field("hours_ahead", "Hours × places until the next delivery", "number", "h", "400"),
            Field("service", "Enough in this share of cases", "number", "", "0.95", hint="below 1"),
            Field("prior_events", "Usual for such a part: failures", "number", "", "0.5"),
            Field("prior_hours", "in hours", "number", "h", "200", hint="200 small wearing parts, 5000 gear cases"),
        ),
        examples=(
            Example("Wears fast", {}),
            Example("No history yet", {"events": "0", "hours": "0", "hours_ahead": "400"}),
            Example("Gear case", {"events": "0", "hours": "6000", "hours_ahead": "800", "prior_hours": "5000"}),
        ),
        source="Negative binomial: failures at an unsure rate.",
        work=truck_stock,
    ),
)  # fmt: skip
