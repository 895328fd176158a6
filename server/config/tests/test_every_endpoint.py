"""Every endpoint of the described API, walked as every role of its shop and of another, and as nobody. A new endpoint is walked
without being named here, and a write that takes no right of the table is found."""

import re
import uuid
from contextlib import contextmanager

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.urls import URLPattern, URLResolver, get_resolver
from django_otp.plugins.otp_totp.models import TOTPDevice
from endpoints import ALL, BODIES, OPEN, OWNED, ROLES, WRITES, call, filled, names_of, nowhere

from inspection.actions import closing
from shops.rights import RIGHTS
from supply.models import Order, Terms
from testing.yard import record

pytestmark = pytest.mark.usefixtures("something_to_find")


def roles_of(operation):
    """The roles that an operation says may call it; one that says nothing is for everybody."""
    return set(operation.get("x-roles", ROLES))


WRITE = re.compile("(?!.*guarding_asked)(INSERT|UPDATE|DELETE|REPLACE)")
"""But for the count of how much was asked."""


@contextmanager
def nothing_written():
    with CaptureQueriesContext(connection) as asked:
        yield
    assert [one["sql"] for one in asked if WRITE.match(one["sql"])] == []


@pytest.mark.parametrize(("path", "method", "operation"), ALL)
def test_nobody_gets_nothing(path, method, operation, yard, as_):
    if (path, method) in OPEN:
        return
    with nothing_written():
        response = call(as_(), filled(path, names_of(yard)), method, operation["operationId"])
    assert response.status_code == 401, response.content
    assert set(response.json()) == {"error"}


@pytest.mark.parametrize(("path", "method", "operation"), WRITES)
def test_a_write_says_which_right_of_the_table_it_takes(path, method, operation):
    assert operation["x-roles"] == sorted(RIGHTS[operation["x-right"]])


@pytest.mark.parametrize(
    ("path", "method", "operation", "role"),
    [
        pytest.param(*row.values, role, id=f"{role}-{row.id}")
        for row in WRITES
        for role in row.values[2].get("x-roles", ROLES)
        if not row.values[2].get("x-right").startswith("calculate")
        or role in ("owner", "parts")  # which keeps nothing, and is one for all
    ],
)
def test_who_has_its_right_gets_a_write_through(path, method, operation, role, yard, as_):
    yard.machine.owners.add(yard.owner)
    stand_ready_for(operation["operationId"], yard)
    # Input is tried elsewhere, there is nothing to order here, and what the lead agreed to is not the owner's to take back.
    others = {
        "calculate": (200, 422),
        "calculate at length": (200, 422),
        "plan orders": (200, 422),
        "agree to costs": (200, 404) if role == "owner" and "take-back" in path else (200,),
        "let people go": (200, 409) if "take-out" in path else (200,),  # who is still here is let go first
    }
    BODIES["change_shop"] = {"member": getattr(yard, role).pk}
    response = call(as_(getattr(yard, role)), filled(path, names_of(yard)), method, operation["operationId"])
    taken = (409,) if operation["operationId"].endswith("confirm_second_factor") else (200,)  # no key has been begun
    assert response.status_code in others.get(operation["x-right"], taken), response.content


@pytest.mark.parametrize(("path", "method", "operation"), [row for row in WRITES if len(roles_of(row.values[2])) < len(ROLES)])
def test_to_everybody_else_it_is_refused_in_words_and_nothing_happens(path, method, operation, yard, as_):
    yard.machine.owners.add(yard.owner)
    for role in set(ROLES) - roles_of(operation):
        browser = as_(getattr(yard, role))
        with nothing_written():
            response = call(browser, filled(path, names_of(yard)), method, operation["operationId"])
        assert response.status_code == 403, response.content
        assert response.json()["error"]["message"].endswith(f"cannot {operation['x-right']}.")


@pytest.mark.parametrize(("path", "method", "operation"), OWNED)
def test_the_wrong_shop_finds_nothing(path, method, operation, yard, neighbour, as_):
    """A role that may not do a thing anywhere is told so, in the same words whether or not the thing exists."""
    Terms.objects.create(shop=neighbour.shop)  # made the first time that parts are looked at
    for role in ROLES:
        browser = as_(getattr(neighbour, role))
        with nothing_written():
            response = call(browser, filled(path, names_of(yard)), method, operation["operationId"])
            elsewhere = call(browser, filled(path, nowhere(yard)), method, operation["operationId"])
        assert response.status_code == (404 if role in roles_of(operation) else 403), response.content
        assert set(response.json()) == {"error"}
        assert (response.status_code, response.json()) == (elsewhere.status_code, elsewhere.json())


@pytest.mark.parametrize(("path", "method", "operation"), [row for row in OWNED if row not in WRITES])
def test_the_right_shop_does_get_through(path, method, operation, yard, as_):
    """Or the test above would pass on an endpoint that always fails."""
    stand_ready_for(operation["operationId"], yard)
    assert call(as_(yard.lead), filled(path, names_of(yard)), method, operation["operationId"]).status_code == 200


def stand_ready_for(operation_id, yard):
    if operation_id.endswith("_reopen"):
        closing.finish(yard.lead, yard.walk_around.pk, uuid.uuid4())
    if operation_id.endswith("by_word"):
        record(yard, "opener-disc-diameter", "1L", "380")
    if operation_id.endswith("take_back_order"):
        Order.objects.update(state=Order.State.TO_SEND)
    if operation_id.endswith("new_codes_for_once"):
        for role in ROLES:
            TOTPDevice.objects.create(user=getattr(yard, role).user, name="authenticator app")


def test_lists_hold_the_own_shop_only(yard, neighbour, as_):
    names = [card["machine"]["id"] for card in as_(neighbour.lead).get("/api/machines").json()["machines"]]
    assert names == [neighbour.machine.pk]


def pages(patterns, prefix=""):
    for pattern in patterns:
        if isinstance(pattern, URLResolver):
            yield from pages(pattern.url_patterns, prefix + str(pattern.pattern))
        elif isinstance(pattern, URLPattern):
            yield prefix + str(pattern.pattern)


REPORTS = [page for page in pages(get_resolver().url_patterns) if page.startswith(("walk-arounds/", "machines/"))]


@pytest.mark.parametrize("page", REPORTS)
def test_reports_and_files_too(page, yard, neighbour, as_):
    path = "/" + page.replace("<uuid:walk_around_id>", str(yard.walk_around.pk)).replace(
        "<int:machine_id>", str(yard.machine.pk)
    )
    path = path.replace("<path:check>", "opener-disc-diameter").replace("<str:form>", "csv")
    assert as_(neighbour.lead).get(path).status_code == 404
    sent_away = as_().get(path)
    assert (sent_away.status_code, sent_away["Location"]) == (302, f"/sign-in?next={path}")
    assert as_(yard.lead).get(path).status_code == 200


def test_an_owner_sees_own_machines_only(yard, as_):
    owner = as_(yard.owner)
    assert owner.get("/api/machines").json()["machines"] == []
    assert owner.get(f"/api/walk-arounds/{yard.walk_around.pk}").status_code == 404
    yard.machine.owners.add(yard.owner)
    assert len(owner.get("/api/machines").json()["machines"]) == 1
    assert owner.get(f"/api/walk-arounds/{yard.walk_around.pk}").json()["may_record"] is False


@pytest.mark.parametrize(
    ("role", "start", "record", "decide"),
    [("lead", 200, 200, 200), ("technician", 200, 200, 200), ("parts", 403, 403, 200), ("owner", 403, 403, 403)],
)
def test_what_each_role_may_do(role, start, record, decide, yard, as_):
    yard.machine.owners.add(yard.owner)
    browser, walk_around = as_(getattr(yard, role)), f"/api/walk-arounds/{yard.walk_around.pk}"
    assert browser.send(f"/api/machines/{yard.machine.pk}/walk-arounds", id=str(uuid.uuid4())).status_code == start
    assert (
        browser.send(
            f"{walk_around}/readings", uuid=str(uuid.uuid4()), check="opener-disc-diameter", position="2L", raw=["390"]
        ).status_code
        == record
    )
    assert (
        browser.send(
            f"{walk_around}/decisions", uuid=str(uuid.uuid4()), check="opener-disc-diameter", positions=["1L"], choice="do"
        ).status_code
        == decide
    )
