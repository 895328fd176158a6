"""Addresses: the API, reports and files, and for everything else the one page of the front end."""

from django.urls import path, re_path

from keeping import views as keeping
from report import changeover_views as changeover
from report import logbook_views as logbook
from report import season_views as season
from report import supply_views as supply
from report import views as report

from . import pages
from .api import api

urlpatterns = [
    path("api/", api.urls),
    path("api/<path:rest>", pages.no_such_address),
    path("health", pages.health),
    path("walk-arounds/<uuid:walk_around_id>/report", report.page),
    path("walk-arounds/<uuid:walk_around_id>/report.pdf", report.pdf),
    path("walk-arounds/<uuid:walk_around_id>/owner", report.owner),
    path("machines.<str:form>", report.machines),
    path("shop.zip", keeping.shop_archive),
    path("models/<int:model_id>.yaml", report.model_file),
    path("own-checks/<str:family>.yaml", report.own_checks),
    path("machines/<int:machine_id>/card", report.card),
    path("machines/<int:machine_id>/changeover/card", changeover.card),
    path("machines/<int:machine_id>/changeover/card.pdf", changeover.card_pdf),
    path("machines/<int:machine_id>/label.pdf", report.machine_label),
    path("shared/<str:secret>", report.shared),
    path("shared/<str:secret>/photos/<uuid:photo_id>", report.shared_photo),
    path("walk-arounds/<uuid:walk_around_id>/readings.csv", report.readings_csv),
    path("walk-arounds/<uuid:walk_around_id>/readings.xlsx", report.readings_xlsx),
    path("walk-arounds/<uuid:walk_around_id>/parts.csv", report.parts_csv),
    path("supply/list.<str:form>", supply.needed),
    path("supply/pick-list", supply.pick_list),
    path("supply/pick-list.csv", supply.pick_list_csv),
    path("supply/labels.pdf", supply.labels),
    path("supply/orders/<uuid:order_id>.<str:form>", supply.order),
    path("supply/book/<int:model_id>.<str:form>", supply.book),
    path("plan.<str:form>", season.table),
    path("plan/sheet", season.sheet),
    path("plan/sheet.<str:form>", season.sheet),
    path("plan/mine.ics", season.own_calendar),
    path("plan/feed/<str:secret>.ics", season.feed),
    path("wear.<str:form>", logbook.season_end),
    path("machines/<int:machine_id>/wear/<path:check>.<str:form>", logbook.wear_of),
    path("machines/<int:machine_id>/logbook.<str:form>", logbook.logbook_table),
    path("machines/<int:machine_id>/logbook/print", logbook.logbook_print),
    re_path(r"^(?!static/|api/).*$", pages.front_end),
]

handler400 = pages.unreadable
handler500 = pages.fault
