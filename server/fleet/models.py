"""Models with their own sizes and limits, and the machines of a shop."""

from uuid import uuid4

from django.db import models

from shops.scoping import OfShop
from shops.taken_back import TakenBack


class MachineModel(models.Model):
    """A maker's type as this shop knows it: family, sizes, limits. counts: how many it has of a thing (``{"knife": 36}``).

    uuid: given by whoever added it.
    """

    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True, default=uuid4)
    shop = models.ForeignKey("shops.Shop", on_delete=models.CASCADE, related_name="machine_models")
    maker = models.CharField(max_length=60)
    name = models.CharField(max_length=60)
    family = models.CharField(max_length=60)
    counts = models.JSONField(default=dict, blank=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["shop", "maker", "name"], name="one_model_per_name")]

    @property
    def full_name(self) -> str:
        return f"{self.maker} {self.name}".strip()


class LimitOverride(models.Model):
    """A limit of a model that replaces the shipped figure. The manual's wins over starting values, the shop's over both.

    check_key: with its prefix where the model is a header (``draper.skid-shoes``). stated: the inches it was stated in.
    """

    class Source(models.TextChoices):
        MANUAL = "manual", "Operator's manual"
        SHOP = "shop", "Shop"

    model = models.ForeignKey(MachineModel, on_delete=models.CASCADE, related_name="overrides")
    check_key = models.CharField(max_length=60)
    figure = models.CharField(max_length=30)
    value = models.FloatField()
    stated = models.CharField(max_length=30, blank=True)
    source = models.CharField(max_length=10, choices=Source.choices)
    note = models.CharField(max_length=200, blank=True)

    class Meta:
        ordering = ["source", "id"]  # manual before shop: the shop's own comes last and wins
        constraints = [
            models.UniqueConstraint(fields=["model", "check_key", "figure", "source"], name="one_override_per_figure")
        ]


class Machine(models.Model):
    """One real machine. uuid: given by whoever added it. track_rows: rows behind the tractor's wheels. owners: members who may
    see it. priority: how bad it is when it is late. goes_with: the combines that a header is coupled to. gone: why it is in no
    list any more, with the day; its logbook stays. new_at: what its counter showed when it came new, so that every part in it
    is as old as that.

    hours, area_ha: what it has done in all, in step with its counter readings. next_use: what the coming season is to be, in
    the same, counted from next_use_from; None: as the last seasons were. wear_stale: something was recorded since its forecasts
    were looked at. history_edition: one more each time that something they rest on changed other than by reading it.
    """

    class Gone(models.TextChoices):
        SOLD = "sold", "Sold"
        SCRAPPED = "scrapped", "Scrapped"

    class Priority(models.IntegerChoices):
        USUAL = 1, "As bad as any"
        WORSE = 2, "Twice as bad"
        WORST = 4, "Four times as bad"

    owners_path = "owners"
    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True, default=uuid4)
    shop = models.ForeignKey("shops.Shop", on_delete=models.CASCADE, related_name="machines")
    model = models.ForeignKey(MachineModel, on_delete=models.PROTECT, related_name="machines")
    name = models.CharField(max_length=80)
    serial = models.CharField(max_length=60, blank=True)
    rows = models.PositiveSmallIntegerField(default=0)
    track_rows = models.JSONField(default=list, blank=True)
    options = models.JSONField(default=list, blank=True)
    area_ha = models.FloatField(null=True, blank=True)
    hours = models.FloatField(null=True, blank=True)
    season_date = models.DateField(null=True, blank=True)
    priority = models.PositiveSmallIntegerField(choices=Priority.choices, default=Priority.USUAL)
    next_use = models.FloatField(null=True, blank=True)
    next_use_from = models.FloatField(null=True, blank=True)
    wear_stale = models.BooleanField(default=True)
    history_edition = models.PositiveIntegerField(default=0)
    owners = models.ManyToManyField("shops.Member", blank=True, related_name="own_machines")
    goes_with = models.ManyToManyField("self", blank=True, symmetrical=False, related_name="headers_of")
    row_spacing_mm = models.FloatField(null=True, blank=True)
    folded_width_mm = models.FloatField(null=True, blank=True)
    folded_height_mm = models.FloatField(null=True, blank=True)
    new_at = models.FloatField(null=True, blank=True)
    gone = models.CharField(max_length=8, choices=Gone.choices, blank=True)
    gone_on = models.DateField(null=True, blank=True)

    class Meta:
        ordering = ["season_date", "name"]
        constraints = [models.UniqueConstraint(fields=["shop", "name"], name="one_machine_per_name")]


class MachinePicture(TakenBack):
    """A picture of a machine or of its plate, written anew by the server like every picture."""

    class What(models.TextChoices):
        MACHINE = "machine", "The machine"
        PLATE = "plate", "Its plate"

    owners_path = "machine__owners"
    shop_path = "machine__shop"
    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    machine = models.ForeignKey(Machine, on_delete=models.CASCADE, related_name="pictures")
    what = models.CharField(max_length=8, choices=What.choices)
    image = models.BinaryField()
    width = models.PositiveSmallIntegerField()
    height = models.PositiveSmallIntegerField()
    by = models.ForeignKey("auth.User", on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["what", "id"]


class CounterReading(models.Model):
    """What a machine's meter showed at a moment, and what the machine had done in all by then.

    unit: hours or hectares; a combine has both meters. exchanged: a new meter, or one set back to zero, begins here; shown and
    total differ from now on by what went before. confirmed: the figure was asked about and stands. withdrawn: it was wrong; it
    stays in the log.
    """

    class Source(models.TextChoices):
        TYPED = "typed", "typed"
        TELEMATICS = "telematics", "telematics"
        FILE = "file", "file"
        WALK_AROUND = "walk-around", "walk-around"
        FITTING = "fitting", "fitting"

    uuid = models.UUIDField(unique=True)
    machine = models.ForeignKey(Machine, on_delete=models.CASCADE, related_name="counter_readings")
    unit = models.CharField(max_length=2, choices=[("h", "hours"), ("ha", "hectares")])
    at = models.DateTimeField()
    shown = models.FloatField()
    total = models.FloatField()
    source = models.CharField(max_length=12, choices=Source.choices)
    exchanged = models.BooleanField(default=False)
    confirmed = models.BooleanField(default=False)
    withdrawn = models.BooleanField(default=False)
    by = models.ForeignKey("auth.User", on_delete=models.PROTECT, related_name="+")

    class Meta:
        ordering = ["at", "id"]
        indexes = [models.Index(fields=["machine", "at"])]


class Fitment(TakenBack):
    """A part that was fitted at a position, from one counter to another. Wear belongs to a fitment: it starts anew with each.

    slot: as the family calls it, without a header's prefix. counter: hours of a self-propelled machine, hectares of any other.
    until_at: when the next one took its place, or when it was taken back. fitting: the act that fitted it, maybe with others.
    """

    owners_path = "machine__owners"
    shop_path = "machine__shop"
    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    fitting = models.UUIDField(null=True, blank=True, db_index=True)
    machine = models.ForeignKey(Machine, on_delete=models.CASCADE, related_name="fitments")
    slot = models.CharField(max_length=60)
    position_key = models.CharField(max_length=40)
    number = models.CharField(max_length=40, blank=True)
    quantity = models.PositiveSmallIntegerField(default=1)
    counter = models.FloatField(null=True)
    fitted_at = models.DateTimeField()
    until_at = models.DateTimeField(null=True, blank=True)
    by = models.ForeignKey("auth.User", on_delete=models.PROTECT, related_name="+")

    class Meta:
        ordering = ["id"]
        indexes = [models.Index(fields=["machine", "slot", "position_key"])]


class Coupling(TakenBack):
    """That a header was coupled to a machine, or none, as somebody says. Walk-arounds with a header tell so as well."""

    shop_path = "machine__shop"
    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    machine = models.ForeignKey(Machine, on_delete=models.CASCADE, related_name="couplings")
    header = models.ForeignKey(Machine, on_delete=models.SET_NULL, null=True, blank=True, related_name="+")
    at = models.DateTimeField()
    by = models.ForeignKey("auth.User", on_delete=models.PROTECT, related_name="+")

    class Meta:
        ordering = ["at", "id"]
