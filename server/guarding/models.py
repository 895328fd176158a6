"""What is counted for all web workers together."""

from django.db import models


class Asked(models.Model):
    """How much somebody asked for in one minute. what: a pace and who; minute: of 1970 and since."""

    what = models.CharField(max_length=120)
    minute = models.PositiveIntegerField(db_index=True)
    many = models.PositiveIntegerField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["what", "minute"], name="one_count_a_minute")]


class Guesses(models.Model):
    """Wrong secrets in a row: of whom, from where. until: nothing is looked at before."""

    who = models.CharField(max_length=150)
    where = models.CharField(max_length=64)
    failures = models.PositiveIntegerField(default=0)
    until = models.DateTimeField(null=True, blank=True)
    last_at = models.DateTimeField(auto_now=True, db_index=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["who", "where"], name="one_measure_of_guessing")]
