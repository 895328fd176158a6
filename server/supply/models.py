"""Suppliers, what they offer, what lies on shelf and truck, plans, orders, and what owners agreed to.

Money is in the shop's currency, decimal. What moves stock is appended under the client's UUID and never changed: a level is
the sum of its movements, and the same movement sent twice is one.
"""

import datetime as dt
from decimal import Decimal

from django.db import models

from outside.mails import GOES_FOR
from shops.by_whom import user_key
from shops.scoping import OfShop
from shops.taken_back import TakenBack


class Terms(models.Model):
    """What a shop counts with. One row a shop; it is held while orders are made, so that two people cannot order the same.

    late_cost_per_day: of a machine that stands for want of a part. days_before: parts are wanted so many days before the
    season. now: the day and time plans begin at instead of the clock's, as the shop chose for trying things out.
    """

    objects = OfShop.as_manager()

    shop = models.OneToOneField("shops.Shop", on_delete=models.CASCADE, related_name="terms")
    currency = models.CharField(max_length=3, default="EUR")
    labour_rate = models.DecimalField(max_digits=8, decimal_places=2, default=Decimal("62"))
    km_cost = models.DecimalField(max_digits=6, decimal_places=2, default=Decimal("0.42"))
    downtime_rate = models.DecimalField(max_digits=8, decimal_places=2, default=Decimal("240"))
    late_cost_per_day = models.DecimalField(max_digits=8, decimal_places=2, default=Decimal("120"))
    days_before = models.PositiveSmallIntegerField(default=7)
    service = models.FloatField(default=0.95)
    now = models.DateTimeField(null=True, blank=True)


class Supplier(models.Model):
    """openings: [{weekday, from, to}]; closed: days; deliveries: [{name, lead_days, working, cutoff, price}]. desk: it answers
    by line. uuid: it was entered under; those from before have none."""

    objects = OfShop.as_manager()

    shop = models.ForeignKey("shops.Shop", on_delete=models.CASCADE, related_name="suppliers")
    uuid = models.UUIDField(null=True, unique=True, editable=False)
    name = models.CharField(max_length=60)
    email = models.EmailField(blank=True)
    distance_km = models.FloatField(default=0)
    travel_min = models.FloatField(default=0)
    counter_min = models.FloatField(default=15)
    call_min = models.FloatField(null=True, blank=True)
    openings = models.JSONField(default=list, blank=True)
    closed = models.JSONField(default=list, blank=True)
    deliveries = models.JSONField(default=list, blank=True)
    desk = models.CharField(max_length=40, blank=True)

    class Meta:
        ordering = ["distance_km", "name"]
        constraints = [models.UniqueConstraint(fields=["shop", "name"], name="one_supplier_per_name")]


class Offer(models.Model):
    """What a supplier said last about a number. source: the desk, a file, or typed."""

    shop_path = "supplier__shop"
    objects = OfShop.as_manager()

    supplier = models.ForeignKey(Supplier, on_delete=models.CASCADE, related_name="offers")
    number = models.CharField(max_length=40)
    unit_price = models.DecimalField(max_digits=10, decimal_places=2)
    pack = models.PositiveSmallIntegerField(default=1)
    stock = models.PositiveIntegerField(default=0)
    p_stock = models.FloatField(default=1)
    restock_days = models.PositiveSmallIntegerField(null=True, blank=True)
    status = models.CharField(max_length=10, default="supported")
    source = models.CharField(max_length=10)
    at = models.DateTimeField()

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["supplier", "number"], name="one_offer_per_number")]


class StockItem(models.Model):
    """A number the shop keeps. carry: what the truck should have. past_*: failures and machine hours × positions from
    before.
    """

    objects = OfShop.as_manager()

    shop = models.ForeignKey("shops.Shop", on_delete=models.CASCADE, related_name="stock")
    number = models.CharField(max_length=40)
    name = models.CharField(max_length=80)
    bin = models.CharField(max_length=20, blank=True)
    carry = models.PositiveSmallIntegerField(default=0)
    past_events = models.PositiveIntegerField(default=0)
    past_hours = models.FloatField(default=0)
    hours_ahead = models.FloatField(default=0)
    prior_hours = models.FloatField(default=200)

    class Meta:
        ordering = ["name", "number"]
        constraints = [models.UniqueConstraint(fields=["shop", "number"], name="one_stock_item_per_number")]


class StockLocation(models.TextChoices):
    SHELF = "shelf", "Shelf"
    TRUCK = "truck", "Truck"


class Movement(models.Model):
    """Pieces that came to or left a place. undoes: the movement that this one takes back."""

    objects = OfShop.as_manager()

    class Reason(models.TextChoices):
        COUNTED = "counted", "Counted"
        RECEIVED = "received", "Received"
        FITTED = "fitted", "Fitted"
        MOVED = "moved", "Moved"
        RETURNED = "returned", "Returned"
        UNDONE = "undone", "Taken back"

    uuid = models.UUIDField(unique=True)
    shop = models.ForeignKey("shops.Shop", on_delete=models.CASCADE, related_name="movements")
    number = models.CharField(max_length=40)
    place = models.CharField(max_length=5, choices=StockLocation.choices)
    change = models.IntegerField()
    reason = models.CharField(max_length=8, choices=Reason.choices)
    note = models.CharField(max_length=200, blank=True)
    undoes = models.OneToOneField("self", on_delete=models.PROTECT, null=True, blank=True, related_name="undone_by")
    by = user_key()
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-id"]
        indexes = [models.Index(fields=["shop", "number"])]


class NeedDate(models.Model):
    """The day a machine's parts are wanted, where it is another than the season's date less the shop's days."""

    machine = models.OneToOneField("fleet.Machine", on_delete=models.CASCADE, related_name="need_date")
    day = models.DateField()


class Plan(models.Model):
    """Three ways to get a list of parts, as they were worked out. asked and answer: input and output of the core's
    source_parts."""

    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    shop = models.ForeignKey("shops.Shop", on_delete=models.CASCADE, related_name="plans")
    asked = models.JSONField()
    answer = models.JSONField()
    ordered_kind = models.CharField(max_length=10, blank=True)
    by = user_key()
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-id"]


class Order(models.Model):
    """What one supplier is asked for, in one way. Its UUID is the key the supplier's desk knows it by: sent twice, it is one
    order.

    state: ``to-send`` (not known to have arrived), ``accepted``, ``short`` (part of it follows or is refused), ``refused``,
    ``by-hand`` (sent by e-mail or said over the telephone), ``dropped`` (taken back before it was sent). asking_since: the desk
    is being asked at this moment. mail: what became of its letter, and when (mail_at); ``going`` for long is ``unsure``.
    """

    BY_WORD = ("telephone", "counter", "site")
    """Ways of an order that somebody gave by word, without a plan: by telephone, at the counter, on the supplier's own site."""

    objects = OfShop.as_manager()

    class State(models.TextChoices):
        TO_SEND = "to-send", "Not confirmed"
        ACCEPTED = "accepted", "Accepted"
        SHORT = "short", "Short"
        REFUSED = "refused", "Refused"
        BY_HAND = "by-hand", "Sent by hand"
        CANCELLED = "dropped", "Taken back"

    class Mail(models.TextChoices):
        NONE = "", ""
        GOING = "going", "On its way to the mail server"
        SENT = "sent", "Sent"
        FAILED = "failed", "Not sent"
        UNSURE = "unsure", "Nobody knows whether it went out"

    uuid = models.UUIDField(unique=True)
    shop = models.ForeignKey("shops.Shop", on_delete=models.CASCADE, related_name="orders")
    supplier = models.ForeignKey(Supplier, on_delete=models.PROTECT, related_name="orders")
    plan = models.ForeignKey(Plan, on_delete=models.SET_NULL, null=True, related_name="orders")
    way = models.CharField(max_length=40)
    run_date = models.DateField()
    run_cost = models.DecimalField(max_digits=10, decimal_places=2, default=Decimal(0))
    state = models.CharField(max_length=8, choices=State.choices, default=State.TO_SEND)
    reference = models.CharField(max_length=40, blank=True)
    trouble = models.CharField(max_length=200, blank=True)
    tries = models.PositiveSmallIntegerField(default=0)
    by = user_key()
    at = models.DateTimeField(auto_now_add=True)
    answered_at = models.DateTimeField(null=True, blank=True)
    asking_since = models.DateTimeField(null=True, blank=True)
    mail = models.CharField(max_length=6, choices=Mail.choices, blank=True, default=Mail.NONE)
    mail_at = models.DateTimeField(null=True, blank=True)
    mail_trouble = models.CharField(max_length=200, blank=True)

    class Meta:
        ordering = ["-id"]

    @property
    def unsent(self) -> bool:
        """It has not left this house."""
        return self.state == self.State.TO_SEND and not self.tries and self.mail in (self.Mail.NONE, self.Mail.FAILED)

    @property
    def may_drop(self) -> bool:
        """Whether it can be taken back here: unsent, or given by word and nothing of it has come."""
        by_word = self.state == self.State.BY_HAND and self.way in self.BY_WORD
        return self.unsent or (by_word and not any(line.received for line in self.lines.all()))

    def mail_now(self, now: dt.datetime) -> str:
        """What became of its letter: one that is under way for long was lost with its process."""
        lost = self.mail == self.Mail.GOING and self.mail_at is not None and now - self.mail_at > GOES_FOR
        return self.Mail.UNSURE if lost else self.mail

    def under_way(self, now: dt.datetime) -> bool:
        """Whether somebody outside is being asked at this moment."""
        since = self.asking_since if self.state == self.State.TO_SEND else None
        asked = since is not None and now - since <= GOES_FOR
        return asked or self.mail_now(now) == self.Mail.GOING

    @property
    def unanswered(self) -> bool:
        """It was sent, and nobody knows whether it arrived."""
        return self.state == self.State.TO_SEND and self.tries > 0


class OrderLine(models.Model):
    """unit_price: None where nobody knows yet what it costs. accepted: pieces the supplier has put aside; follows: pieces
    back-ordered; the rest is refused. serves: the findings, in words."""

    shop_path = "order__shop"
    objects = OfShop.as_manager()

    order = models.ForeignKey(Order, on_delete=models.CASCADE, related_name="lines")
    number = models.CharField(max_length=40)
    name = models.CharField(max_length=80)
    quantity = models.PositiveIntegerField()
    unit_price = models.DecimalField(max_digits=10, decimal_places=2, null=True, blank=True)
    accepted = models.PositiveIntegerField(default=0)
    follows = models.PositiveIntegerField(default=0)
    promised = models.DateField(null=True, blank=True)
    follows_on = models.DateField(null=True, blank=True)
    received = models.PositiveIntegerField(default=0)
    serves = models.JSONField(default=list)

    class Meta:
        ordering = ["id"]
        constraints = [models.UniqueConstraint(fields=["order", "number"], name="one_line_per_order_and_number")]


class Share(models.Model):
    """How much of a machine's cost a member bears. Without shares its owners bear it alike."""

    machine = models.ForeignKey("fleet.Machine", on_delete=models.CASCADE, related_name="shares")
    member = models.ForeignKey("shops.Member", on_delete=models.CASCADE, related_name="shares")
    percent = models.DecimalField(max_digits=5, decimal_places=2)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["machine", "member"], name="one_share_per_machine")]


class Approval(TakenBack):
    """What an owner agreed to pay for a machine, and how it was said. Never changed, but it can be taken back."""

    uuid = models.UUIDField(unique=True)
    machine = models.ForeignKey("fleet.Machine", on_delete=models.CASCADE, related_name="approvals")
    amount = models.DecimalField(max_digits=12, decimal_places=2)
    currency = models.CharField(max_length=3)
    how = models.CharField(max_length=120)
    by = user_key()
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-id"]
