"""A walk-around from its beginning to its end: what it goes by, who held it, and how the machine stood."""

from django.conf import settings
from django.db import models

from shops.scoping import OfShop


class RuleBook(models.Model):
    """A catalogue in force, stored once under the hash of its content and never changed."""

    shop = models.ForeignKey("shops.Shop", on_delete=models.CASCADE, related_name="rule_books")
    digest = models.CharField(max_length=64)
    content = models.JSONField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["shop", "digest"], name="rule_book_once")]


class WalkAround(models.Model):
    """One inspection of one machine, with the headers coupled to it.

    As it stood at the start: options (a header's with prefix), header_families, layout (how many of each thing), stations (key,
    name, places to look at) and plan (visits with posture, minutes and checks; minutes in all, and by plain station order). The
    checks of the plan are those of the walk-around; left_out: what its round leaves out, with why and the words for it. people:
    who began it together; anybody of the shop who inspects may join. version: 1, and one more each time it was opened again
    after it was finished. edition: one more each time that a place stands otherwise or something was decided. tallies: station
    → state → places that stand so, optional checks left aside; kept in step with the verdicts. discarded_at: begun by mistake;
    it stays in the log and is in no list.
    """

    owners_path = "machine__owners"
    objects = OfShop.as_manager()

    id = models.UUIDField(primary_key=True)
    shop = models.ForeignKey("shops.Shop", on_delete=models.CASCADE, related_name="walk_arounds")
    machine = models.ForeignKey("fleet.Machine", on_delete=models.PROTECT, related_name="walk_arounds")
    rule_book = models.ForeignKey(RuleBook, on_delete=models.PROTECT)
    phase = models.CharField(max_length=20)
    crop = models.CharField(max_length=20, blank=True)
    headers = models.ManyToManyField("fleet.Machine", blank=True, related_name="walk_arounds_as_header")
    header_families = models.JSONField(default=list, blank=True)
    people = models.ManyToManyField("shops.Member", blank=True, related_name="walk_arounds")
    layout = models.JSONField(default=dict)
    plan = models.JSONField(default=dict)
    left_out = models.JSONField(default=list, blank=True)
    options = models.JSONField(default=list)
    stations = models.JSONField(default=list)
    tallies = models.JSONField(default=dict, blank=True)
    started_at = models.DateTimeField()
    started_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    finished_at = models.DateTimeField(null=True, blank=True)
    finished_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+", null=True, blank=True)
    version = models.PositiveSmallIntegerField(default=1)
    edition = models.PositiveIntegerField(default=0)
    discarded_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-started_at"]
        indexes = [models.Index(fields=["machine", "started_at"])]


class WalkAroundEvent(models.Model):
    """That a walk-around was begun beside another, finished, opened again, discarded or brought back: who, when and why.
    Append-only.

    version: of the walk-around, as it was then.
    """

    class Kind(models.TextChoices):
        BEGUN = "begun", "Begun beside another"
        FINISHED = "finished", "Finished"
        REOPENED = "reopened", "Opened again"
        DISCARDED = "discarded", "Discarded"
        RESTORED = "restored", "Brought back"

    uuid = models.UUIDField(unique=True)
    walk_around = models.ForeignKey(WalkAround, on_delete=models.CASCADE, related_name="events")
    kind = models.CharField(max_length=10, choices=Kind.choices)
    version = models.PositiveSmallIntegerField()
    reason = models.CharField(max_length=300, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField()

    class Meta:
        ordering = ["id"]


class PostureHold(models.Model):
    """Somebody confirmed that the machine stands in a posture and its locks are set. It holds until another one is taken up."""

    uuid = models.UUIDField(unique=True)
    walk_around = models.ForeignKey(WalkAround, on_delete=models.CASCADE, related_name="holds")
    posture = models.CharField(max_length=80)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField()
    ended_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["id"]


class HandOver(models.Model):
    """The walk-around passed from one person to another, with what the next one should know."""

    uuid = models.UUIDField(unique=True)
    walk_around = models.ForeignKey(WalkAround, on_delete=models.CASCADE, related_name="hand_overs")
    giver = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    taker = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    note = models.CharField(max_length=500, blank=True)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]


class CheckVersion(models.Model):
    """A check of a shop's own as it was said once, or a shipped one as the shop has it. Append-only: the newest of a key holds.

    key: without a header's prefix. model: for that one alone, of an own check. content: the core's, as its dataclass is written
    (``OwnCheck`` or ``Altered``); empty: taken away, or as shipped again.
    """

    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    shop = models.ForeignKey("shops.Shop", on_delete=models.CASCADE, related_name="check_versions")
    family = models.CharField(max_length=60)
    model = models.ForeignKey("fleet.MachineModel", on_delete=models.CASCADE, null=True, blank=True, related_name="+")
    key = models.CharField(max_length=60)
    content = models.JSONField(default=dict, blank=True)
    reason = models.CharField(max_length=200, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]
        indexes = [models.Index(fields=["shop", "family", "key"])]
