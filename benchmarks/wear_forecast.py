"""How long looking ahead takes: one large planter's forecasts, and the fleet's list of 200 machines, in milliseconds and as
ratios.

The list is read from stored forecasts; what it costs to make them all anew stands beside it.
"""

# ruff: noqa: E402
import os
import sys
import time
import uuid
from datetime import timedelta

from inspection.queries import preparing

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
sys.path[:0] = ["core", "server"]

from lumvek_core.forecast.history import Place, forecast
from lumvek_core.forecast.wearing import Coming, Measured, Wearing

ROWS, SEASONS, MACHINES = 24, 10, 200


def planter() -> float:
    """Seconds for 24 rows with ten seasons each."""
    places = [
        Place(
            str(row),
            [
                Measured(row * 100 + s, 240.0 * s, 400 - (0.5 + row / 40) * s + ((row * 7 + s * 3) % 5 - 2) / 5)
                for s in range(SEASONS)
            ],
            fitted=0.0,
            group="wheels" if row in (5, 6) else None,
        )
        for row in range(ROWS)
    ]
    wearing, coming = Wearing(400, 386, 2500, 0.8), Coming(240.0 * (SEASONS - 1), 240.0 * SEASONS, 240.0)
    forecast(wearing, places, coming)
    begun = time.perf_counter()
    for _ in range(20):
        forecast(wearing, places, coming)
    return (time.perf_counter() - begun) / 20


def fleet() -> tuple[float, float, int, int]:
    """(seconds to make all, seconds to list, queries to list, lines) of 200 planters with three seasons of discs each."""
    from django.contrib.auth.models import User
    from django.db import connection, reset_queries
    from django.utils import timezone

    from demo import scenario
    from fleet.models import CounterReading, Machine
    from inspection.actions import recording, starting
    from inspection.judging.typed_readings import NewReading
    from inspection.models import WalkAround
    from logbook.queries import forecast_views
    from shops.models import Member

    now = timezone.now()
    scenario.load(now)
    ada = Member.objects.get(user=User.objects.get(username="ada"))
    model = Machine.objects.get(name="Dunmere 12").model
    for n in range(MACHINES):
        machine = Machine.objects.create(shop=ada.shop, model=model, name=f"Planter {n}", rows=6, track_rows=[3], area_ha=720)
        for years, total in ((3, 0), (2, 240), (1, 480), (0, 720)):
            at = now - timedelta(days=365 * years + 1)
            CounterReading.objects.create(
                uuid=uuid.uuid4(), machine=machine, at=at, shown=total, total=total, source="typed", unit="ha", by=ada.user
            )
        for years, worn in ((2, 1.5), (1, 3.1), (0, 4.4)):
            found = starting.start(ada, machine, uuid.uuid4(), preparing.Wanted("winter"))
            at = now - timedelta(days=365 * years)
            WalkAround.objects.filter(pk=found.pk).update(started_at=at)
            readings = [
                NewReading(
                    uuid.uuid4(),
                    "opener-disc-diameter",
                    f"{row}{side}",
                    raw=[f"{400 - worn * (0.6 + row / 4 + n / 400):.1f}"],
                    taken_at=at,
                )
                for row in range(1, 7)
                for side in "LR"
            ]
            recording.record_readings(ada, found.pk, readings)
    begun = time.perf_counter()
    forecast_views.fleet(ada)
    made = time.perf_counter() - begun
    from django.conf import settings

    settings.DEBUG = True
    reset_queries()
    begun = time.perf_counter()
    lines = len(forecast_views.fleet(ada).lines)
    return made, time.perf_counter() - begun, len(connection.queries), lines


def main() -> None:
    one = planter()
    print(f"{ROWS} rows with {SEASONS} seasons each: {1000 * one:.1f} ms a forecast.")
    import django

    django.setup()
    made, listed, queries, lines = fleet()
    print(
        f"{MACHINES} machines and the demo's: all forecasts made anew {made:.2f} s; listed {1000 * listed:.0f} ms, "
        f"{queries} queries, {lines} lines."
    )
    print(
        f"A list is {listed / one:.1f} times one planter's forecast, and {made / listed:.0f} times cheaper than making "
        "them all."
    )


if __name__ == "__main__":
    main()
