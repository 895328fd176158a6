"""What is wrong in the catalogue is refused with its place, and renamed keys are followed."""

import copy
import functools
import shutil

import pytest
import yaml

from lumvek_core.catalogue import files, in_force, load
from lumvek_core.catalogue.lists import Renamed
from lumvek_core.errors import BadInput

READ_ONCE = functools.cache(files.read_text)


@pytest.fixture
def folder(tmp_path, monkeypatch):
    monkeypatch.setattr(files, "read_text", READ_ONCE)  # of some seventy files each test changes one
    return shutil.copytree(load.SHIPPED, tmp_path / "catalogue")


PLANTER = "families/row-crop-planter"


def rewritten(folder, name, change):
    path = folder / f"{name}.yaml"
    data = yaml.safe_load(path.read_text())
    change(data)
    path.write_text(yaml.safe_dump(data, sort_keys=False))


def refused(folder):
    with pytest.raises(BadInput) as problem:
        load.load(folder)
    return str(problem.value)


def disc(data):
    """The opener discs' diameter."""
    return next(check for check in data["checks"] if check["key"] == "opener-disc-diameter")


@pytest.mark.parametrize(
    ("change", "said"),
    [
        (lambda d: disc(d).update(colour="blue"), "checks.4.colour: is not a field here"),
        (lambda d: disc(d).update(posutre="x"), "checks.4.posutre: is not a field here; did you mean posture?"),
        (lambda d: disc(d).pop("how"), "checks.4.how: is missing"),
        (lambda d: disc(d).update(how=" "), "how must say what is done"),
        (lambda d: disc(d)["rule"].update(kind="waer"), "must be one of: "),
        (lambda d: disc(d)["rule"].update(kind="waer"), "; did you mean wear?"),
        (lambda d: disc(d)["rule"].update(limit=400, new=400), "the limit must differ from the size when new"),
        (lambda d: disc(d).update(parts=[{"slot": "nut"}]), "unknown slot nut"),
        (lambda d: disc(d).update(parts=[{"slot": "opener-dics"}]), "unknown slot opener-dics; did you mean opener-disc?"),
        (lambda d: disc(d).update(hazards=["bees"]), "unknown hazard bees"),
        (lambda d: disc(d).update(after=["nothing"]), "comes after a check that is not there: nothing"),
        (lambda d: disc(d).update(option="wings"), "unknown option wings"),
        (lambda d: disc(d).pop("unit"), "has no unit"),
        (lambda d: disc(d).update(plausible=[5, 1]), "the smaller first"),
        (lambda d: disc(d).update(plausible=[385, 500]), "plausible 385 to 500 excludes the limit 368"),
        (lambda d: disc(d).update(drawing="bar"), "a rule wear is drawn as disc, scale, not as bar"),
        (lambda d: d["checks"].append(copy.deepcopy(disc(d))), "opener-disc-diameter stands there twice"),
        (lambda d: disc(d).update(per="wing"), "made per wing, which the family does not have"),
        (lambda d: disc(d).update(per="wheel-side"), "wheel has named places, which have no sides"),
        (lambda d: disc(d).update(posture="upside down"), "unknown posture upside down"),
        (lambda d: d.update(posture="unfolded, raised and loked"), "did you mean unfolded, raised and locked?"),
        (lambda d: disc(d).update(unless=["wings"]), "unknown option wings"),
        (lambda d: disc(d).update(headers=["boat"]), "unknown family boat"),
        (lambda d: disc(d).update(kind="choice"), "a rule wear judges kind measure"),
        (lambda d: disc(d).update(values=["a", "b"]), "a rule wear needs 0 values"),
        (lambda d: disc(d).update(rule={"kind": "interval"}, kind="interval"), "needs an interval"),
        (lambda d: d.update(key="openers"), "the key must be the name of the file, opener"),
    ],
)
def test_what_is_wrong_in_a_station_is_refused_with_file_and_line(folder, change, said):
    rewritten(folder, f"{PLANTER}/opener", change)
    told = refused(folder)
    assert said in told and f"{PLANTER}/opener.yaml, line " in told


@pytest.mark.parametrize(
    ("change", "said"),
    [
        (lambda d: d["slots"].pop("opener-disc"), "no family has a slot opener-disc"),
        (lambda d: d["slots"].update({"bell": {"name": "Bell"}}), "nothing calls for the slot bell"),
        (lambda d: d.update(prefix="p"), "a header needs a prefix"),
        (lambda d: d.update(start="nowhere"), "unknown posture nowhere to start from"),
        (lambda d: d["things"]["row"].update(count=0), "needs either a count or names"),
        (lambda d: d.update(include=["wings"]), "shared/wings/shared.yaml: is not there"),
        (lambda d: d["route"].remove("opener"), "opener.yaml lies in this folder and is not in the route"),
        (lambda d: d["route"].append("openers"), "there is no file openers.yaml; did you mean opener?"),
    ],
)
def test_what_is_wrong_with_a_family_is_refused(folder, change, said):
    rewritten(folder, f"{PLANTER}/family", change)
    assert said in refused(folder)


def test_what_a_crop_wants_must_leave_it_a_sound_state(folder):
    def nothing_sound_for_ear_crops(data):
        drum = next(check for check in data["checks"] if check["key"] == "drum-position")
        for option in drum["rule"]["options"]:
            if "ear" in option.get("crops", []):
                option.update(severity="due", action="adjust")

    rewritten(folder, "families/rotary-combine/feeder", nothing_sound_for_ear_crops)
    assert "no sound state suits ear" in refused(folder)


def test_the_line_is_the_line_and_a_key_cannot_stand_twice(folder):
    path = folder / PLANTER / "opener.yaml"
    text = path.read_text()
    lines = text.splitlines()
    at = next(i for i, line in enumerate(lines) if "posture:" in line)
    path.write_text("\n".join([*lines[: at + 1], "posture: folded", *lines[at + 1 :]]))
    assert refused(folder) == f"{PLANTER}/opener.yaml, line {at + 2}: posture stands there twice"
    path.write_text(text.replace("    per: row-side", "    per: [row-side", 1))
    assert "is not YAML" in refused(folder)
    path.write_text(text.replace("    per: row-side", "    pre: row-side", 1))
    line = next(i for i, line in enumerate(lines, 1) if line == "    per: row-side")
    assert refused(folder).startswith(
        f"{PLANTER}/opener.yaml, line {line}: checks.1.pre: is not a field here; did you mean per?"
    )


def test_renamed_checks_are_followed_and_lead_somewhere(folder):
    rewritten(folder, "renamed", lambda d: d.update(checks={"disc-size": "disc-diameter"}))
    assert "disc-size is now disc-diameter, which is no check" in refused(folder)
    renamed = Renamed({"disc-size": "opener-disc-diameter", "disc": "opener-disc-diameter"})
    assert renamed.today("draper.disc-size") == "draper.opener-disc-diameter" and renamed.today("other") == "other"
    assert renamed.ever(["x.opener-disc-diameter"]) == dict.fromkeys(
        ["x.opener-disc-diameter", "x.disc-size", "x.disc"], "x.opener-disc-diameter"
    )
    rewritten(folder, "renamed", lambda d: d.update(checks={"opener-contact": "opener-disc-diameter"}))
    assert "opener-contact is a check still" in refused(folder)


def test_a_check_added_in_the_file_is_in_the_rule_book(folder):
    paint = {"key": "paint", "name": "Paint", "per": "row", "kind": "yes-no", "how": "Is any left?", "rule": {"kind": "yes-no"}}
    rewritten(folder, f"{PLANTER}/hitch", lambda data: data["checks"].append(paint))
    assert "paint" in in_force.rule_book(load.load(folder), "row-crop-planter").family.checks


def service(data, key):
    return next(one for one in data if one["key"] == key)


def shakes(data):
    return next(one for one in data["symptoms"] if one["key"] == "shakes")


def chopper(data):
    return next(one for one in data["families"]["rotary-combine"]["shafts"] if one["key"] == "chopper")


@pytest.mark.parametrize(
    ("name", "change", "said"),
    [
        ("companions", lambda d: d[0].update(when="opener-dics"), "no family has a slot opener-dics; did you mean opener-disc?"),
        ("schools", lambda d: d[0].update(default="never"), "has no choice never"),
        ("schools", lambda d: d[0].update(about=["disc"]), "is about disc, which is no check"),
        ("strip-downs", lambda d: d[0].update({"for": ["bell"]}), "no family has a slot bell"),
        ("services", lambda d: service(d, "arm-bolts").pop("every_h"), "arm-bolts needs an interval in hours or days"),
        ("services", lambda d: d.append(dict(d[0])), "engine-oil stands there twice"),
        ("services", lambda d: d[0].update(families=["tractor"]), "there is no family tractor"),
        ("services", lambda d: d[0].update(slot="bell"), "rotary-combine has no slot bell"),
        ("services", lambda d: d[0].update(touches=["grain-chian"]), "touches grain-chian, which is no check of its machines; did you mean grain-chain?"),
        ("safety", lambda d: d["moves"][0].update(to="upside down"), "unknown posture upside down"),
        ("work", lambda d: d["postures"].update({"upside down": d["postures"].popitem()[1]}), "unknown posture upside down"),
        ("work", lambda d: d["skills"].update(bees=d["skills"].popitem()[1]), "unknown hazard bees"),
        ("work", lambda d: d["actions"].update(paint=d["actions"].popitem()[1]), "nothing calls for paint"),
        ("symptoms", lambda d: shakes(d)["causes"][0].update(check="chopper-knifes"), "there is no look chopper-knifes; did you mean chopper-knives?"),
        ("symptoms", lambda d: shakes(d)["causes"][0].update(shaft="propeller"), "there is no shaft propeller"),
        ("symptoms", lambda d: shakes(d)["causes"][0].update(season="always"), "season"),
        ("symptoms", lambda d: shakes(d).update(stations=["attic"]), "there is no station attic"),
        ("symptoms", lambda d: d["looks"]["runs-empty"].update(posture="upside down"), "unknown posture upside down"),
        ("symptoms", lambda d: d["looks"].update(idle={"name": "Idle", "posture": "folded", "how": "Wait.", "minutes": 1}), "nothing is found by idle"),
        ("shafts", lambda d: chopper(d).update(station="attic"), "attic"),
        ("renamed", lambda d: d.update(checks={"disc": "disc-size"}), "disc is now disc-size, which is no check"),
    ],
)  # fmt: skip
def test_what_is_wrong_in_a_list_is_refused_with_its_file(folder, name, change, said):
    rewritten(folder, name, change)
    told = refused(folder)
    assert said in told and f"{name}.yaml" in told
