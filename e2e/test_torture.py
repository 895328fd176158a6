"""The short form of ``./lumvek torture``: faults of every kind while everything is under way, and nothing lost or doubled."""

from torture import Torture


def test_nothing_acknowledged_is_lost_and_nothing_is_there_twice(capsys):
    torture = Torture(faults=14, seed=5, say=lambda _: None)
    counts = torture.run()
    with capsys.disabled():
        print("\n  " + ", ".join(f"{name} {count}" for name, count in counts.items()))
    assert len(torture.done) >= 5, "faults of several kinds"
    assert (counts["lost"], counts["doubled"]) == (0, 0), torture.notes
    assert (counts["refused"], counts["faults of ours"]) == (0, 0), torture.notes
    assert counts["readings"] > 5 and counts["loads"] > 2 and counts["orders"] > 0, counts
