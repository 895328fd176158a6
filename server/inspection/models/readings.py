"""What was read, what the rules make of it, what was decided, and what is expected of a place."""

from django.conf import settings
from django.db import models

from .walk_arounds import WalkAround


class Reading(models.Model):
    """What was recorded for one check at one position, once. raw: as typed. value: as the core understood it.

    state: ``seen``, ``not-seen`` (with a reason), ``does-not-apply``, or ``withdrawn`` (the position is open again). bulk:
    marked sound together with the other visual checks of its station. posture: what the machine stood in, as far as it was
    confirmed.
    """

    class State(models.TextChoices):
        SEEN = "seen", "Seen"
        NOT_SEEN = "not-seen", "Not seen"
        DOES_NOT_APPLY = "does-not-apply", "Does not apply"
        WITHDRAWN = "withdrawn", "Withdrawn"

    uuid = models.UUIDField(unique=True)
    walk_around = models.ForeignKey(WalkAround, on_delete=models.CASCADE, related_name="readings")
    check_key = models.CharField(max_length=60)
    position_key = models.CharField(max_length=40)
    kind = models.CharField(max_length=10)
    state = models.CharField(max_length=14, choices=State.choices)
    raw = models.JSONField(default=list)
    value = models.JSONField(default=dict)
    feeler = models.CharField(max_length=30, blank=True)
    units = models.CharField(max_length=4)
    reason = models.CharField(max_length=200, blank=True)
    note = models.CharField(max_length=500, blank=True)
    confirmed = models.BooleanField(default=False)
    bulk = models.BooleanField(default=False)
    posture = models.CharField(max_length=80, blank=True)
    taken_at = models.DateTimeField()
    received_at = models.DateTimeField(auto_now_add=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    replaces = models.ForeignKey("self", on_delete=models.PROTECT, null=True, blank=True, related_name="+")

    class Meta:
        indexes = [models.Index(fields=["walk_around", "check_key", "position_key"])]


class SetAside(models.Model):
    """What was typed and could not be taken, and what somebody did with it: kept in the logbook as words, or discarded.

    uuid: of the reading that was refused. shown: the figure as typed; refused: why it was not taken; word: why it was set
    aside.
    """

    class Outcome(models.TextChoices):
        LOGBOOK = "logbook", "Kept in the logbook"
        DISCARDED = "discarded", "Discarded"

    uuid = models.UUIDField(unique=True)
    walk_around = models.ForeignKey(WalkAround, on_delete=models.CASCADE, related_name="set_aside")
    check_key = models.CharField(max_length=60)
    position_key = models.CharField(max_length=40)
    shown = models.CharField(max_length=200)
    refused = models.CharField(max_length=300, blank=True)
    outcome = models.CharField(max_length=10, choices=Outcome.choices)
    word = models.CharField(max_length=300, blank=True)
    taken_at = models.DateTimeField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]


class Verdict(models.Model):
    """Where a position stands: the reading in force and what the rules say of it.

    severity: the core's, ``not-seen`` or ``does-not-apply``. ask: an open question; such a position is not done. advice, facts:
    the core's, in JSON. overtaken: what somebody else, or a device that was offline, gave for the same place and typed earlier.
    elsewhere: reason, why, ask, instead, advice and facts in the other units than the reading was typed in.
    """

    walk_around = models.ForeignKey(WalkAround, on_delete=models.CASCADE, related_name="verdicts")
    station_key = models.CharField(max_length=60)
    check_key = models.CharField(max_length=60)
    position_key = models.CharField(max_length=40)
    reading = models.ForeignKey(Reading, on_delete=models.PROTECT, related_name="+")
    overtaken = models.ForeignKey(Reading, on_delete=models.SET_NULL, related_name="+", null=True, blank=True)
    severity = models.CharField(max_length=14)
    action = models.CharField(max_length=12)
    reason = models.CharField(max_length=600)
    why = models.JSONField(default=list)
    facts = models.JSONField(default=dict)
    used = models.FloatField(null=True)
    ask = models.CharField(max_length=200, blank=True)
    instead = models.CharField(max_length=40, blank=True)
    split = models.JSONField(default=list, blank=True)
    elsewhere = models.JSONField(default=dict, blank=True)
    advice = models.JSONField(null=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["walk_around", "check_key", "position_key"], name="one_verdict_per_position")
        ]


class Decision(models.Model):
    """What a person decided about a finding. Append-only; the newest is in force, and older ones stay in the log."""

    class Choice(models.TextChoices):
        DO = "do", "Do it"
        WAIT = "wait", "Wait"
        DECLINE = "decline", "Decline"
        OPEN = "open", "Not decided"

    uuid = models.UUIDField()
    walk_around = models.ForeignKey(WalkAround, on_delete=models.CASCADE, related_name="decisions")
    check_key = models.CharField(max_length=60)
    position_key = models.CharField(max_length=40)
    choice = models.CharField(max_length=8, choices=Choice.choices)
    until = models.CharField(max_length=80, blank=True)
    reason = models.CharField(max_length=300, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]
        constraints = [models.UniqueConstraint(fields=["uuid", "position_key"], name="decision_once_per_position")]


class WearForecast(models.Model):
    """What is to be expected of a check's places on one machine, with what it rests on.

    digest: of everything that went in; it is made anew when that changes. rests_on: readings, by number. season: counter now
    and at its end, how far seasons differ. sizes: new, limit, unit. places, paths: of each position, the core's PlaceAhead.
    """

    machine = models.ForeignKey("fleet.Machine", on_delete=models.CASCADE, related_name="wear_forecasts")
    check_key = models.CharField(max_length=60)
    digest = models.CharField(max_length=64)
    made_at = models.DateTimeField(auto_now=True)
    rests_on = models.JSONField(default=list)
    season = models.JSONField(default=dict)
    sizes = models.JSONField(default=dict)
    places = models.JSONField(default=list)
    paths = models.JSONField(default=dict)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["machine", "check_key"], name="one_forecast_per_check")]


class PlacesBefore(models.Model):
    """What was known of a check's places before each was read in a walk-around: one reading is judged without all others.

    edition: of the machine's history that it was made from. counted_at: when its counter was last read. season: the core's
    `Coming`. places: by position, the core's `Standing`, with `fitted_at` where a part is on record.
    """

    walk_around = models.ForeignKey(WalkAround, on_delete=models.CASCADE, related_name="places_before")
    machine = models.ForeignKey("fleet.Machine", on_delete=models.CASCADE, related_name="+")
    check_key = models.CharField(max_length=60)
    edition = models.PositiveIntegerField()
    counted_at = models.DateTimeField(null=True)
    season = models.JSONField(default=dict)
    places = models.JSONField(default=dict)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["walk_around", "check_key"], name="places_before_once_per_check")]


class Standing(models.Model):
    """How a machine stands, place by place, whichever walk-around each was read in: worked out again when that changes.

    basis: hash of what it rests on. summed: stations with how many of their places stand how, and what is in the way of using
    it (`judging.machine_standing.Summed`).
    """

    machine = models.OneToOneField("fleet.Machine", on_delete=models.CASCADE, related_name="standing")
    basis = models.CharField(max_length=64)
    summed = models.JSONField(default=dict)
