"""The quick look at a change: the tests nearest to it first, and none begun when its time is over."""

import subprocess
from types import SimpleNamespace

import pytest

from testing.quick_look import Within, likely, nearest, words


def test_a_name_is_found_however_it_is_written():
    assert words("strip_down_offers").keys() == {"strip", "down", "offers", "stripdownoffers"}
    assert words("StripDownOffers strip-down-offers").keys() == words("strip_down_offers").keys()
    assert not words("a 12 == of")


def test_what_shares_rare_words_is_nearest_and_what_shares_none_is_not_there():
    tests = {
        "chains": words("assert stretch_of(chain) and the verdict of the machine"),
        "discs": words("assert wear_of(disc) and the verdict of the machine"),
        "mails": words("a letter arrives"),
    }
    assert nearest(words("def stretch_of(chain): verdict"), tests) == ["chains", "discs"]
    assert nearest(words("def wear_of(disc): verdict"), tests) == ["discs", "chains"]
    assert nearest(words("nothing alike"), tests) == []


@pytest.fixture
def project(tmp_path, monkeypatch):
    """A little one with a commit: change(file, text) makes it differ."""

    def change(file, text):
        path = tmp_path / file
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(text)

    def git(*command):
        subprocess.run(["git", "-c", "user.name=x", "-c", "user.email=x@example.org", *command], cwd=tmp_path, check=True)

    monkeypatch.chdir(tmp_path)
    change("core/chain.py", "def stretch_of(chain):\n    return 3\n")
    change("core/tests/test_chain.py", "def test_a_chain():\n    assert stretch_of(chain) == 3\n")
    change("server/tests/test_mail.py", "@parametrized\ndef test_a_letter():\n    assert letter\n")
    git("init", "-q")
    git("add", ".")
    git("commit", "-qm", "begin")
    return change


def test_a_changed_line_leads_to_the_test_that_speaks_of_it(project):
    assert likely("HEAD") == []
    project("core/chain.py", "def stretch_of(chain):\n    return 4\n")
    assert likely("HEAD")[0] == "core/tests/test_chain.py::test_a_chain"


def test_tests_that_are_new_or_changed_come_first(project):
    project("core/chain.py", "def stretch_of(chain):\n    return 4\n")
    project("server/tests/test_new.py", "def test_a_new_letter():\n    assert chain\n")
    assert likely("HEAD")[:2] == ["server/tests/test_new.py::test_a_new_letter", "core/tests/test_chain.py::test_a_chain"]


def test_what_no_test_here_notices_leads_to_none(project):
    project("web/src/chain.ts", "stretch_of(chain)")
    assert likely("HEAD") == []


@pytest.mark.parametrize(
    ("seconds", "fixtures", "begins"),
    [(60, [["yard"], ["demo"]], [True, True]), (10, [["yard"], ["demo"]], [True, False]), (0, [["yard"]], [False])],
)
def test_no_test_begins_that_would_end_too_late(seconds, fixtures, begins):
    within = Within(seconds)
    begun = []
    for names in fixtures:
        try:
            within.pytest_runtest_setup(SimpleNamespace(fixturenames=names))
        except pytest.skip.Exception:
            begun.append(False)
        else:
            begun.append(True)
    assert begun == begins
