"""Who belongs to a shop: inviting, joining, several roles, several shops, letting go."""

import datetime as dt
import uuid

import pytest
from django.core import mail
from django.utils import timezone

from inspection.actions import closing
from outside.models import Line
from shops.models import Change, Invitation, Member
from testing.yard import PASSWORD, make_member, make_shop

NEW = {"username": "ines", "name": "Ines Marrow", "password": "linseed-and-lupins"}


@pytest.fixture
def invited(yard, as_, settings):
    """Ines, asked to join Sallow Bridge: the answer with her link."""
    settings.EMAIL_BACKEND = "django.core.mail.backends.locmem.EmailBackend"

    def ask(by=None, **more):
        body = {"uuid": str(uuid.uuid4()), "name": "Ines Marrow", "email": "", "roles": ["technician"]} | more
        return as_(by or yard.lead).send("/api/people/invitations", **body)

    return ask


def join(browser, path, **body):
    return browser.send(path.replace("/join/", "/api/session/invitation/"), **body)


def test_an_invitation_is_taken_up_once_and_ends_in_work(yard, as_, invited):
    path = invited(roles=["parts", "technician"]).json()["path"]
    newcomer = as_()
    shown = newcomer.get(path.replace("/join/", "/api/session/invitation/")).json()
    assert shown == {
        "shop": "Sallow Bridge",
        "name": "Ines Marrow",
        "role_name": "Technician and parts",
        "asked_by": "Lead",
    }
    me = join(newcomer, path, **NEW).json()["me"]
    assert (me["name"], me["roles"], me["shop"]) == ("Ines Marrow", ["technician", "parts"], "Sallow Bridge")
    assert {"record readings", "order"} <= set(me["rights"])
    assert newcomer.get("/api/machines").status_code == 200
    again = join(as_(), path, **NEW | {"username": "other"})
    assert (again.status_code, again.json()["error"]["message"]) == (404, "This invitation works no more. Ask for a new one.")


def test_it_goes_by_mail_where_there_is_an_address(invited):
    answer = invited(email="ines@sallow-bridge.invalid").json()
    assert answer["said"].startswith("A letter to ines@sallow-bridge.invalid is on its way.")
    assert answer["path"] in mail.outbox[0].body
    assert mail.outbox[0].to == ["ines@sallow-bridge.invalid"]


def test_without_a_way_to_send_it_the_link_is_given_on(invited, settings):
    settings.MAILS = False
    answer = invited(email="ines@sallow-bridge.invalid").json()
    assert answer["path"].startswith("/join/")
    assert answer["said"] == "No mail goes out from here: give the link on yourself."
    assert mail.outbox == []


def test_a_mail_server_that_fails_loses_no_invitation(invited, settings):
    settings.EMAIL_BACKEND, settings.EMAIL_PORT = "django.core.mail.backends.smtp.EmailBackend", 9
    settings.EMAIL_HOST = "127.0.0.1"
    answer = invited(email="ines@sallow-bridge.invalid")
    assert "give the link on yourself" in answer.json()["said"]
    assert Line.objects.get().trouble == "The mail server does not answer.", "and it is said where lines are looked at"
    assert Invitation.objects.count() == 1


def test_the_same_uuid_twice_is_one_invitation_with_the_same_link(invited):
    known = str(uuid.uuid4())
    assert invited(uuid=known).json()["path"] == invited(uuid=known).json()["path"]
    assert Invitation.objects.count() == 1


@pytest.mark.parametrize(
    ("wrong", "field"),
    [({"name": " "}, "name"), ({"roles": []}, "roles"), ({"roles": ["chief"]}, "roles"), ({"email": "ines at"}, "email")],
)
def test_an_invitation_that_cannot_be_is_refused_at_its_field(wrong, field, invited):
    answer = invited(**wrong)
    assert (answer.status_code, answer.json()["error"]["field"]) == (422, field)
    assert not Invitation.objects.exists()


@pytest.mark.parametrize(
    ("wrong", "field"),
    [
        ({"username": ""}, "username"),
        ({"username": "technician"}, "username"),
        ({"username": "in es"}, "username"),
        ({"name": ""}, "name"),
        ({"password": "short"}, "password"),
        ({"password": "1234567890123"}, "password"),
    ],
)
def test_an_account_that_cannot_be_leaves_the_invitation_open(wrong, field, as_, invited):
    path = invited().json()["path"]
    answer = join(as_(), path, **NEW | wrong)
    assert (answer.status_code, answer.json()["error"]["field"]) == (422, field)
    assert join(as_(), path, **NEW).status_code == 200


@pytest.mark.parametrize("ended", ["expired", "withdrawn", "forged"])
def test_a_link_that_ended_opens_nothing(ended, yard, as_, invited):
    path = invited().json()["path"]
    if ended == "expired":
        Invitation.objects.update(expires_at=timezone.now() - dt.timedelta(minutes=1))
    elif ended == "withdrawn":
        one = Invitation.objects.get()
        assert as_(yard.lead).send(f"/api/people/invitations/{one.uuid}/withdraw").json()["invitations"] == []
    else:
        path = f"/join/{uuid.uuid4().hex}.{path.rpartition('.')[2]}"
    assert join(as_(), path, **NEW).status_code == 404
    assert not Member.objects.filter(user__username="ines").exists()


def test_who_has_an_account_joins_a_second_shop_and_changes_over(yard, neighbour, as_, invited):
    path = invited(by=neighbour.lead, roles=["parts"]).json()["path"]
    tomas = as_(yard.technician)
    me = join(tomas, path).json()["me"]
    assert (me["shop"], me["roles"]) == ("Ormery Levels", ["parts"])
    assert [one["name"] for one in me["shops"]] == ["Sallow Bridge", "Ormery Levels"]
    there = [card["machine"]["id"] for card in tomas.get("/api/machines").json()["machines"]]
    assert there == [neighbour.machine.pk]
    back = tomas.send("/api/session/shop", member=me["shops"][0]["member"]).json()["me"]
    assert (back["shop"], back["roles"]) == ("Sallow Bridge", ["technician"])
    assert [card["machine"]["id"] for card in tomas.get("/api/machines").json()["machines"]] == [yard.machine.pk]


def test_nobody_changes_over_to_a_shop_of_others(yard, neighbour, as_):
    tomas = as_(yard.technician)
    assert tomas.send("/api/session/shop", member=neighbour.lead.pk).status_code == 404
    assert tomas.get("/api/session").json()["me"]["shop"] == "Sallow Bridge"


def test_what_was_typed_for_one_shop_is_not_taken_in_another(yard, neighbour, as_):
    there = Member.objects.create(user=yard.technician.user, shop=neighbour.shop, roles=["technician"])
    tomas = as_(yard.technician)
    tomas.send("/api/session/shop", member=there.pk)
    late = tomas.get("/api/machines", headers={"X-Lumvek-Member": str(yard.technician.pk)})
    assert late.status_code == 401


def test_several_roles_may_what_each_of_them_may(yard, as_):
    answer = as_(yard.lead).send(f"/api/people/{yard.parts.pk}/roles", roles=["owner", "parts", "technician"])
    person = next(one for one in answer.json()["people"] if one["id"] == yard.parts.pk)
    assert person["role_name"] == "Technician and parts and machine owner"
    started = as_(yard.parts).send(f"/api/machines/{yard.machine.pk}/walk-arounds", id=str(uuid.uuid4()))
    assert started.status_code == 200
    assert len(as_(yard.parts).get("/api/machines").json()["machines"]) == 1, "who is more than an owner sees every machine"


def test_who_is_let_go_is_out_with_the_next_request_and_may_come_back(yard, as_):
    tomas, lead = as_(yard.technician), as_(yard.lead)
    assert tomas.get("/api/machines").status_code == 200
    left = lead.send(f"/api/people/{yard.technician.pk}/let-go").json()["people"]
    assert [one["left_at"] is not None for one in left if one["id"] == yard.technician.pk] == [True]
    assert tomas.get("/api/machines").status_code == 401
    assert as_().send("/api/session/login", username="technician", password=PASSWORD).status_code == 422
    people = lead.get(f"/api/machines/{yard.machine.pk}/start").json()["people"]
    assert yard.technician.pk not in [one["id"] for one in people]
    lead.send(f"/api/people/{yard.technician.pk}/take-back")
    assert tomas.get("/api/machines").status_code == 200


def test_open_work_is_handed_over_before_somebody_is_let_go(yard, as_):
    lead, at = as_(yard.lead), f"/api/people/{yard.technician.pk}/open-work"
    (open_work,) = lead.get(at).json()
    assert (open_work["id"], open_work["machine"]) == (str(yard.walk_around.pk), "Dunmere 12")
    taker = make_member(yard.shop, "helper", "technician")
    given = lead.send(f"/api/walk-arounds/{open_work['id']}/hand-over", uuid=str(uuid.uuid4()), to=taker.pk)
    assert given.status_code == 200
    assert lead.get(f"/api/people/{taker.pk}/open-work").json()[0]["id"] == open_work["id"]
    closing.finish(yard.lead, yard.walk_around.pk, uuid.uuid4())
    assert lead.get(at).json() == []


def test_somebody_always_leads(yard, as_):
    lead = as_(yard.lead)
    for path, body in ((f"/api/people/{yard.lead.pk}/let-go", {}), (f"/api/people/{yard.lead.pk}/roles", {"roles": ["parts"]})):
        answer = lead.send(path, **body)
        assert (answer.status_code, answer.json()["error"]["message"]) == (
            409,
            "Lead is the last who leads this shop. Make somebody else a lead first.",
        )
    lead.send(f"/api/people/{yard.technician.pk}/roles", roles=["lead"])
    assert lead.send(f"/api/people/{yard.lead.pk}/let-go").status_code == 200
    assert lead.get("/api/people").status_code == 401


def test_a_lead_opens_no_account_that_is_another_shops_as_well(yard, neighbour, as_):
    lead = as_(yard.lead)
    path = lead.send(f"/api/people/{yard.technician.pk}/password-link").json()["path"]
    assert path.startswith("/new-password/")
    Member.objects.create(user=yard.technician.user, shop=neighbour.shop, roles=["technician"])
    for act in ("password-link", "second-factor/end"):
        answer = lead.send(f"/api/people/{yard.technician.pk}/{act}")
        assert (answer.status_code, "another shop" in answer.json()["error"]["message"]) == (409, True)


def test_every_change_of_people_is_in_the_log(yard, as_, invited):
    path = invited().json()["path"]
    join(as_(), path, **NEW)
    ines = Member.objects.get(user__username="ines")
    lead = as_(yard.lead)
    lead.send(f"/api/people/{ines.pk}/roles", roles=["technician", "parts"])
    lead.send(f"/api/people/{ines.pk}/roles", roles=["parts", "technician"])  # as it is
    lead.send(f"/api/people/{ines.pk}/let-go")
    kept = Change.objects.of(yard.lead).filter(about="person").order_by("id")
    assert [(one.what, one.before, one.after) for one in kept] == [
        ("Ines Marrow", "", "invited as technician"),
        ("Ines Marrow", "invited", "joined as technician"),
        ("Ines Marrow", "Technician", "Technician and parts"),
        ("Ines Marrow", "Technician and parts", "let go"),
    ]


def test_who_comes_back_by_an_invitation_is_the_same_person(yard, as_, invited):
    as_(yard.lead).send(f"/api/people/{yard.technician.pk}/let-go")
    other = make_member(yard.shop, "helper", "technician")
    path = invited(roles=["parts"]).json()["path"]
    refused = join(as_(other), path)
    assert (refused.status_code, refused.json()["error"]["message"]) == (409, "You belong to Sallow Bridge already.")
    assert Invitation.objects.get().used_at is None


def test_who_was_let_go_is_taken_out_by_name_and_what_they_did_stays(yard, as_, read):
    read("opener-disc-diameter", "1L", "385")
    lead, gone = as_(yard.lead), yard.technician
    theirs = as_(gone)
    assert lead.send(f"/api/people/{gone.pk}/take-out").status_code == 409, "still here"
    lead.send(f"/api/people/{gone.pk}/let-go")
    for _ in range(2):
        listed = lead.send(f"/api/people/{gone.pk}/take-out").json()["people"]
    now = next(one for one in listed if one["id"] == gone.pk)
    assert (now["name"], now["username"], now["email"], now["named"]) == (
        f"Former member {gone.pk}",
        f"former-{gone.pk}",
        "",
        False,
    )
    assert theirs.get("/api/session").json()["me"] is None
    page = lead.get(f"/walk-arounds/{yard.walk_around.pk}/report").content.decode()
    assert f"Former member {gone.pk}" in page and "Technician" not in page and "385 mm" in page
    assert not Change.objects.filter(what="Technician").exists()
    gone.user.refresh_from_db()
    assert not gone.user.has_usable_password() and not gone.user.sign_ins.exists()


def test_who_belongs_to_another_shop_as_well_is_theirs_to_keep(yard, as_):
    elsewhere = make_shop("Wharf Lane", "other-")
    Member.objects.create(user=yard.technician.user, shop=elsewhere.shop, roles=["technician"])
    as_(yard.lead).send(f"/api/people/{yard.technician.pk}/let-go")
    assert as_(yard.lead).send(f"/api/people/{yard.technician.pk}/take-out").status_code == 409
