"""The endpoints of the described API, and what each is called with."""

import json
import re
import uuid

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from config.api import api
from demo.pictures import drawn
from testing.yard import PASSWORD

OPEN = {
    ("/api/session", "get"),
    ("/api/session/login", "post"),
    ("/api/session/found", "post"),
    ("/api/session/forgotten", "post"),
    ("/api/session/new-password", "post"),
    ("/api/session/invitation/{secret}", "get"),
    ("/api/session/invitation/{secret}", "post"),
}
OWN_CHECK = {
    "uuid": str(uuid.uuid4()),
    "family": "row-crop-planter",
    "station": "hitch",
    "name": "Rail gap",
    "how": "Feeler between rail and block.",
    "rule": "least",
    "unit": "mm",
    "figures": {"least": "2"},
}
BODIES = {
    "ask_desks": {"uuid": str(uuid.uuid4())},
    "ask_forecast": {"uuid": str(uuid.uuid4())},
    "ask_telematics": {"uuid": str(uuid.uuid4())},
    "start": {"id": str(uuid.uuid4())},
    "record": {"uuid": str(uuid.uuid4()), "check": "opener-disc-diameter", "position": "1L", "raw": ["390"]},
    "record_at_once": {
        "readings": [{"uuid": str(uuid.uuid4()), "check": "opener-disc-diameter", "position": "1L", "raw": ["390"]}]
    },
    "decide": {"uuid": str(uuid.uuid4()), "check": "opener-disc-diameter", "positions": ["1L"], "choice": "do"},
    "preview": {"id": str(uuid.uuid4())},
    "hold": {"uuid": str(uuid.uuid4()), "posture": "unfolded, raised and locked"},
    "order": {"order": []},
    "finish": {"uuid": str(uuid.uuid4())},
    "reopen": {"uuid": str(uuid.uuid4()), "reason": "row 3 was forgotten"},
    "discard": {"uuid": str(uuid.uuid4()), "reason": "the wrong planter"},
    "restore": {"uuid": str(uuid.uuid4())},
    "set_aside": {
        "uuid": str(uuid.uuid4()),
        "check": "opener-disc-diameter",
        "position": "1L",
        "shown": "390",
        "outcome": "logbook",
        "taken_at": "2026-11-20T10:00:00Z",
    },
    "hand_over": {"uuid": str(uuid.uuid4()), "to": 0},
    "note": {"uuid": str(uuid.uuid4()), "text": "rattles"},
    "pin_photo": {"uuid": str(uuid.uuid4())},
    "close_note": {"cause": "a loose bolt"},
    "set_limit": {"check": "opener-disc-diameter", "figure": "limit", "text": "387"},
    "set_count": {"thing": "row", "count": 6},
    "set_school": {"subject": "order", "choice": "round"},
    "set_feeler": {"name": "card", "thickness": "0.28"},
    "share": {"days": 3},
    "save": {"uuid": str(uuid.uuid4()), "texts": {}},
    "take_file": {"text": "1,2"},
    "gauge": {"gauge": "tape"},
    "set_number": {"model": 0, "slot": "opener-disc", "number": "D12-4001"},
    "choose": {"model": 0, "slot": "opener-disc", "number": "D12-4001"},
    "set_hand": {"walk_around": "", "slot": "opener-disc", "positions": ["1L"], "side": "L"},
    "need_date": {"machine": 0, "day": "2026-12-01"},
    "set_terms": {
        "currency": "EUR",
        "labour_rate": "62",
        "km_cost": "0.4",
        "downtime_rate": "240",
        "late_cost_per_day": "120",
        "days_before": 7,
    },
    "make_plan": {"uuid": str(uuid.uuid4())},
    "place": {"kind": "cheapest"},
    "drop_rest": {"number": "D12-4001"},
    "orders_by_word": {
        "uuid": str(uuid.uuid4()),
        "number": "D12-4001",
        "supplier": "Bridge Street Parts",
        "way": "counter",
        "quantity": 1,
    },
    "receive": {"uuid": str(uuid.uuid4()), "number": "D12-4001", "quantity": 1},
    "fit": {"uuid": str(uuid.uuid4()), "walk_around": "", "slot": "opener-disc", "positions": ["1L"]},
    "stock_item": {"number": "D12-4001", "name": "Opener disc"},
    "count_stock": {"uuid": str(uuid.uuid4()), "number": "D12-4001", "place": "shelf", "counted": 4},
    "load_truck": {"uuid": str(uuid.uuid4()), "number": "D12-4001", "quantity": 1},
    "give_back": {"uuid": str(uuid.uuid4()), "number": "D12-4001", "quantity": 1, "note": "to Northmere Depot"},
    "approve": {"uuid": str(uuid.uuid4()), "amount": "135.00", "how": "by telephone"},
    "take_along": {"slot": "opener-bearing", "positions": ["1L"]},
    "set_supplier": {"name": "Northmere Depot"},
    "set_share": {"owner": 0, "percent": "40"},
    "desk_mode": {"mode": "normal"},
    "set_next_use": {"use": 200},
    "count_machine": {"uuid": str(uuid.uuid4()), "shown": 2900},
    "service_done": {"uuid": str(uuid.uuid4()), "key": "arm-bolts"},
    "tick_put_away": {"uuid": str(uuid.uuid4()), "key": "meters-empty", "season": 2024, "done": True},
    "preferences": {"units": "in"},
    "change_shop": {"member": 0},
    "change_the_shop": {"name": "Sallow Bridge Machinery Ring"},
    "set_ways": {"time_zone": "", "units": "mm", "day_form": "words"},
    "set_hours": {"hours": "Mon–Fri 07:30–17:00"},
    "set_crops": {"crops": [{"name": "Wheat", "group": "small-grain"}], "seasons": []},
    "keep_workplace": {"uuid": str(uuid.uuid4()), "kind": "bay", "name": "Long bay", "door_width": "4.2 m"},
    "add_machine": {
        "uuid": str(uuid.uuid4()),
        "model": {"family": "row-crop-planter", "maker": "Dunmere", "name": "8"},
        "machine": {"name": "Dunmere 8", "rows": 8},
    },
    "change_machine": {"name": "Dunmere 12", "rows": 6},
    "put_out": {"why": "sold"},
    "change_account": {"name": "Tomas Vey", "email": "tomas@sallow-bridge.invalid"},
    "change_password": {"old": PASSWORD, "new": "linseed-and-lupins"},
    "confirm_second_factor": {"code": "000000"},
    "new_codes_for_once": {"password": PASSWORD},
    "end_second_factor": {"password": PASSWORD},
    "end_devices": {},
    "invite": {"uuid": str(uuid.uuid4()), "name": "Ines Marrow", "roles": ["technician"]},
    "set_roles": {"roles": ["technician", "parts"]},
    "copy_model": {"uuid": str(uuid.uuid4()), "maker": "Dunmere", "name": "12 b"},
    "set_own_check": OWN_CHECK,
    "try_own_check": {"check": OWN_CHECK},
    "alter_check": {
        "uuid": str(uuid.uuid4()),
        "family": "row-crop-planter",
        "key": "parallel-arm-play",
        "how": "Shake it.",
        "reason": "shorter",
    },
    "take_check_away": {"uuid": str(uuid.uuid4()), "family": "row-crop-planter", "key": "own-rail-gap"},
    "check_as_before": {"uuid": str(uuid.uuid4()), "family": "row-crop-planter", "key": "own-rail-gap"},
    "make_season_plan": {"uuid": str(uuid.uuid4())},
    "mark_job": {"uuid": str(uuid.uuid4()), "key": "", "kind": "start"},
    "add_own_job": {"uuid": str(uuid.uuid4()), "machine": 0, "name": "Weld the step", "minutes": 40},
    "change_own_job": {"machine": 0, "name": "Weld both steps", "minutes": 60},
    "make_calendar_feed": {"uuid": str(uuid.uuid4())},
    "set_hands": {"planned": True, "hours": "Mon–Thu 07:00–15:00", "skills": "welding"},
    "set_away": {"uuid": str(uuid.uuid4()), "first": "2026-12-07", "last": "2026-12-08"},
    "add_dry_spell": {"uuid": str(uuid.uuid4()), "start": "2026-12-07T08:00", "end": "2026-12-08T18:00"},
    "machine_changeover": {"crop": "pod"},
    "keep_calibration": {
        "uuid": str(uuid.uuid4()),
        "key": "planter-rows",
        "outcome": "saved",
        "begun_at": "2026-02-07T08:00:00Z",
        "at": "2026-02-07T08:20:00Z",
    },
    "say_happened": {"uuid": str(uuid.uuid4()), "what": "tyres"},
    "collect_load": {"uuid": str(uuid.uuid4()), "machine_kg": 2000},
    "weigh_load": {"scale_kg": 1950},
    "keep_field_settings": {"uuid": str(uuid.uuid4()), "crop": "Lupins", "values": {"depth": "45"}},
    "field_setting_worked": {"worked": True},
    "begin_trace": {"uuid": str(uuid.uuid4()), "symptom": "skips"},
    "answer_look": {"uuid": str(uuid.uuid4()), "look": "disc-debris", "bad": False},
    "end_trace": {"outcome": "not-found"},
    "begin_swap_test": {"uuid": str(uuid.uuid4()), "rows": ["3", "4"]},
    "run_swap_test": {"uuid": str(uuid.uuid4()), "faults": {"1": True, "2": False}},
    "end_swap_test": {"uuid": str(uuid.uuid4())},
    "simulate_recording": {"uuid": str(uuid.uuid4()), "engine_rpm": 1900},
    "add_own_symptom": {"uuid": str(uuid.uuid4()), "family": "row-crop-planter", "name": "Whistles on the headland"},
    "add_own_cause": {"uuid": str(uuid.uuid4()), "symptom": "skips", "name": "Fan screen blown full", "check": "vent"},
    "write_shaft": {"uuid": str(uuid.uuid4()), "key": "fan", "speeds": {"fixed": 4000}, "orders": {"1": "turn"}},
    "tick_daily": {"uuid": str(uuid.uuid4()), "keys": ["daily-grease"]},
    "companions": {"slot": "opener-disc", "positions": ["1L"], "reason": "no"},
}


def operations():
    for path, methods in api.interface["paths"].items():
        for method, operation in methods.items():
            name = operation["operationId"].rpartition("_api_")[2] or operation["operationId"]
            yield pytest.param(path, method, operation, id=f"{method}-{path}-{name}")


ALL = list(operations())
OWNED = [
    row for row in ALL if "{" in re.sub("{(family|subject|form)}", "", row.values[0]) and tuple(row.values[:2]) not in OPEN
]
WRITES = [row for row in ALL if row.values[1] == "post" and (row.values[0], "post") not in OPEN]
ROLES = ("lead", "technician", "parts", "owner")


PHOTO, NOTE, RESULT, PLAN, ORDER, COUNTER, MOVEMENT, APPROVAL, DONE, PIN, STEP, INVITATION, PLACE, VIEW, INQUIRY = (
    uuid.uuid4() for _ in range(15)
)
SEASON_PLAN, MARK, OWN_JOB, AWAY, DRY_SPELL = (uuid.uuid4() for _ in range(5))
CALIBRATION_RUN, HAPPENED, LOAD, SET_IN_FIELD = (uuid.uuid4() for _ in range(4))
TRACE, LOOK_ANSWER, SWAP_TEST, SWAP_RUN, RECORDING, MODEL_SHAFT = (uuid.uuid4() for _ in range(6))
OWN_SYMPTOM, OWN_CAUSE = uuid.uuid4(), uuid.uuid4()


NAMED = {
    "family": "air-seeder",
    "plan_id": PLAN,
    "order_id": ORDER,
    "subject": "chain",
    "form": "json",
    "result_id": RESULT,
    "photo_id": PHOTO,
    "note_id": NOTE,
    "pin_id": PIN,
    "picture_id": STEP,
    "invitation_id": INVITATION,
    "reading": COUNTER,
    "movement_id": MOVEMENT,
    "approval": APPROVAL,
    "done": DONE,
    "check": "opener-disc-diameter",
    "workplace_id": PLACE,
    "machine_picture_id": VIEW,
    "inquiry_id": INQUIRY,
    "season_plan_id": SEASON_PLAN,
    "mark_id": MARK,
    "own_job_id": OWN_JOB,
    "away_id": AWAY,
    "dry_spell_id": DRY_SPELL,
    "calibration_run_id": CALIBRATION_RUN,
    "happened_id": HAPPENED,
    "load_id": LOAD,
    "field_setting_id": SET_IN_FIELD,
    "trace_id": TRACE,
    "look_answer_id": LOOK_ANSWER,
    "swap_test_id": SWAP_TEST,
    "swap_run_id": SWAP_RUN,
    "recording_id": RECORDING,
    "model_shaft_id": MODEL_SHAFT,
    "own_symptom_id": OWN_SYMPTOM,
    "own_cause_id": OWN_CAUSE,
}
"""What an address can name, beside what gets its number when it is made."""


def names_of(yard):
    return NAMED | {
        "machine_id": yard.machine.pk,
        "walk_around_id": yard.walk_around.pk,
        "model_id": yard.model.pk,
        "supplier_id": yard.supplier.pk,
        "link_id": yard.link,
        "person_id": yard.helper.pk,
    }


def nowhere(yard):
    """Names of the same kind that nothing has."""
    return {
        name: uuid.uuid4() if isinstance(value, uuid.UUID) else 10**6 if isinstance(value, int) else value
        for name, value in names_of(yard).items()
    }


def filled(path, names):
    for name, value in names.items():
        path = path.replace(f"{{{name}}}", str(value))
    assert "{" not in path, "name what stands for this parameter, so that this endpoint is walked too"
    return path


def call(browser, path, method, operation_id):
    named = [name for name in BODIES if operation_id.endswith(f"_{name}") or operation_id == name]
    body = BODIES[max(named, key=len)] if named else {}
    if operation_id.endswith("add_photo"):
        picture = SimpleUploadedFile("p.jpg", drawn("knife"), "image/jpeg")
        form = {"uuid": str(uuid.uuid4()), "check": "opener-disc-diameter", "position": "1L", "photo": picture}
        return browser.post(path, form)
    if operation_id.endswith("set_mark"):
        return browser.post(path, {"photo": SimpleUploadedFile("m.png", drawn("knife"), "image/jpeg")})
    if operation_id.endswith("add_machine_picture"):
        return browser.post(
            path, {"uuid": str(uuid.uuid4()), "photo": SimpleUploadedFile("p.jpg", drawn("disc"), "image/jpeg")}
        )
    if operation_id.endswith("add_strip_picture"):
        picture = SimpleUploadedFile("p.jpg", drawn("disc"), "image/jpeg")
        return browser.post(path, {"uuid": str(uuid.uuid4()), "strip_down": "opener-hub", "photo": picture})
    if operation_id.endswith("add_note_photo"):
        return browser.post(
            path, {"uuid": str(uuid.uuid4()), "photo": SimpleUploadedFile("p.jpg", drawn("knife"), "image/jpeg")}
        )
    if operation_id.endswith(("offers_file", "book_file", "answer_file")):
        text = b"slot,side,number,unit_price,accepted\nopener-disc,,D12-4001,1.00,2\n"
        return browser.post(path, {"file": SimpleUploadedFile("t.csv", text, "text/csv")})
    if operation_id.endswith("dry_file"):
        event = b"BEGIN:VEVENT\r\nDTSTART:20261207T080000\r\nDTEND:20261207T180000\r\nEND:VEVENT\r\n"
        text = b"BEGIN:VCALENDAR\r\n" + event + b"END:VCALENDAR\r\n"
        return browser.post(path, {"file": SimpleUploadedFile("dry.ics", text, "text/calendar")})
    if operation_id.endswith("machines_file"):
        file = SimpleUploadedFile("m.csv", b"kind,maker,model,name,rows\nRow-crop planter,Dunmere,8,Dunmere 8,8\n", "text/csv")
        return browser.post(path, {"file": file})
    if operation_id.endswith("checks_file"):
        return browser.post(path, {"file": SimpleUploadedFile("c.yaml", b"family: row-crop-planter\nchecks: []\n")})
    if operation_id.endswith("model_from_file"):
        text = b"format: lumvek-model-1\nmaker: Dunmere\nname: 12\nfamily: row-crop-planter\n".replace(b": 12", b": '12'")
        return browser.post(path, {"file": SimpleUploadedFile("m.yaml", text)})
    if operation_id.endswith("counters_file"):
        file = SimpleUploadedFile("c.csv", b"machine,date,counter\nD12,2026-03-05,2850\n", "text/csv")
        return browser.post(path, {"file": file})
    if operation_id.endswith("recordings_file"):
        lines = "".join(f"{i / 100},{(i * 7) % 13}\n" for i in range(400))
        told = json.dumps({"uuid": str(uuid.uuid4()), "engine_rpm": 1900})
        return browser.post(path, {"told": told, "file": SimpleUploadedFile("r.csv", b"time,x\n" + lines.encode())})
    if operation_id.endswith("readings_file"):
        file = SimpleUploadedFile("r.csv", b"check,position,typed\nopener-disc-diameter,1L,390\n", "text/csv")
        return browser.post(path, {"file": file})
    return browser.get(path) if method == "get" else browser.send(path, **body)
