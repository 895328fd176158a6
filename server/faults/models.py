"""Faults that are traced: the symptom, what each look showed, and what it was in the end."""

from django.db import models

from shops.by_whom import user_key
from shops.scoping import OfShop
from shops.taken_back import TakenBack


class Trace(TakenBack):
    """A fault on the way to its cause. symptom: of the catalogue. words: what somebody said, note: the operator's note that it
    began with. header: whose symptom it is, where it is not the machine's own. walk_around: where the checks of the catalogue
    among its looks are read. cause: of the symptom, where it was found; otherwise: what it was, in words. gone: how it went.
    cleared: names of the causes that were ruled out when it ended."""

    class Outcome(models.TextChoices):
        OPEN = "", "Under way"
        FOUND = "found", "Found"
        NOT_FOUND = "not-found", "Not found"
        WATCHED = "watched", "To be watched"

    class Gone(models.TextChoices):
        NO = "", "Not gone yet"
        PUT_RIGHT = "put-right", "Gone since it was put right"
        OTHER_SPEED = "other-speed", "Gone since a speed or range was changed"

    owners_path = "machine__owners"
    shop_path = "machine__shop"
    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    machine = models.ForeignKey("fleet.Machine", on_delete=models.CASCADE, related_name="traces")
    header = models.ForeignKey("fleet.Machine", on_delete=models.SET_NULL, null=True, blank=True, related_name="+")
    symptom = models.CharField(max_length=40)
    words = models.CharField(max_length=300, blank=True)
    note = models.ForeignKey("inspection.OperatorNote", on_delete=models.SET_NULL, null=True, blank=True, related_name="+")
    walk_around = models.ForeignKey("inspection.WalkAround", on_delete=models.SET_NULL, null=True, blank=True, related_name="+")
    begun_at = models.DateTimeField(auto_now_add=True)
    by = user_key()
    outcome = models.CharField(max_length=10, choices=Outcome.choices, blank=True)
    cause = models.CharField(max_length=40, blank=True)
    otherwise = models.CharField(max_length=200, blank=True)
    gone = models.CharField(max_length=12, choices=Gone.choices, blank=True)
    cleared = models.JSONField(default=list, blank=True)
    ended_at = models.DateTimeField(null=True, blank=True)
    ended_by = user_key(null=True, blank=True)

    class Meta:
        ordering = ["begun_at", "id"]
        indexes = [models.Index(fields=["machine", "begun_at"]), models.Index(fields=["symptom", "cause"])]


class LookAnswer(TakenBack):
    """What a look showed that is no check of the catalogue. look: of the catalogue's symptoms. bad: something is
    wrong there. locked: whoever looked confirmed the lock of the posture."""

    owners_path = "trace__machine__owners"
    shop_path = "trace__machine__shop"
    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    trace = models.ForeignKey(Trace, on_delete=models.CASCADE, related_name="answers")
    look = models.CharField(max_length=60)
    bad = models.BooleanField()
    locked = models.BooleanField(default=False)
    words = models.CharField(max_length=200, blank=True)
    at = models.DateTimeField(auto_now_add=True)
    by = user_key()

    class Meta:
        ordering = ["id"]


class SwapTest(TakenBack):
    """Parts swapped between rows until it is known what is broken. rows: that take part. parts: row → slot → number, as
    somebody typed it. proven, words: what the runs said in the end. fitted: the act that fitted a new one."""

    owners_path = "machine__owners"
    shop_path = "machine__shop"
    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    machine = models.ForeignKey("fleet.Machine", on_delete=models.CASCADE, related_name="swap_tests")
    rows = models.JSONField(default=list)
    parts = models.JSONField(default=dict, blank=True)
    begun_at = models.DateTimeField(auto_now_add=True)
    by = user_key()
    proven = models.CharField(max_length=80, blank=True)
    words = models.CharField(max_length=200, blank=True)
    fitted = models.UUIDField(null=True, blank=True)
    ended_at = models.DateTimeField(null=True, blank=True)
    ended_by = user_key(null=True, blank=True)

    class Meta:
        ordering = ["begun_at", "id"]


class SwapRun(TakenBack):
    """One run. swapped: slots that were exchanged before it, between row_a and row_b. faults: row → whether it showed."""

    owners_path = "test__machine__owners"
    shop_path = "test__machine__shop"
    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    test = models.ForeignKey(SwapTest, on_delete=models.CASCADE, related_name="runs")
    swapped = models.JSONField(default=list, blank=True)
    row_a = models.CharField(max_length=4, blank=True)
    row_b = models.CharField(max_length=4, blank=True)
    faults = models.JSONField(default=dict)
    at = models.DateTimeField(auto_now_add=True)
    by = user_key()

    class Meta:
        ordering = ["id"]


class Recording(TakenBack):
    """How a machine shook. samples: 32-bit floats, in the unit of where they come from. engine_rpm, ranges (shaft → range), rpm
    (shaft → read off the display): how it ran. station: where the recorder lay. crop: in the shop's words."""

    class Source(models.TextChoices):
        PHONE = "phone", "The phone's own sensor"
        FILE = "file", "A file"
        SIMULATED = "simulated", "The simulated recorder"

    owners_path = "machine__owners"
    shop_path = "machine__shop"
    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    machine = models.ForeignKey("fleet.Machine", on_delete=models.CASCADE, related_name="recordings")
    source = models.CharField(max_length=10, choices=Source.choices)
    sample_hz = models.FloatField()
    samples = models.BinaryField()
    engine_rpm = models.FloatField()
    ranges = models.JSONField(default=dict, blank=True)
    rpm = models.JSONField(default=dict, blank=True)
    station = models.CharField(max_length=60, blank=True)
    crop = models.CharField(max_length=60, blank=True)
    words = models.CharField(max_length=200, blank=True)
    at = models.DateTimeField(auto_now_add=True)
    by = user_key()

    class Meta:
        ordering = ["at", "id"]


class ModelShaft(TakenBack):
    """A shaft of a model as its manual has it: speeds by range, orders by how many times a turn, bearings with their
    sizes. The newest of a key that was not taken back goes before the catalogue's. uuid, by, at: none of those that were
    written before these were kept."""

    shop_path = "model__shop"
    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True, null=True)
    model = models.ForeignKey("fleet.MachineModel", on_delete=models.CASCADE, related_name="shafts")
    key = models.CharField(max_length=40)
    speeds = models.JSONField(default=dict)
    orders = models.JSONField(default=dict)
    bearings = models.JSONField(default=list, blank=True)
    source = models.CharField(max_length=120, blank=True)
    by = user_key(null=True)
    at = models.DateTimeField(auto_now_add=True, null=True)

    class Meta:
        ordering = ["id"]
        indexes = [models.Index(fields=["model", "key"])]


class OwnSymptom(TakenBack):
    """A symptom that a shop has added. key: that traces name it by. also: other words for it. stations: where it shows."""

    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    shop = models.ForeignKey("shops.Shop", on_delete=models.CASCADE, related_name="own_symptoms")
    key = models.CharField(max_length=40)
    family = models.CharField(max_length=60)
    name = models.CharField(max_length=120)
    also = models.JSONField(default=list, blank=True)
    stations = models.JSONField(default=list, blank=True)
    by = user_key()
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]


class OwnCause(TakenBack):
    """A cause that a shop has added to a symptom, its own or one of the trade. weight: how common it is beside the others.
    check_key: of the catalogue, that shows it; where there is none: what is looked at, how the machine stands, how one sees it,
    and the minutes it takes."""

    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    shop = models.ForeignKey("shops.Shop", on_delete=models.CASCADE, related_name="own_causes")
    key = models.CharField(max_length=40)
    symptom = models.CharField(max_length=40)
    name = models.CharField(max_length=120)
    weight = models.FloatField()
    check_key = models.CharField(max_length=60, blank=True)
    look = models.CharField(max_length=120, blank=True)
    posture = models.CharField(max_length=80, blank=True)
    how = models.CharField(max_length=300, blank=True)
    minutes = models.FloatField(default=5)
    by = user_key()
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]
        indexes = [models.Index(fields=["shop", "symptom"])]
