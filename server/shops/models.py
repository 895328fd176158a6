"""Shops and their members. A shop owns everything else; every query starts from it."""

from django.conf import settings
from django.db import models

from .scoping import OfShop


class DayForm(models.TextChoices):
    """How days are written. A form of figures alone that can be read two ways is not offered."""

    WORDS = "words", "28 Nov 2026"
    MONTH_FIRST = "month", "Nov 28, 2026"
    FIGURES = "figures", "2026-11-28"


class Shop(models.Model):
    """A workshop. schools: subject → chosen school where it differs from the shipped default.

    second_factor: everybody has to have a code beside the password. described: its lead has gone over what
    it says of itself. begun: the pages of the first day were left behind. checks_edition: another one each time that a check of
    its own changed; empty: it never had any.

    time_zone: empty for the server's. units: of those who join. openings: when it works, ``[{weekday, from, to}]``; closed:
    days. crops: ``[{name, group}]``; seasons: ``[{name, first, last}]`` with days such as ``04-15``.
    """

    name = models.CharField(max_length=120)
    schools = models.JSONField(default=dict, blank=True)
    second_factor = models.BooleanField(default=False)
    described = models.BooleanField(default=False)
    begun = models.BooleanField(default=True)
    checks_edition = models.UUIDField(null=True, blank=True)
    address = models.CharField(max_length=300, blank=True)
    time_zone = models.CharField(max_length=60, blank=True)
    units = models.CharField(max_length=2, choices=[("mm", "Millimetres"), ("in", "Inches")], default="mm")
    day_form = models.CharField(max_length=8, choices=DayForm.choices, default=DayForm.WORDS)
    openings = models.JSONField(default=list, blank=True)
    closed = models.JSONField(default=list, blank=True)
    crops = models.JSONField(default=list, blank=True)
    seasons = models.JSONField(default=list, blank=True)


class Mark(models.Model):
    """The picture that stands on a shop's reports, written anew by the server like every picture."""

    objects = OfShop.as_manager()

    shop = models.OneToOneField(Shop, on_delete=models.CASCADE, related_name="mark")
    image = models.BinaryField()
    width = models.PositiveSmallIntegerField()
    height = models.PositiveSmallIntegerField()
    at = models.DateTimeField(auto_now=True)


class Workplace(models.Model):
    """Where a machine stands to be worked on, or what it is lifted by. uuid: given by whoever added it.

    door_width_mm, door_height_mm: what passes; empty where nothing is in the way. many: how many there are of it. removed_at:
    it is there no more.
    """

    class Kind(models.TextChoices):
        BAY = "bay", "Bay"
        YARD = "yard", "Yard"
        LIFT = "lift", "Lift"
        BENCH = "bench", "Bench"

    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    shop = models.ForeignKey(Shop, on_delete=models.CASCADE, related_name="workplaces")
    kind = models.CharField(max_length=6, choices=Kind.choices)
    name = models.CharField(max_length=60)
    many = models.PositiveSmallIntegerField(default=1)
    door_width_mm = models.FloatField(null=True, blank=True)
    door_height_mm = models.FloatField(null=True, blank=True)
    note = models.CharField(max_length=200, blank=True)
    removed_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["kind", "name"]


class Feeler(models.Model):
    """A feeler the shop owns, with its thickness as measured: a business card is not everywhere 0.3 mm."""

    objects = OfShop.as_manager()

    shop = models.ForeignKey(Shop, on_delete=models.CASCADE, related_name="feelers")
    name = models.CharField(max_length=30)
    thickness_mm = models.FloatField()

    class Meta:
        ordering = ["thickness_mm", "name"]
        constraints = [models.UniqueConstraint(fields=["shop", "name"], name="one_feeler_per_name")]


class Change(models.Model):
    """Something of a shop's own that somebody changed: what it was, what it became.

    Never changed itself, but for the name of somebody who was taken out by name.
    """

    class About(models.TextChoices):
        RULE = "rule", "Rules"
        MACHINE = "machine", "Machines"
        MODEL = "model", "Models"
        PERSON = "person", "People"
        SHOP = "shop", "The shop"
        CHECK = "check", "Own checks"
        PLAN = "plan", "Work plan"
        PARTS = "parts", "Parts and suppliers"

    objects = OfShop.as_manager()

    shop = models.ForeignKey(Shop, on_delete=models.CASCADE, related_name="changes")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    about = models.CharField(max_length=8, choices=About.choices, default=About.RULE)
    what = models.CharField(max_length=200)
    before = models.CharField(max_length=400)
    after = models.CharField(max_length=400)

    class Meta:
        ordering = ["-id"]
        indexes = [models.Index(fields=["shop", "about", "id"])]


class Role(models.TextChoices):
    LEAD = "lead", "Shop lead"
    TECHNICIAN = "technician", "Technician"
    PARTS = "parts", "Parts"
    OWNER = "owner", "Machine owner"


class Units(models.TextChoices):
    MM = "mm", "Millimetres"
    IN = "in", "Inches"


class Member(models.Model):
    """A person in a shop, with their roles there and the units they read. A person may belong to several shops.

    left_at: when they were let go; nothing opens for them from then on, and what they did stands under their name.
    """

    objects = OfShop.as_manager()

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="memberships")
    shop = models.ForeignKey(Shop, on_delete=models.CASCADE, related_name="members")
    roles = models.JSONField(default=list)
    units = models.CharField(max_length=2, choices=Units.choices, default=Units.MM)
    left_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["user", "shop"], name="one_member_per_person")]

    @property
    def sees_own_only(self) -> bool:
        """Whether only the machines that this member owns are to be seen."""
        return set(self.roles) == {Role.OWNER}

    @property
    def leads(self) -> bool:
        return Role.LEAD in self.roles

    @property
    def role_name(self) -> str:
        """``Technician and parts``, in the order of the roles."""
        named = [str(role.label) for role in Role if role in self.roles]
        return " and ".join([*named[:1], *(name.lower() for name in named[1:])])

    @property
    def name(self) -> str:
        return self.user.get_full_name() or self.user.get_username()


class Invitation(models.Model):
    """Somebody asked to join a shop by a link that works once. The link is made from the UUID, and nowhere stored."""

    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    shop = models.ForeignKey(Shop, on_delete=models.CASCADE, related_name="invitations")
    name = models.CharField(max_length=120)
    email = models.EmailField(blank=True)
    roles = models.JSONField(default=list)
    made_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)
    expires_at = models.DateTimeField()
    used_at = models.DateTimeField(null=True, blank=True)
    withdrawn_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-made_at"]


class SignIn(models.Model):
    """A device on which somebody signed in, for who wants to see and end it. session_key: of Django's own session."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="sign_ins")
    session_key = models.CharField(max_length=40, db_index=True)
    device = models.CharField(max_length=200)
    address = models.CharField(max_length=45)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-at"]


class ResetMail(models.Model):
    """A mail with a link to choose a new password: nobody is sent one after the other."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="reset_mails")
    at = models.DateTimeField(auto_now_add=True)


class SetUpKey(models.Model):
    """The digest of the secret that the server printed in its log: whoever reads it may found the first shop, once."""

    digest = models.CharField(max_length=64)
    made_at = models.DateTimeField(auto_now_add=True)
