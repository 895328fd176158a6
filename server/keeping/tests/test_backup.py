"""A backup holds everything, says when it is damaged, and comes back to the last byte."""

import json
import threading
import uuid
import zipfile

import pytest
from django.core.management import CommandError, call_command
from django.db import connection

from inspection.models import Reading, Verdict, WalkAround
from keeping import backup, restoring, rows, upgrade
from keeping.backup import NotRestored
from shops.models import Shop
from testing.yard import record

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def kept(yard, tmp_path):
    """The yard with a reading and a picture of odd bytes, in a file: where it lies, and what it says of itself."""
    record(yard, "opener-disc-diameter", "3L", "15 3/8")
    WalkAround.objects.filter(pk=yard.walk_around.pk).update(phase="winter")
    path = tmp_path / "kept.zip"
    return path, backup.write(path)


def test_everything_is_in_it_and_it_says_how_much(kept):
    path, manifest = kept
    assert manifest.tables["inspection_reading"].rows == Reading.objects.count() == 1
    assert set(manifest.tables) == set(rows.tables())
    assert backup.read(path) == manifest
    assert path.stat().st_mode & 0o077 == 0, "nobody else on the machine reads it"


def test_what_comes_back_is_what_was_kept(kept, yard, tmp_path, as_):
    path, manifest = kept
    before = as_(yard.lead).get(f"/api/walk-arounds/{yard.walk_around.pk}").json()
    Shop.objects.filter(pk=yard.shop.pk).update(name="Somebody else's")
    Verdict.objects.all().delete()
    Reading.objects.all().delete()
    restoring.load(path, manifest)
    assert backup.write(tmp_path / "again.zip").digest == manifest.digest
    assert Shop.objects.get(pk=yard.shop.pk).name == "Sallow Bridge"
    assert as_(yard.lead).get(f"/api/walk-arounds/{yard.walk_around.pk}").json()["places"] == before["places"]


def test_bytes_days_and_exact_figures_keep_their_last_digit(db):
    odd = [b"\x00\xff'\\", None, "“quoted”\n\u2028", 0.1 + 0.2, 10**15, True]
    with connection.cursor() as cursor:
        cursor.execute(
            "CREATE TEMPORARY TABLE odd (a BLOB, b INT, c TEXT, d DOUBLE, e BIGINT, f BOOL, g DECIMAL(9,2), h DATE, i DATETIME(6))"
        )
        cursor.execute(
            "INSERT INTO odd VALUES (%s, %s, %s, %s, %s, %s, '12.30', '2026-03-05', '2026-03-05 07:08:09.000001')", odd
        )
    columns = rows.columns_of("odd")
    lines = list(rows.rows_of("odd", columns))
    assert rows.put("odd", columns, iter(lines)) == 1
    assert list(rows.rows_of("odd", columns)) == lines
    assert b'{"exact":"12.30"}' in lines[0] and b'"2026-03-05T07:08:09.000001"' in lines[0]


def test_it_is_of_one_moment_while_others_go_on_writing(yard, tmp_path, monkeypatch):
    """A reading that is recorded in the middle is in none of its tables."""
    real, written = backup._keep, []

    def record_elsewhere():
        record(yard, "opener-disc-diameter", "4L", "385")
        connection.close()

    def keep(archive, table):
        if not written:
            written.append(table)
            other = threading.Thread(target=record_elsewhere)
            other.start()
            other.join()
        return real(archive, table)

    monkeypatch.setattr(backup, "_keep", keep)
    manifest = backup.write(tmp_path / "kept.zip")
    assert Reading.objects.count() == 1
    assert manifest.tables["inspection_reading"].rows == 0
    assert manifest.tables["inspection_verdict"].rows == 0


def spoilt(path, name, change):
    """The same file with one member changed."""
    other = path.with_name("spoilt.zip")
    with zipfile.ZipFile(path) as old, zipfile.ZipFile(other, "w") as new:
        for member in old.namelist():
            content = old.read(member)
            new.writestr(member, change(content) if member == name else content)
    return other


def told(change):
    def changed(content):
        manifest = json.loads(content)
        change(manifest)
        return json.dumps(manifest).encode()

    return changed


@pytest.mark.parametrize(
    ("name", "change", "says"),
    [
        (
            "tables/inspection_reading.jsonl",
            lambda lines: lines.replace(b"15 3/8", b"15 5/8"),
            "inspection_reading is not what",
        ),
        ("tables/shops_shop.jsonl", lambda lines: b"", "shops_shop is not what"),
        ("manifest.json", lambda content: b"{", "no backup that can be read"),
        ("manifest.json", told(lambda m: m.update(format="other")), "no backup that can be read"),
        ("manifest.json", told(lambda m: m["tables"].pop("shops_shop")), "its list of tables"),
        ("manifest.json", told(lambda m: m.update(version=99)), "newer Lumvek"),
    ],
)
def test_a_damaged_file_is_found_out_before_anything_is_touched(name, change, says, kept):
    path = spoilt(kept[0], name, change)
    with pytest.raises(NotRestored, match=says):
        upgrade.restore(path)
    assert Reading.objects.count() == 1


def test_what_is_no_backup_is_refused_in_words(tmp_path, db):
    path = tmp_path / "letter.zip"
    path.write_bytes(b"not a zip")
    with pytest.raises(CommandError, match=r"letter\.zip is no backup that can be read"):
        call_command("restore", str(path))
    with pytest.raises(CommandError, match="no backup that can be read"):
        call_command("restore", str(tmp_path / "missing.zip"))


def test_nothing_is_restored_over_a_shop_that_works(kept):
    with pytest.raises(NotRestored, match="There is a shop in this database"):
        upgrade.restore(kept[0])
    assert Reading.objects.count() == 1


def test_a_database_of_something_else_is_left_alone(kept):
    with connection.cursor() as cursor:
        cursor.execute("CREATE TABLE herd_book (id INT)")
    try:
        with pytest.raises(NotRestored, match=r"something else \(herd_book\)"):
            upgrade.restore(kept[0])
    finally:
        with connection.cursor() as cursor:
            cursor.execute("DROP TABLE herd_book")
    assert Reading.objects.count() == 1


def test_tables_of_a_newer_version_are_not_taken(kept):
    path = spoilt(kept[0], "manifest.json", told(lambda m: m["migrations"]["shops"].append("0999_from_the_future")))
    with pytest.raises(NotRestored, match=r"newer Lumvek \(shops 0999_from_the_future\)"):
        upgrade.restore(path)


def test_nothing_is_written_over_a_file_that_is_there(yard, tmp_path):
    path = tmp_path / f"{uuid.uuid4()}.zip"
    path.write_text("mine")
    with pytest.raises(CommandError, match="is there already"):
        call_command("backup", str(path))
    assert path.read_text() == "mine"


def test_a_full_disk_leaves_no_half_a_backup(yard, tmp_path, monkeypatch):
    def full(*_):
        raise OSError("No space left on device")

    monkeypatch.setattr(backup, "_keep", full)
    with pytest.raises(CommandError, match="No space left"):
        call_command("backup", str(tmp_path / "kept.zip"))
    assert list(tmp_path.iterdir()) == []
