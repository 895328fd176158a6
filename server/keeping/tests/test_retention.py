"""Nightly backups stay by days and weeks; a drill proves one; a copy elsewhere is read back."""

import datetime as dt

import pytest
from django.core.management import CommandError, call_command
from django.db import connection
from hypothesis import given
from hypothesis import strategies as st

from keeping import backup, offsite, retention, tables
from keeping.drill import SUFFIX, beside
from shops.models import Shop

NIGHT = dt.datetime(2026, 3, 2, 2, 15, tzinfo=dt.UTC)


def nights(many, first=NIGHT):
    return [retention.name_at(first + dt.timedelta(days=n)) for n in range(many)]


def test_a_hundred_nights():
    stay = sorted(retention.staying(nights(100)))
    assert stay[-14:] == nights(100)[-14:], "each of the last fourteen days"
    weekly = [retention.made_at(name) for name in stay[:-14]]
    assert len(weekly) == 5 and all(one.weekday() == 6 for one in weekly), "and of five weeks before them the Sunday"


def test_many_in_one_day_push_out_no_other_day():
    day = [retention.name_at(NIGHT + dt.timedelta(days=13, minutes=n)) for n in range(1, 60)]
    assert retention.staying(nights(14) + day) == {*nights(13), day[-1]}


def test_a_clock_that_jumped_ahead_takes_nothing_away():
    ahead = retention.name_at(NIGHT + dt.timedelta(days=4000))
    assert set(nights(13)) < retention.staying([*nights(13), ahead])


@given(
    st.lists(st.datetimes(dt.datetime(2026, 1, 1), dt.datetime(2027, 1, 1)), min_size=1), st.integers(1, 20), st.integers(0, 9)
)
def test_the_newest_always_stays_and_never_more_than_asked(moments, days, weeks):
    names = {retention.name_at(one.replace(tzinfo=dt.UTC)) for one in moments}
    stay = retention.staying(names, days, weeks)
    assert max(names) in stay and len(stay) <= days + weeks
    assert retention.staying(stay, days, weeks) == stay, "a second look takes nothing more away"


@pytest.mark.django_db(transaction=True)
class TestNights:
    @pytest.fixture
    def folder(self, yard, tmp_path):
        for name in nights(20):
            (tmp_path / name).touch()
        (tmp_path / "moving.lumvek").touch()
        return tmp_path

    def test_the_command_prunes_after_it_has_written(self, folder):
        call_command("backup", into=folder, days=3, weeks=0)
        left = sorted(one.name for one in folder.iterdir())
        assert left[:2] == nights(20)[-2:] and left[-1] == "moving.lumvek" and len(left) == 4

    def test_nothing_goes_when_nothing_was_written(self, folder, monkeypatch):
        monkeypatch.setattr(backup, "_keep", lambda *_: (_ for _ in ()).throw(OSError("No space left on device")))
        with pytest.raises(CommandError, match="No space left"):
            call_command("backup", into=folder, days=1, weeks=0)
        assert len(list(folder.iterdir())) == 21

    def test_a_drill_proves_the_newest_and_leaves_nothing(self, yard, tmp_path, capsys):
        call_command("backup", into=tmp_path)
        Shop.objects.filter(pk=yard.shop.pk).update(name="Renamed since")
        call_command("backup", drill=True, into=tmp_path)
        said = capsys.readouterr().out
        assert "was restored beside in" in said and said.count("digest ") == 2
        first, second = (line for line in said.splitlines() if line.startswith("digest"))
        assert first == second
        assert Shop.objects.get(pk=yard.shop.pk).name == "Renamed since", "our own database is left alone"
        with beside(SUFFIX):
            assert tables.there() == set()

    def test_a_drill_begins_though_one_broke_off(self, yard, tmp_path):
        with beside(SUFFIX), connection.cursor() as cursor:
            cursor.execute("CREATE TABLE shops_shop (id INT)")
            cursor.execute("INSERT INTO shops_shop VALUES (1)")
        call_command("backup", into=tmp_path)
        call_command("backup", drill=True, into=tmp_path)

    def test_a_drill_of_a_damaged_file_fails_in_words(self, yard, tmp_path):
        (tmp_path / nights(1)[0]).write_bytes(b"not a zip")
        with pytest.raises(CommandError, match=r"The drill failed: .* is no backup that can be read"):
            call_command("backup", drill=True, into=tmp_path)
        with pytest.raises(CommandError, match="There is no backup in"):
            call_command("backup", drill=True, into=tmp_path / "empty")

    def test_a_copy_elsewhere_is_read_back(self, yard, tmp_path, monkeypatch, capsys):
        house = tmp_path / "other house"
        house.mkdir()
        monkeypatch.setenv("LUMVEK_COPY", f'cp "$1" "{house}/$2"')
        monkeypatch.setenv("LUMVEK_COPY_BACK", f'cat "{house}/$1"')
        call_command("backup", into=tmp_path)
        assert "Copied elsewhere and read back the same" in capsys.readouterr().out
        assert len(list(house.iterdir())) == 1


@pytest.mark.parametrize(
    ("there", "back", "says"),
    [
        ("true", "", "LUMVEK_COPY_BACK is not set"),
        ("exit 3", "true", "LUMVEK_COPY ended with 3"),
        ("true", "exit 4", "LUMVEK_COPY_BACK ended with 4"),
        ("true", "printf half", "What came back of kept.zip is not the file: 4 bytes of 5"),
    ],
)
def test_a_copy_that_did_not_arrive_is_none(there, back, says, tmp_path, monkeypatch):
    file = tmp_path / "kept.zip"
    file.write_bytes(b"whole")
    monkeypatch.setenv("LUMVEK_COPY", there)
    monkeypatch.setenv("LUMVEK_COPY_BACK", back)
    with pytest.raises(offsite.NotCopied, match=says):
        offsite.copy(file)
