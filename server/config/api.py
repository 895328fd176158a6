"""The API: routers of the apps, the calculators, and one shape for every error: {"error": {"field", "message", …}}."""

import functools
import json
from typing import Any

from django.db import InterfaceError, OperationalError
from django.http import Http404, HttpRequest, HttpResponse
from ninja import NinjaAPI, Router
from ninja.errors import AuthenticationError, HttpError, ValidationError
from ninja.openapi.schema import OpenAPISchema
from ninja.parser import Parser

from calibration.api import router as calibration
from faults.api import router as faults
from faults.api_own_symptoms import router as own_symptoms
from faults.api_recordings import router as recordings
from field.api import router as field
from finding.api import router as search
from guarding.guesses import Slowed
from guarding.refusing import refused
from inspection.api import machines, walk_arounds
from inspection.api_checks import own_check_endpoints
from inspection.api_machines import machine_endpoints, work_endpoints
from inspection.api_notes import note_endpoints, picture_endpoints
from inspection.api_rules import catalogue, rules
from inspection.api_strip_downs import strip_downs
from logbook.api import router as logbook
from lumvek_core import apart, registry, structure
from lumvek_core.errors import BadInput
from report.api import router as links
from season.api import router as season
from shops.access import FORGED, TOKEN, Conflict, NotAllowed, NotFoundHere, Signed
from shops.api import router as session
from shops.api_outside import router as outside
from shops.api_people import router as people
from shops.api_shop import router as shop
from shops.endpoints import allowed
from supply.api import router as supply
from supply.api_costs import router as costs
from supply.api_orders import router as orders
from supply.api_stock import router as stock
from tabular.door import Unfit, fit, read_json
from workbench.api import bench, standins

from . import unfit_input
from .pages import UNREADABLE

CALCULATED: structure.Shared = {}
"""What calculations take and give, written once."""
AT = "#/components/schemas/Calc"


class Door(Parser):
    """JSON only, with text and figures that are fit to be kept."""

    def parse_body(self, request: HttpRequest) -> Any:
        if request.content_type != "application/json":
            raise ValueError(request.content_type)
        return read_json(request.body)

    def parse_querydict(self, data: Any, list_fields: list[str], request: HttpRequest) -> Any:
        found = super().parse_querydict(data, list_fields, request)
        return {key: _fit(value) for key, value in found.items()}


def _fit(value: Any) -> Any:
    """Texts of a form or an address; files are what they are."""
    if isinstance(value, list):
        return [_fit(one) for one in value]
    return fit(value) if isinstance(value, str) else value


class Api(NinjaAPI):
    """With the calculators' own schemas among its components."""

    @functools.cached_property
    def interface(self) -> OpenAPISchema:
        """What all that was added takes and gives, worked out once."""
        return self.get_openapi_schema()

    def get_openapi_schema(self, **how: Any) -> OpenAPISchema:
        described = super().get_openapi_schema(**how)
        described["components"]["schemas"] |= {f"Calc{name}": schema for name, (_, schema) in CALCULATED.items()}
        return described


api = Api(title="Lumvek", version="1", auth=Signed(), docs_url=None, openapi_url=None, urls_namespace="api", parser=Door())
calc = Router(tags=["calculators"])


@api.get("/openapi.json", include_in_schema=False, **allowed("read the described interface"))
def described(request: HttpRequest) -> HttpResponse:
    """What the whole interface takes and gives."""
    return HttpResponse(json.dumps(api.interface), content_type="application/json")


@api.exception_handler(BadInput)
def bad_input(request: HttpRequest, problem: BadInput) -> HttpResponse:
    return api.create_response(request, problem.as_dict(), status=422)


@api.exception_handler(ValidationError)
def not_valid(request: HttpRequest, problem: ValidationError) -> HttpResponse:
    first = problem.errors[0]
    # ("body", "<argument>", "field", …), but ("query", "field"): what names our function is not of the client's object.
    where, *steps = first["loc"]
    field = ".".join(str(step) for step in (steps[1:] if where == "body" else steps))
    return refused(422, unfit_input.said(first), field)


@api.exception_handler(HttpError)
def not_taken(request: HttpRequest, problem: HttpError) -> HttpResponse:
    words = {400: UNREADABLE, 403: FORGED}
    return refused(
        problem.status_code, words.get(problem.status_code, str(problem)), TOKEN if problem.status_code == 403 else ""
    )


@api.exception_handler(Http404)
def no_such_page(request: HttpRequest, problem: Http404) -> HttpResponse:
    return refused(404, "There is nothing of that name.")


@api.exception_handler(AuthenticationError)
def not_signed_in(request: HttpRequest, problem: AuthenticationError) -> HttpResponse:
    return refused(401, "Sign in first.")


@api.exception_handler(NotFoundHere)
def not_found(request: HttpRequest, problem: NotFoundHere) -> HttpResponse:
    return refused(404, str(problem))


@api.exception_handler(NotAllowed)
def not_allowed(request: HttpRequest, problem: NotAllowed) -> HttpResponse:
    return refused(403, str(problem), problem.field)


@api.exception_handler(Slowed)
def slowed(request: HttpRequest, problem: Slowed) -> HttpResponse:
    response = refused(429, str(problem))
    response["Retry-After"] = str(problem.seconds)
    return response


@api.exception_handler(Conflict)
def conflict(request: HttpRequest, problem: Conflict) -> HttpResponse:
    return refused(409, str(problem))


@api.exception_handler(apart.Busy)
def busy(request: HttpRequest, problem: apart.Busy) -> HttpResponse:
    return refused(429, f"{problem} Try again in a moment.")


@api.exception_handler(OperationalError)
@api.exception_handler(InterfaceError)
def database_away(request: HttpRequest, problem: Exception) -> HttpResponse:
    return refused(503, "The database does not answer. What was typed is kept and sent again.")


def _endpoint(entry: registry.Calculator) -> None:
    """One endpoint a calculator; the core reads the body itself, so that errors are the same as on the command line."""

    def calculate(request: HttpRequest) -> HttpResponse:
        try:
            raw: Any = read_json(request.body)
        except Unfit as problem:
            raise BadInput("", str(problem)) from None
        return HttpResponse(json.dumps(entry.run_within_limits(raw), allow_nan=False), content_type="application/json")

    calculate.__doc__ = entry.description
    declared = allowed("calculate at length" if entry.at_length else "calculate")
    calc.post(
        f"/{entry.name}",
        operation_id=f"calc_{entry.name}",
        summary=entry.summary,
        auth=declared["auth"],
        openapi_extra=declared["openapi_extra"]
        | {
            "requestBody": {
                "required": True,
                "content": {"application/json": {"schema": structure.schema(entry.given, CALCULATED, AT)}},
            },
            "responses": {
                200: {
                    "description": "OK",
                    "content": {"application/json": {"schema": structure.schema(entry.result, CALCULATED, AT)}},
                }
            },
        },
    )(calculate)


for _entry in registry.calculators().values():
    _endpoint(_entry)

api.add_router("/session", session)
api.add_router("/people", people)
api.add_router("/people", work_endpoints)
api.add_router("/calibration", calibration)
api.add_router("/field", field)
api.add_router("/faults", faults)
api.add_router("/faults", recordings)
api.add_router("/faults", own_symptoms)
api.add_router("/season", season)
api.add_router("/shop", shop)
api.add_router("/outside", outside)
api.add_router("/search", search)
api.add_router("/machines", machines)
api.add_router("/machines", note_endpoints)
api.add_router("/machines", machine_endpoints)
api.add_router("/walk-arounds", walk_arounds)
api.add_router("/walk-arounds", picture_endpoints)
api.add_router("/walk-arounds", strip_downs)
api.add_router("/walk-arounds", links)
api.add_router("/catalogue", catalogue)
api.add_router("/rules", rules)
api.add_router("/own-checks", own_check_endpoints)
api.add_router("/calc", calc)
api.add_router("/bench", bench)
api.add_router("/stand-ins", standins)
api.add_router("/supply", supply)
api.add_router("/supply", orders)
api.add_router("/supply", stock)
api.add_router("/supply", costs)
api.add_router("/logbook", logbook)
