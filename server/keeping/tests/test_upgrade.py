"""An upgrade that is killed at whichever migration leaves nobody without their data, and no backup pushed out.

Here a few migrations are drawn; `LUMVEK_BREAK_OFF=all ./lumvek test server/keeping/tests/test_upgrade.py` takes each of them, from
each state that went out.
"""

import os
import random
import signal
import subprocess
import sys
from pathlib import Path

import pytest
import yaml
from django.core.management import CommandError, call_command
from django.db import connection
from django.db.backends.mysql.schema import DatabaseSchemaEditor
from django.db.migrations.executor import MigrationExecutor
from django.db.migrations.migration import Migration
from django.db.migrations.operations import AddField, CreateModel

from keeping import backup, rows, tables, upgrade
from keeping.drill import beside
from keeping.upgrade import NotUpgraded, Standing
from shops.models import Shop

pytestmark = pytest.mark.django_db(transaction=True)
RELEASED = yaml.safe_load((Path(__file__).parent / "released.yaml").read_text())
OLDEST, RECENT = next(iter(RELEASED)), list(RELEASED)[-2]
ALL = os.environ.get("LUMVEK_BREAK_OFF") == "all"


class Killed(BaseException):
    """Nothing catches it, as nothing catches SIGKILL."""


@pytest.fixture
def elsewhere():
    """A database of its own, empty at first and at the end."""
    with beside("_upgrade"):
        tables.drop(tables.there())
        yield
        connection.close()
        tables.drop(tables.there())


def stand_at(release):
    """Tables and a shop as they were in a release. Returns the migrations that an upgrade from there has before it."""
    executor = MigrationExecutor(connection)
    others = [node for node in executor.loader.graph.leaf_nodes() if not (Path("server") / node[0]).is_dir()]
    state = executor.migrate([*others, *RELEASED[release].items()])
    lead = state.apps.get_model("auth", "User").objects.create(username="lead")
    shop = state.apps.get_model("shops", "Shop").objects.create(name="Sallow Bridge")
    state.apps.get_model("shops", "Member").objects.create(user=lead, shop=shop)
    executor = MigrationExecutor(connection)
    return [migration for migration, _ in executor.migration_plan(executor.loader.graph.leaf_nodes())]


def killed_at(monkeypatch, wanted, after):
    """From now on, whoever makes this migration is killed after that many statements of it, or before it is noted down."""
    left, within = [after], []
    apply, execute = Migration.apply, DatabaseSchemaEditor.execute

    def applied(self, *arguments, **more):
        if (self.app_label, self.name) != (wanted.app_label, wanted.name):
            return apply(self, *arguments, **more)
        within.append(self)
        apply(self, *arguments, **more)
        raise Killed

    def executed(self, *arguments, **more):
        if within:
            left[0] -= 1
            if left[0] < 0:
                raise Killed
        return execute(self, *arguments, **more)

    monkeypatch.setattr(Migration, "apply", applied)
    monkeypatch.setattr(DatabaseSchemaEditor, "execute", executed)


def digest(path):
    path.unlink(missing_ok=True)
    return backup.write(path).digest


@pytest.mark.parametrize("release", RELEASED if ALL else [OLDEST])
def test_killed_at_any_migration_it_is_recognised_and_put_back(release, elsewhere, tmp_path):
    plan, before = stand_at(release), digest(tmp_path / "was.zip")
    chance = random.Random(release)
    nightly = [tmp_path / f"lumvek-202601{day:02}-020000.zip" for day in range(1, 15)]
    for one in nightly:
        one.touch()
    for migration in plan if ALL else chance.sample(plan, 3):
        with pytest.MonkeyPatch.context() as patch:
            killed_at(patch, migration, chance.randint(0, 5))
            with pytest.raises(Killed):
                upgrade.bring(tmp_path / "upgrades", str)
            connection.close()
        assert upgrade.standing() is Standing.BROKEN_OFF, migration
        kept = {one: one.stat().st_mtime_ns for one in tmp_path.rglob("*.zip")}
        for _ in range(6):  # a service that is started again and again
            with pytest.raises(NotUpgraded, match="An upgrade broke off"):
                upgrade.bring(tmp_path / "upgrades", str)
        assert kept == {one: one.stat().st_mtime_ns for one in tmp_path.rglob("*.zip")}, "nothing written, nothing pruned"
        upgrade.back()
        assert digest(tmp_path / "now.zip") == before, migration
        assert upgrade.standing() is Standing.OLDER
    said = []
    upgrade.bring(tmp_path / "upgrades", said.append)
    assert upgrade.standing() is Standing.SAME and said[-1] == "Upgraded."
    assert Shop.objects.get().name == "Sallow Bridge"
    assert len(list((tmp_path / "upgrades").iterdir())) == 1, "one for this pair of versions, however often it was tried"
    assert all(one.exists() for one in nightly)


def test_what_says_where_it_stands_says_what_its_tables_are(elsewhere, tmp_path, monkeypatch):
    """A database that broke off under a version that left no mark: nothing of it is kept as a backup, nothing is changed."""
    # One that adds something: what only changes a column can be done again, and nobody sees whether it was.
    adds = [one for one in stand_at(RECENT) if any(isinstance(part, CreateModel | AddField) for part in one.operations)]
    killed_at(monkeypatch, adds[-1], 99)
    with pytest.raises(Killed):
        upgrade.bring(tmp_path, str)
    tables.drop([rows.UPGRADE_MARK])
    with pytest.raises(NotUpgraded, match="Nothing was changed"):
        upgrade.bring(tmp_path / "upgrades", str)
    assert not list((tmp_path / "upgrades").iterdir())
    with pytest.raises(CommandError, match=r"The backup was not written: The table .* is no backup"):
        call_command("backup", str(tmp_path / "torn.zip"))


def test_a_real_kill_in_the_middle(elsewhere, tmp_path):
    stand_at(OLDEST)
    before = digest(tmp_path / "was.zip")
    environment = {**os.environ, "LUMVEK_DB_NAME": connection.settings_dict["NAME"], "LUMVEK_BACKUPS": str(tmp_path)}
    command = [sys.executable, "server/manage.py", "upgrade"]
    with subprocess.Popen(command, env=environment, start_new_session=True) as upgrading:
        while upgrade.mark() is None:
            assert upgrading.poll() is None
        with connection.cursor() as cursor:
            cursor.execute("SELECT COUNT(*) FROM django_migrations")
            (first,) = now = cursor.fetchone()
            while now[0] < first + 5:
                cursor.execute("SELECT COUNT(*) FROM django_migrations")
                now = cursor.fetchone()
        os.killpg(upgrading.pid, signal.SIGKILL)
    again = subprocess.run(command, env=environment, capture_output=True, text=True, check=False)
    assert again.returncode == 1 and "./lumvek upgrade --back puts back" in again.stderr
    back = subprocess.run([*command, "--back"], env=environment, capture_output=True, text=True, check=True)
    assert f"digest {before}" in back.stdout
    assert digest(tmp_path / "now.zip") == before


def test_a_first_set_up_that_broke_off_begins_anew(elsewhere, tmp_path, monkeypatch):
    executor = MigrationExecutor(connection)
    plan = [migration for migration, _ in executor.migration_plan(executor.loader.graph.leaf_nodes())]
    with monkeypatch.context() as patch:
        killed_at(patch, plan[len(plan) // 2], 1)
        with pytest.raises(Killed):
            upgrade.bring(tmp_path, str)
        connection.close()
    with pytest.raises(NotUpgraded, match="start again, it begins anew"):
        upgrade.back()
    said = []
    upgrade.bring(tmp_path, said.append)
    assert said == ["A first set-up broke off before anybody worked here: it begins anew."]
    assert upgrade.standing() is Standing.SAME


def test_back_is_refused_where_nothing_broke_off_or_the_file_is_another(elsewhere, tmp_path, monkeypatch):
    with pytest.raises(CommandError, match="No upgrade broke off here"):
        call_command("upgrade", back=True)
    plan = stand_at(RECENT)
    other = tmp_path / "other.zip"
    backup.write(other)
    Shop.objects.update(name="Renamed since")
    with monkeypatch.context() as patch:
        killed_at(patch, plan[0], 0)
        with pytest.raises(Killed):
            upgrade.bring(tmp_path / "upgrades", str)
    (file,) = (tmp_path / "upgrades").iterdir()
    moved = file.rename(tmp_path / "moved.zip")
    with pytest.raises(CommandError, match=r"is not there\. Say where it lies now"):
        call_command("upgrade", back=True)
    with pytest.raises(CommandError, match="is not what was kept before this upgrade"):
        call_command("upgrade", back=True, moved_to=other)
    call_command("upgrade", back=True, moved_to=moved)
    assert upgrade.standing() is Standing.OLDER and upgrade.mark() is None


def test_one_at_a_time(db):
    with upgrade._alone():
        name = f"{rows.UPGRADE_MARK}-{connection.settings_dict['NAME']}"
        with connection.copy("other").cursor() as other:
            other.execute("SELECT GET_LOCK(%s, 0)", [name])
            assert other.fetchone() == (0,), "whoever starts meanwhile is told to wait"
    with upgrade._alone():
        pass


def test_a_newer_database_is_refused(db, tmp_path):
    with connection.cursor() as cursor:
        cursor.execute("INSERT INTO django_migrations (app, name, applied) VALUES ('shops', '0999_later', NOW())")
    try:
        with pytest.raises(CommandError, match="changed by a newer Lumvek"):
            call_command("upgrade")
    finally:
        with connection.cursor() as cursor:
            cursor.execute("DELETE FROM django_migrations WHERE name = '0999_later'")
