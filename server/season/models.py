"""The season's work: who is there when, jobs that were typed, what became of each job, and the plans that were made.

Jobs that follow from findings, services and walk-arounds are not stored: they are read anew each time (`queries/work.py`) and
known by their key. What people do with a job is appended and never changed; it can be taken back.
"""

import datetime as dt

from django.db import models
from django.utils import timezone

from shops.by_whom import user_key
from shops.days import said
from shops.scoping import OfShop
from shops.taken_back import TakenBack

LONGEST_KEY = 120


class Hands(models.Model):
    """A member as a pair of hands. planned: whether work is planned for them. openings: when they work, ``[{weekday, from,
    to}]``; empty: as the shop does. skills: what they may do that not everybody may."""

    shop_path = "member__shop"
    objects = OfShop.as_manager()

    member = models.OneToOneField("shops.Member", on_delete=models.CASCADE, related_name="hands")
    planned = models.BooleanField(default=True)
    openings = models.JSONField(default=list, blank=True)
    skills = models.JSONField(default=list, blank=True)


class Away(TakenBack):
    """Days on which somebody is not there, the last one included."""

    shop_path = "member__shop"
    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    member = models.ForeignKey("shops.Member", on_delete=models.CASCADE, related_name="away")
    first = models.DateField()
    last = models.DateField()
    note = models.CharField(max_length=120, blank=True)
    by = user_key()
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["first", "id"]

    @property
    def words(self) -> str:
        """The days, and why."""
        days = said(self.first) if self.first == self.last else f"{said(self.first)} to {said(self.last)}"
        return f"{days}: {self.note}" if self.note else days


class DrySpell(TakenBack):
    """Dry weather that is expected. source: typed, from a calendar file, or of the forecast."""

    class Source(models.TextChoices):
        TYPED = "typed", "typed"
        FILE = "file", "calendar file"
        FORECAST = "forecast", "forecast"

    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    shop = models.ForeignKey("shops.Shop", on_delete=models.CASCADE, related_name="dry_spells")
    start = models.DateTimeField()
    end = models.DateTimeField()
    source = models.CharField(max_length=8, choices=Source.choices, default=Source.TYPED)
    by = user_key()
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["start", "id"]

    @property
    def words(self) -> str:
        """From when to when, on the shop's clock."""
        start, end = (timezone.localtime(one) for one in (self.start, self.end))
        return f"{said(start.date())} {start:%H:%M} to {said(end.date())} {end:%H:%M}"


class OwnJob(TakenBack):
    """A job that somebody typed. after: keys of jobs that must be done before."""

    class Place(models.TextChoices):
        BAY = "bay", "in the bay"
        OUTSIDE = "outside", "outside"
        BENCH = "bench", "at the bench"
        FIELD = "field", "in the field"

    shop_path = "machine__shop"
    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    machine = models.ForeignKey("fleet.Machine", on_delete=models.CASCADE, related_name="own_jobs")
    changed_at = models.DateTimeField(auto_now=True)
    name = models.CharField(max_length=120)
    minutes = models.FloatField()
    hands = models.PositiveSmallIntegerField(default=1)
    skill = models.CharField(max_length=40, blank=True)
    place = models.CharField(max_length=8, choices=Place.choices, default=Place.BAY)
    lift = models.BooleanField(default=False)
    note = models.CharField(max_length=300, blank=True)
    by = user_key()
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]

    @property
    def words(self) -> str:
        """What is said of it in the log."""
        told = [f"{self.machine.name}: {self.name}", f"{self.minutes:g} min", f"{self.hands} people" if self.hands > 1 else ""]
        return ", ".join(filter(None, [*told, self.skill, self.get_place_display(), "with the lift" if self.lift else ""]))


class JobMark(TakenBack):
    """What somebody did with a job: moved it, began, stopped or did it, or could not. Append-only; the newest of a kind counts.

    key: the job's. name, of, reckoned: what it was called, what kind of work it is, and how many minutes were reckoned, as it
    was then. pin: ``{start, technicians, place}`` of one that was moved by hand; empty where it may move again. minutes: taken
    by one that is done. reason, not_before: why it could not be done, and until when.
    """

    class Kind(models.TextChoices):
        PIN = "pin", "Moved"
        START = "start", "Begun"
        STOP = "stop", "Stopped"
        DONE = "done", "Done"
        CANNOT = "cannot", "Could not be done"

    shop_path = "machine__shop"
    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    machine = models.ForeignKey("fleet.Machine", on_delete=models.CASCADE, related_name="job_marks")
    key = models.CharField(max_length=LONGEST_KEY)
    kind = models.CharField(max_length=6, choices=Kind.choices)
    name = models.CharField(max_length=160)
    of = models.CharField(max_length=100)
    reckoned = models.FloatField()
    pin = models.JSONField(default=dict, blank=True)
    minutes = models.FloatField(null=True, blank=True)
    reason = models.CharField(max_length=200, blank=True)
    not_before = models.DateField(null=True, blank=True)
    by = user_key()
    at = models.DateTimeField()

    class Meta:
        ordering = ["id"]
        indexes = [models.Index(fields=["machine", "key"])]

    @property
    def about(self) -> str:
        """The machine and the job."""
        return f"{self.machine.name}: {self.name}"


class SeasonPlan(models.Model):
    """A plan as it was worked out. asked and answer: input and output of the core's season_schedule. words: what was otherwise
    than things stand, of one that tries something out. at: when it was asked what there is to do. enough: whoever waits for it
    will do with what there is. taken_at: when it became the plan that people work by; None: it was only looked at."""

    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    shop = models.ForeignKey("shops.Shop", on_delete=models.CASCADE, related_name="season_plans")
    asked = models.JSONField(default=dict)
    shown = models.JSONField(default=dict)
    answer = models.JSONField(null=True)
    words = models.CharField(max_length=200, blank=True)
    enough = models.BooleanField(default=False)
    by = user_key()
    at = models.DateTimeField(default=timezone.now)
    taken_at = models.DateTimeField(null=True, blank=True)
    taken_by = user_key(null=True, blank=True)

    class Meta:
        ordering = ["-id"]


class Feed(models.Model):
    """An unguessable address of somebody's own work as a calendar, for a year. Only the hash of its secret is kept. A member
    has one. uuid: with which it was asked for; asked again with it, it is the same address. used_at: when a calendar last read
    it, to the hour."""

    LASTS = dt.timedelta(days=365)

    shop_path = "member__shop"
    objects = OfShop.as_manager()

    member = models.OneToOneField("shops.Member", on_delete=models.CASCADE, related_name="feed")
    uuid = models.UUIDField(unique=True, null=True)
    digest = models.CharField(max_length=64, unique=True)
    made_at = models.DateTimeField(auto_now_add=True)
    used_at = models.DateTimeField(null=True, blank=True)

    @property
    def ends_at(self) -> dt.datetime:
        return self.made_at + self.LASTS
