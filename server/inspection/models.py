"""What is recorded of an inspection.

A reading is never changed or removed: a correction is a new reading that replaces the older one. A verdict row says which
reading is in force at a position and what the rules make of it; it can be recomputed from the readings and the rule book.
"""

from django.conf import settings
from django.db import models

from shops.scoping import OfShop
from shops.taken_back import TakenBack


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
    after it was finished. tallies: station → state → places that stand so, optional checks left aside; kept in step with the
    verdicts. discarded_at: begun by mistake; it stays in the log and is in no list.
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
    discarded_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-started_at"]
        indexes = [models.Index(fields=["machine", "started_at"])]


class WalkAroundEvent(models.Model):
    """That a walk-around was finished, opened again, discarded or brought back: who, when and why. Append-only.

    version: of the walk-around, as it was then.
    """

    class Kind(models.TextChoices):
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


class Picture(TakenBack):
    """What every kept picture has. image: JPEG, written anew by the server, so that it carries nothing but the picture;
    width, height: in pixels. Taken back it is no longer shown."""

    uuid = models.UUIDField(unique=True)
    image = models.BinaryField()
    width = models.PositiveSmallIntegerField()
    height = models.PositiveSmallIntegerField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        abstract = True
        ordering = ["id"]


class Photo(Picture):
    """A picture of one place."""

    walk_around = models.ForeignKey(WalkAround, on_delete=models.CASCADE, related_name="photos")
    check_key = models.CharField(max_length=60)
    position_key = models.CharField(max_length=40)
    caption = models.CharField(max_length=200, blank=True)


class StripPicture(Picture):
    """A picture of a strip-down, in order of removal; they are shown backwards for refitting.

    strip_down: its key in the catalogue; place: the row it is at, empty where there is only one. loose: parts that came off
    with this step, to be counted back.
    """

    walk_around = models.ForeignKey(WalkAround, on_delete=models.CASCADE, related_name="strip_pictures")
    strip_down = models.CharField(max_length=60)
    place = models.CharField(max_length=40, blank=True)
    words = models.CharField(max_length=200, blank=True)
    loose = models.PositiveSmallIntegerField(default=0)


class PinnedPicture(TakenBack):
    """A picture of the shop's own that shows what a state of a check looks like on a model.

    state: empty for what is measured.
    """

    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    shop = models.ForeignKey("shops.Shop", on_delete=models.CASCADE, related_name="pinned_pictures")
    model = models.ForeignKey("fleet.MachineModel", on_delete=models.CASCADE, related_name="pinned_pictures")
    photo = models.ForeignKey(Photo, on_delete=models.CASCADE, related_name="pins")
    check_key = models.CharField(max_length=60)
    state = models.CharField(max_length=40, blank=True)
    state_name = models.CharField(max_length=80, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]
        indexes = [models.Index(fields=["model", "check_key"])]


class OperatorNote(TakenBack):
    """What the operator noticed the last time the machine ran. Open until somebody closes it with a cause.

    station_key: where it belongs, with its prefix; it comes up there in the next walk-around. Empty: at the start.
    """

    uuid = models.UUIDField(unique=True)
    machine = models.ForeignKey("fleet.Machine", on_delete=models.CASCADE, related_name="operator_notes")
    station_key = models.CharField(max_length=60, blank=True)
    text = models.CharField(max_length=500)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    cause = models.CharField(max_length=300, blank=True)
    closed_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+", null=True, blank=True)
    closed_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["id"]


class NotePhoto(models.Model):
    """A picture that goes with an operator's note, written anew by the server like every picture."""

    uuid = models.UUIDField(unique=True)
    note = models.ForeignKey(OperatorNote, on_delete=models.CASCADE, related_name="photos")
    image = models.BinaryField()
    width = models.PositiveSmallIntegerField()
    height = models.PositiveSmallIntegerField()

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
