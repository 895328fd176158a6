"""Pictures and notes, which are shown until they are taken back."""

from django.conf import settings
from django.db import models

from shops.scoping import OfShop
from shops.taken_back import TakenBack

from .walk_arounds import WalkAround


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
