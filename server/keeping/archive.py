"""A whole shop as an open archive, and such an archive read into another installation.

The file is a ZIP: ``README.md`` says what is what; ``data/APP.Table.jsonl`` holds a row a line, an object with the names of its
columns; ``tables/APP.Table.csv`` the same for spreadsheets; ``pictures/`` the pictures as files, named where they stood;
``manifest.json`` counts and SHA-256 of each table. Keys are numbers that hold within the archive. Passwords, second factors and
links are not in it.
"""

import csv
import datetime as dt
import hashlib
import io
import json
import uuid
import zipfile
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from decimal import Decimal
from functools import partial
from pathlib import Path
from typing import IO, Any

from django.contrib.auth.models import User
from django.core.exceptions import ValidationError
from django.db import DatabaseError, connection, models, transaction

from fleet.models import Machine
from shops.models import Member, Shop
from tabular.sheets import harmless

from .backup import one_moment
from .shop_tables import all_tables, keys_of, people_of, rows_of, tables

FORMAT, VERSION = "lumvek-shop", 1
PEOPLE = "people"
PERSON = ("username", "first_name", "last_name", "email", "is_active")
AT_ONCE = 500
Row = dict[str, Any]
Numbers = dict[type[models.Model], dict[Any, Any]]
"""Model → key within the archive → key here."""


class NotRead(Exception):
    """Why an archive cannot be read in, in a sentence."""


def write(shop: Shop, out: IO[bytes]) -> dict[str, int]:
    """Everything of a shop as it is now, never all in memory. Returns the number of rows of each table."""
    with one_moment(), zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED, compresslevel=6) as archive:
        people = people_of(shop)
        told = {PEOPLE: _put(archive, PEOPLE, lambda: map(_person, people))}
        for model in tables():
            told[model._meta.label] = _put(archive, model._meta.label, partial(_rows, model, shop))
        for model in tables():
            _put_pictures(archive, model, shop)
        manifest = {
            "format": FORMAT,
            "version": VERSION,
            "shop": shop.name,
            "made_at": dt.datetime.now(dt.UTC).isoformat(),
            "tables": told,
        }
        archive.writestr("manifest.json", json.dumps(manifest, indent=1))
        archive.writestr("README.md", readme(shop, told))
    return {name: one["rows"] for name, one in told.items()}


def read(path: Path) -> Shop:
    """A shop from its archive, beside those there are. All of it comes in, or nothing. Raises NotRead."""
    try:
        with zipfile.ZipFile(path) as archive, transaction.atomic():
            manifest = json.loads(archive.read("manifest.json"))
            if manifest["format"] != FORMAT:
                raise NotRead(f"{path.name} is no archive of a shop.")
            if manifest["version"] > VERSION:
                raise NotRead("This archive was made by a newer Lumvek. Install that first.")
            numbers: Numbers = {User: _read_people(archive, manifest)}
            for model in tables():
                numbers[model] = _read_table(archive, manifest, model, numbers)
            (shop,) = numbers[Shop].values()
            return Shop.objects.get(pk=shop)
    except (zipfile.BadZipFile, KeyError, ValueError, TypeError, OSError, ValidationError, DatabaseError) as problem:
        raise NotRead(f"{path.name} cannot be read: {problem}.") from None


def readme(shop: Shop, told: dict[str, dict[str, Any]]) -> str:
    """What is what, for whoever opens the archive without Lumvek."""
    lines = [
        f"# {shop.name}",
        "",
        "Everything of this shop. A row a line in `data/*.jsonl` (JSON, UTF-8) and the same in `tables/*.csv`; pictures are",
        "files in `pictures/`, and a row names its own. Lengths are in millimetres, times in UTC. A column that ends in `_id`",
        "holds the `id` of a row in the table named here. Passwords, second factors and links are not in it.",
        "",
        "| table | rows | what it is | keys |",
        "|---|---|---|---|",
        f"| {PEOPLE} | {told[PEOPLE]['rows']} | Everybody whose name stands on something | |",
    ]
    for model in tables():
        what = (model.__doc__ or "").strip().partition("\n")[0].partition(". ")[0].rstrip(".")
        named = (
            f"{key.attname} → {PEOPLE if key.related_model is User else key.related_model._meta.label}"
            for key in keys_of(model)
        )
        label = model._meta.label
        lines.append(f"| {label} | {told[label]['rows']} | {what} | {', '.join(named)} |")
    return "\n".join(lines) + "\n"


def _put(archive: zipfile.ZipFile, name: str, rows: Callable[[], Iterator[Row]]) -> dict[str, Any]:
    """A table twice: lines of JSON, and CSV. Returns how many rows and the digest of the lines."""
    count, digest = 0, hashlib.sha256()
    with archive.open(f"data/{name}.jsonl", "w", force_zip64=True) as lines:
        for row in rows():
            line = json.dumps(row, ensure_ascii=False).encode() + b"\n"
            digest.update(line)
            lines.write(line)
            count += 1
    with (
        archive.open(f"tables/{name}.csv", "w", force_zip64=True) as raw,
        io.TextIOWrapper(raw, encoding="utf-8-sig", newline="") as table,
    ):
        writer = csv.writer(table)
        for n, row in enumerate(rows()):
            if n == 0:
                writer.writerow(row)
            writer.writerow([_cell(value) for value in row.values()])
    return {"rows": count, "sha256": digest.hexdigest()}


def _put_pictures(archive: zipfile.ZipFile, model: type[models.Model], shop: Shop) -> None:
    for field in _binary(model):
        for one in _pieces(rows_of(model, shop)):
            archive.writestr(zipfile.ZipInfo(_picture(one)), bytes(getattr(one, field)))  # it is packed already


def _rows(model: type[models.Model], shop: Shop) -> Iterator[Row]:
    return map(_row, _pieces(rows_of(model, shop).defer(*_binary(model))))


def _pieces(rows: "models.QuerySet[Any]") -> Iterator[Any]:
    """All of them by their keys, some at a time: the database's driver would bring everything at once."""
    piece = list(rows[:AT_ONCE])
    while piece:
        yield from piece
        piece = list(rows.filter(pk__gt=piece[-1].pk)[:AT_ONCE])


def _binary(model: type[models.Model]) -> list[str]:
    return [field.attname for field in model._meta.concrete_fields if isinstance(field, models.BinaryField)]


def _picture(one: models.Model) -> str:
    return f"pictures/{one._meta.label}/{getattr(one, 'uuid', one.pk)}.jpg"


def _cell(value: Any) -> str:
    if value is None:
        return ""
    return harmless(json.dumps(value, ensure_ascii=False) if isinstance(value, dict | list) else str(value))


def _person(user: User) -> Row:
    return {"id": user.pk, **{name: getattr(user, name) for name in PERSON}}


def _row(one: models.Model) -> Row:
    row: Row = {}
    for field in one._meta.concrete_fields:
        if isinstance(field, models.BinaryField):
            row[field.attname] = _picture(one)
        elif isinstance(field, models.ForeignKey) and field.related_model not in (User, *tables()):
            row[field.attname] = None
        else:
            row[field.attname] = _plain(getattr(one, field.attname))
    return row


def _plain(value: Any) -> Any:
    match value:
        case dt.datetime() | dt.date():
            return value.isoformat()
        case Decimal() | uuid.UUID():
            return str(value)
    return value


def _lines(archive: zipfile.ZipFile, manifest: dict[str, Any], name: str) -> Iterator[Row]:
    """The rows of a table. Raises NotRead at their end where they are not what was written, by number and digest."""
    told, count, digest = manifest["tables"][name], 0, hashlib.sha256()
    with archive.open(f"data/{name}.jsonl") as lines:
        for line in lines:
            count += 1
            digest.update(line)
            yield json.loads(line)
    if (count, digest.hexdigest()) != (told["rows"], told["sha256"]):
        raise NotRead(f"The table {name} is not what was written.")


def _read_people(archive: zipfile.ZipFile, manifest: dict[str, Any]) -> dict[Any, Any]:
    """People under their names, or with a number where somebody here has that; a password they choose by a link."""
    found = {}
    for row in _lines(archive, manifest, PEOPLE):
        name, n = row["username"], 2
        while User.objects.filter(username=name).exists():
            name, n = f"{row['username']}-{n}", n + 1
        user = User(**{key: row[key] for key in PERSON} | {"username": name})
        user.set_unusable_password()
        user.save()
        found[row["id"]] = user.pk
    return found


def _read_table(
    archive: zipfile.ZipFile, manifest: dict[str, Any], model: type[models.Model], numbers: Numbers
) -> dict[Any, Any]:
    own: dict[Any, Any] = {}
    numbers = {**numbers, model: own}
    batch: list[tuple[Any, models.Model]] = []
    fields = {field.attname: field for field in model._meta.concrete_fields}
    itself = any(key.related_model is model for key in keys_of(model))
    with _times_as_they_were(model):
        for row in _lines(archive, manifest, model._meta.label):
            batch.append((row[model._meta.pk.attname], _made(archive, model, fields, row, numbers)))
            if itself or len(batch) == AT_ONCE:
                _keep(model, batch, own)
        _keep(model, batch, own)
    return own


def _keep(model: type[models.Model], batch: list[tuple[Any, models.Model]], own: dict[Any, Any]) -> None:
    made = [one for _, one in batch]
    for field in model._meta.concrete_fields:
        mine = [getattr(one, field.attname) for one in made]
        known = field.unique and isinstance(field, models.UUIDField)
        if known and model._base_manager.filter(**{f"{field.attname}__in": mine}).exists():
            raise NotRead("This shop is here already.")
    for (key, _), one in zip(batch, model._base_manager.bulk_create(made), strict=True):
        own[key] = one.pk
    batch.clear()


def _made(
    archive: zipfile.ZipFile, model: type[models.Model], fields: dict[str, Any], row: Row, numbers: Numbers
) -> models.Model:
    values: Row = {}
    for name, value in row.items():
        field = fields[name]
        if isinstance(field, models.BinaryField):
            value = archive.read(value)
        elif isinstance(field, models.ForeignKey):
            value = None if value is None else numbers[field.related_model][value]
        elif isinstance(field, models.AutoField):
            continue
        elif not isinstance(field, models.JSONField):
            value = field.to_python(value)
        values[name] = value
    if model is Machine:
        values["wear_stale"] = True  # its forecasts are worked out again
    return model(**values)


@contextmanager
def _times_as_they_were(model: type[models.Model]) -> Iterator[None]:
    """When something was recorded is not when it was read in."""
    moved = [field for field in model._meta.concrete_fields if getattr(field, "auto_now_add", False)]
    kept = [field for field in model._meta.concrete_fields if getattr(field, "auto_now", False)]
    for field in moved:
        field.auto_now_add = False  # type: ignore[attr-defined]
    for field in kept:
        field.auto_now = False  # type: ignore[attr-defined]
    try:
        yield
    finally:
        for field in moved:
            field.auto_now_add = True  # type: ignore[attr-defined]
        for field in kept:
            field.auto_now = True  # type: ignore[attr-defined]


def delete(shop: Shop) -> dict[str, int]:
    """A shop and everything of it, for good; people who belong to no other shop go with it. Returns the rows of each table."""
    gone: dict[str, int] = {}
    with transaction.atomic(), connection.cursor() as cursor:
        people = [user.pk for user in people_of(shop)]
        # All of it goes, so that no row is in the way of another.
        cursor.execute("SET FOREIGN_KEY_CHECKS = 0")
        try:
            for model in reversed(all_tables()):
                gone[model._meta.label] = rows_of(model, shop).order_by()._raw_delete("default")
        finally:
            cursor.execute("SET FOREIGN_KEY_CHECKS = 1")
        elsewhere = Member.objects.filter(user__in=people).values_list("user_id", flat=True)
        alone = User.objects.filter(pk__in=set(people) - set(elsewhere))
        gone[PEOPLE] = alone.count()
        alone.delete()
    return gone
