"""Pictures of a machine and its plate: added once, taken away, put back, seen by whoever may see the machine."""

import uuid

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from demo.pictures import drawn
from shops.models import Change
from testing.yard import make_shop


@pytest.fixture
def at(yard):
    return f"/api/machines/{yard.machine.pk}/pictures"


def add(browser, at, picture=None, what="plate", content=None):
    file = SimpleUploadedFile("p.jpg", drawn("disc") if content is None else content, "image/jpeg")
    return browser.post(at, {"uuid": str(picture or uuid.uuid4()), "what": what, "photo": file})


def test_a_technician_adds_one_and_it_is_there_once(yard, as_, at):
    technician, picture = as_(yard.technician), uuid.uuid4()
    for _ in range(2):
        shown = add(technician, at, picture).json()["pictures"]
    assert [(one["what"], one["by"]) for one in shown] == [("plate", "Technician")]
    answer = technician.get(shown[0]["path"])
    assert (answer["Content-Type"], answer.content[:2]) == ("image/jpeg", b"\xff\xd8")


def test_it_is_taken_away_and_put_back(yard, as_, at):
    technician, picture = as_(yard.technician), uuid.uuid4()
    add(technician, at, picture)
    for _ in range(2):
        assert technician.post(f"{at}/{picture}/remove").json()["pictures"] == []
    assert technician.get(f"{at}/{picture}").status_code == 404
    assert len(technician.post(f"{at}/{picture}/restore").json()["pictures"]) == 1
    said = list(Change.objects.filter(about="machine").order_by("id").values_list("after", flat=True))
    assert said == ["picture added: its plate", "taken away", "put back"]


@pytest.mark.parametrize(("what", "content", "field"), [("roof", None, "what"), ("plate", b"no picture", "photo")])
def test_what_is_none_is_refused(yard, as_, at, what, content, field):
    answer = add(as_(yard.technician), at, what=what, content=content)
    assert (answer.status_code, answer.json()["error"]["field"]) == (422, field)


def test_neither_another_shop_nor_another_machine_s_owner_sees_it(yard, as_, at):
    picture = uuid.uuid4()
    add(as_(yard.technician), at, picture)
    assert as_(make_shop("Wharf Lane", "other-").lead).get(f"{at}/{picture}").status_code == 404
    owner = as_(yard.owner)
    assert owner.get(f"{at}/{picture}").status_code == 404
    yard.machine.owners.add(yard.owner)
    assert owner.get(f"{at}/{picture}").status_code == 200
    assert add(owner, at).status_code == 403
