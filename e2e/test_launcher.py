"""The launcher: what it offers, and the one sentence with a way on when something is in the way."""

import os
import socket
import subprocess
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parent.parent


def lumvek(*arguments, **environment):
    return subprocess.run(
        [str(ROOT / "lumvek"), *arguments], env={**os.environ, **environment}, capture_output=True, text=True, check=False
    )


def functions(program, path=None):
    """Run a few lines with the launcher's functions at hand; `path`: a folder of commands that stand in for the real ones."""
    environment = {**os.environ, "PATH": f"{path}:{os.environ['PATH']}" if path else os.environ["PATH"]}
    lines = f". scripts/common.sh; . scripts/setup.sh; {program}"
    return subprocess.run(["bash", "-c", lines], cwd=ROOT, env=environment, capture_output=True, text=True, check=False)


@pytest.fixture
def stand_in(tmp_path):
    """Commands that say or do something else: stand_in(id="echo 1000")."""

    def made(**commands):
        for name, body in commands.items():
            file = tmp_path / name.replace("_", "-")
            file.write_text(f"#!/bin/bash\n{body}\n")
            file.chmod(0o755)
        return tmp_path

    return made


def test_help_names_every_command():
    said = lumvek("--help").stdout
    for command in ("demo", "serve", "test", "calc", "catalogue", "bench"):
        assert f"  {command} " in said


@pytest.mark.parametrize("arguments", [[], ["dance"]])
def test_anything_else_shows_the_help_and_fails(arguments):
    done = lumvek(*arguments)
    assert done.returncode == 2
    assert "usage: ./lumvek" in done.stderr


def test_demo_takes_no_unknown_word():
    done = lumvek("demo", "--quick")
    assert (done.returncode, done.stderr) == (1, "lumvek: demo knows only --fresh, not --quick.\n")


def test_a_busy_port_is_stepped_over():
    with socket.create_server(("127.0.0.1", 0)) as taken:
        port = taken.getsockname()[1]
        assert int(functions(f"free_port {port}").stdout) > port


def test_what_a_killed_start_left_running_is_ended_and_nobody_else(tmp_path):
    ours = subprocess.Popen(["sleep", "60", "61"], cwd=ROOT / "server")
    other_word = subprocess.Popen(["sleep", "62"], cwd=ROOT)
    elsewhere = subprocess.Popen(["sleep", "60", "61"], cwd=tmp_path)
    pids = tmp_path / "pids"
    pids.write_text(f"{ours.pid} {other_word.pid} {elsewhere.pid} 999999999")
    try:
        assert functions(f"end_leftovers {pids} gunicorn 'sleep 60'").returncode == 0
        assert ours.wait(5) != 0 and other_word.poll() is None and elsewhere.poll() is None
        assert not pids.exists()
        assert functions(f"end_leftovers {pids} gunicorn").returncode == 0, "nothing was left"
    finally:
        for one in (ours, other_word, elsewhere):
            one.kill()
            one.wait()


def test_a_full_disk_and_a_folder_that_cannot_be_written_get_one_sentence(tmp_path):
    full = functions("room 999999999")
    assert full.returncode == 1 and "MB are free at" in full.stderr and "make room" in full.stderr
    (tmp_path / "scripts").symlink_to(ROOT / "scripts")
    (tmp_path / ".lumvek").write_text("a file where a folder should be")
    done = subprocess.run(["bash", "-c", ". scripts/common.sh"], cwd=tmp_path, capture_output=True, text=True, check=False)
    assert (done.returncode, len(done.stderr.strip().splitlines())) == (1, 1)
    assert "cannot be written to" in done.stderr


def test_without_the_right_to_install_it_says_what_to_ask_for(stand_in):
    done = functions("setup_system lumvek-no-such-package", stand_in(id="echo 1000", sudo="exit 1"))
    assert done.returncode == 1
    assert "sudo apt-get install -y --no-install-recommends lumvek-no-such-package" in done.stderr


def test_without_a_network_it_says_so_and_how_to_go_on(stand_in):
    done = functions("setup_system lumvek-no-such-package", stand_in(id="echo 0", apt_get="echo cannot connect; exit 100"))
    assert done.returncode == 1
    assert "is there a network? Once there is, run this again" in done.stderr


def test_what_is_there_is_not_installed_again(stand_in):
    done = functions("setup_system bash coreutils", stand_in(apt_get="exit 100"))
    assert (done.returncode, done.stdout) == (0, "")


def test_a_step_broken_off_is_due_again(tmp_path):
    done = functions(
        f"STATE={tmp_path}; mkdir $STATE/stamps; stamp npm abc; stamped npm abc && echo same; stamped npm abd || echo due; "
        "stamped pip abc || echo new"
    )
    assert done.stdout.split() == ["same", "due", "new"]


def test_a_failed_step_shows_the_end_of_its_log():
    done = functions("step 'Something hard' launcher-test bash -c 'echo because of this; exit 3' || echo went on")
    assert "failed" in done.stdout and "went on" in done.stdout
    assert "because of this" in done.stderr


@pytest.mark.parametrize(
    ("secrets", "said"),
    [
        ({}, "LUMVEK_SECRET_KEY is not set"),
        ({"LUMVEK_SECRET_KEY": "demo-" + "x" * 50, "LUMVEK_DB_PASSWORD": "own"}, "LUMVEK_SECRET_KEY is a demo secret"),
    ],
)
def test_serve_refuses_in_one_sentence(secrets, said):
    done = lumvek("serve", **({"LUMVEK_SECRET_KEY": "", "LUMVEK_DB_PASSWORD": ""} | secrets))
    assert done.returncode == 1
    assert done.stderr.startswith(f"lumvek: {said}")
    assert len(done.stderr.strip().splitlines()) == 1


@pytest.mark.parametrize(
    ("found", "whose"),
    [("echo 20", "ours"), ("echo 22", "theirs"), ("echo 24", "theirs"), ("exit 127", "ours")],
    ids=["too old", "just new enough", "newer", "broken"],
)
def test_node_of_the_machine_is_taken_where_it_is_new_enough(found, whose, stand_in, tmp_path):
    path = stand_in(node=found, npm="true")
    (tmp_path / ".venv/bin").mkdir(parents=True)
    for tool in ("node", "npm"):
        (tmp_path / ".venv/bin" / tool).write_text("#!/bin/bash\necho 24\n")
        (tmp_path / ".venv/bin" / tool).chmod(0o755)
    done = functions(f"STATE={tmp_path}/state; cd {tmp_path}; use_node; command -v node; use_node; command -v node", path)
    assert done.stdout.split() == [{"theirs": f"{path}/node", "ours": f"{tmp_path}/state/node/node"}[whose]] * 2


def test_where_there_is_no_python_it_is_among_what_is_installed(stand_in):
    """debootstrap lays none."""
    path = stand_in(dpkg_query="exit 1", grep="exit 1")
    lines = f". scripts/common.sh; . scripts/setup.sh; PATH={path}; missing_packages mariadb-server-core"
    done = subprocess.run(["/bin/bash", "-c", lines], cwd=ROOT, capture_output=True, text=True, check=False)
    assert done.stdout.split() == ["python3", "mariadb-server-core", "python3-venv", "python3-dev"]


def test_the_audit_says_so_where_no_list_is_in_reach(stand_in):
    """The list of one is away, the other names a weakness: both are said, and it fails for the second alone."""
    path = stand_in(node="echo 24", npm="echo '3 high severity vulnerabilities'; exit 1")
    lines = "cd scripts/.. && PIP_INDEX_URL=http://127.0.0.1:9 bash scripts/audit.sh"
    environment = {**os.environ, "PATH": f"{path}:{os.environ['PATH']}", "HTTPS_PROXY": "http://127.0.0.1:9"}
    done = subprocess.run(["bash", "-c", lines], cwd=ROOT, env=environment, capture_output=True, text=True, check=False)
    assert "Python packages\n  The list cannot be asked from here: nothing is known" in done.stdout
    assert "3 high severity" in done.stdout and done.returncode == 1
