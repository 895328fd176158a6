"""The tables as they stand: held against what migrations make of them, laid from how they were made, taken out of the way."""

from collections.abc import Iterable, Mapping

from django.db import connection
from django.db.migrations.loader import MigrationLoader
from django.db.migrations.recorder import MigrationRecorder

from . import rows

OF_UPGRADES = frozenset({rows.UPGRADE_MARK, "django_migrations"})
"""What says how the tables stand."""
Migrations = Mapping[str, list[str]]
"""app → the names that were applied, in order."""


def applied() -> dict[str, list[str]]:
    """The migrations that this database says it stands at."""
    found: dict[str, list[str]] = {}
    for app, name in MigrationRecorder.Migration.objects.order_by("id").values_list("app", "name"):
        found.setdefault(app, []).append(name)
    return found


FORMER_APPS = frozenset({"axes"})
"""Of packages that a version before had; what they kept was of the moment."""


def nodes(migrations: Migrations) -> set[tuple[str, str]]:
    return {(app, name) for app, names in migrations.items() if app not in FORMER_APPS for name in names}


def unlike(migrations: Migrations, columns: Mapping[str, Iterable[str]]) -> str:
    """The first table that is not what these migrations make, in a sentence; empty where every one is.

    columns: table → names. A change of tables that broke off leaves such ones: MariaDB does not take it back.
    """
    loader = MigrationLoader(None)
    known = nodes(migrations) & set(loader.graph.nodes)
    state = loader.project_state(sorted(known))
    wanted = {
        model._meta.db_table: {field.column for field in model._meta.local_concrete_fields if field.column}
        for model in state.apps.get_models(include_auto_created=True)
        if model._meta.managed and not model._meta.proxy and model._meta.db_table not in rows.FORGOTTEN
    }
    for table in sorted(wanted.keys() | columns.keys()):
        if table not in columns:
            return f"The table {table} is missing."
        if table not in wanted:
            return f"The table {table} does not belong to the version it says it is."
        if strange := set(columns[table]) ^ wanted[table]:
            return f"The table {table} is not what its version makes of it ({', '.join(sorted(strange))})."
    return ""


def creating(table: str) -> str:
    """The statement that makes a table as it is."""
    with connection.cursor() as cursor:
        cursor.execute(f"SHOW CREATE TABLE {rows.quoted(table)}")
        return str(cursor.fetchone()[1])


def lay(creations: Iterable[str], migrations: Migrations) -> None:
    """Make tables by their statements, and say at which migrations they stand."""
    with rows.keys_unchecked() as cursor:
        for statement in creations:
            cursor.execute(statement)
    recorder = MigrationRecorder(connection)
    recorder.ensure_schema()
    for app, names in migrations.items():
        for name in names:
            recorder.record_applied(app, name)


def drop(names: Iterable[str]) -> None:
    with rows.keys_unchecked() as cursor:
        for table in names:
            cursor.execute(f"DROP TABLE IF EXISTS {rows.quoted(table)}")


def there() -> set[str]:
    with connection.cursor() as cursor:
        return set(connection.introspection.table_names(cursor))
