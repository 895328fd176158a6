"""Small words and drawings of the report page."""

import base64
import datetime as dt
import json
from functools import lru_cache
from typing import Any

from django import template
from django.conf import settings
from django.template.loader import render_to_string
from django.utils import timezone
from django.utils.html import format_html
from django.utils.safestring import SafeString

from inspection.queries import rule_books
from inspection.schemas import StationOut
from lumvek_core.catalogue.model import Check
from lumvek_core.coupled import short
from lumvek_core.looks.motif import look
from lumvek_core.looks.wanted import Look, looks_of
from lumvek_core.vocabulary import SEVERITY_WORDS
from shops.days import said
from shops.models import Mark, Shop

register = template.Library()
# As attributes and not as style, for the PDF writer does not hand a page's colours down into drawings.
COLOURS = {"sound": "#31606b", "watch": "#37529c", "due": "#94460b", "stop": "#86134a"}
WORST = ("stop", "due", "watch", "not-seen", "sound")


@register.simple_tag
def mark(severity: str) -> SafeString:
    """The mark of a severity: its own shape, with the word for those who cannot see it."""
    context = {"severity": severity, "word": SEVERITY_WORDS[severity or "open"], "colour": COLOURS.get(severity, "#5f656d")}
    return SafeString(render_to_string("report/mark.html", context).strip())


@register.filter
def day(when: dt.date | dt.datetime) -> str:
    """A day as the shop writes it."""
    return said(when)


@register.simple_tag
def today() -> str:
    return said(timezone.localdate())


@register.filter
def moment(when: dt.datetime) -> str:
    """A day as the shop writes it, with the time of day there."""
    return f"{said(when)} {timezone.localtime(when):%H:%M}"


@register.simple_tag
def letterhead(shop: Shop) -> SafeString:
    """The shop with its mark and address, for the head of a page. One query."""
    found = Mark.objects.in_shop(shop.pk).first()
    source = f"data:image/jpeg;base64,{base64.b64encode(bytes(found.image)).decode()}" if found else ""
    picture = format_html('<img src="{}" alt="" width="{}" height="{}">', source, *_fitted(found)) if found else ""
    address = format_html("<br><small>{}</small>", shop.address) if shop.address else ""
    return format_html('<p class="shop">{}<span>{}{}</span></p>', picture, shop.name, address)


MARK_BOX = 160, 48
"""Pixels that a mark takes up at most."""


def _fitted(found: Mark) -> tuple[int, int]:
    scale = min(MARK_BOX[0] / found.width, MARK_BOX[1] / found.height)
    return round(found.width * scale), round(found.height * scale)


@register.filter
def word(severity: str) -> str:
    return SEVERITY_WORDS[severity or "open"]


@register.filter
def tallies(totals: dict[str, int]) -> list[tuple[str, int]]:
    """(severity, count) in the order of the legend, those that occur."""
    pairs = [
        ("stop", totals["stop"]),
        ("due", totals["due"]),
        ("watch", totals["watch"]),
        ("sound", totals["sound"]),
        ("not-seen", totals["not_seen"]),
        ("does-not-apply", totals["does_not_apply"]),
        ("", totals["open"]),
    ]
    return [(severity, count) for severity, count in pairs if count]


@register.filter
def decided(finding: Any) -> str:
    """A decision in words."""
    words = {"do": "Do it", "wait": f"Wait: {finding.until}", "decline": "Declined", "open": "Open"}[finding.decision]
    reason = f" – {finding.decision_reason}" if finding.decision_reason else ""
    by = f" ({finding.decided_by})" if finding.decided_by and finding.decision != "open" else ""
    return f"{words}{reason}{by}"


@register.filter
def serves(part: Any) -> str:
    """What a line of the parts list is for, in words."""
    reasons = sorted({piece.declined_reason for piece in part.pieces if piece.declined_reason})
    said = [
        part.found_at,
        f"along with new parts: {part.along_at}" if part.along_at else "",
        f"declined: {part.declined_at} ({'; '.join(reasons)})" if part.declined_at else "",
    ]
    return "; ".join(filter(None, said))


@register.simple_tag(takes_context=True)
def photo_source(context: dict[str, Any], photo: Any) -> str:
    """Where a page finds a picture: beside itself, or in the page for the PDF."""
    source: str = context["photo_source"](photo.uuid)
    return source


STROKES = {
    "body": {"fill": "#ffffff", "stroke": "#22262b", "stroke-width": "1.8"},
    "line": {"fill": "none", "stroke": "#22262b", "stroke-width": "1.8"},
    "thin": {"fill": "none", "stroke": "#8b9299", "stroke-width": "1.1"},
    "gone": {"fill": "none", "stroke": "#8b9299", "stroke-width": "1.5", "stroke-dasharray": "3 3"},
    "fault": {"fill": "none", "stroke": "#94460b", "stroke-width": "2.6"},
    "dark": {"fill": "#55504a"},
    "oil": {"fill": "#b8860b"},
    "milk": {"fill": "#cfc7b4", "stroke": "#8b9299"},
    "grain": {"fill": "#e3c26a", "stroke": "#22262b"},
}
"""How the strokes of a look are printed."""


@register.simple_tag
def looks(group: Any) -> SafeString:
    """What was found beside what is right, drawn; nothing for what is measured."""
    check = _checks().get(short(group.check))
    found = {finding.place.choice for finding in group.findings}
    drawn = looks_of(check) if check else []
    shown = [one for i, one in enumerate(drawn) if i == 0 or one.state in found]
    if not check or not check.rule.states() or len(shown) < 2:
        return SafeString("")
    figures = [format_html("<figure>{}<figcaption>{}</figcaption></figure>", _drawn(one), one.name) for one in shown]
    return format_html('<div class="looks">{}</div>', SafeString("".join(figures)))


def _drawn(one: Look) -> SafeString:
    paths = [
        format_html('<path d="{}"{}/>', stroke.d, SafeString("".join(f' {k}="{v}"' for k, v in STROKES[stroke.role].items())))
        for stroke in look(one.motif, one.state)
    ]
    return format_html('<svg viewBox="-1 -1 66 50" aria-hidden="true">{}</svg>', SafeString("".join(paths)))


def _checks() -> dict[str, Check]:
    """Every check that is shipped, by its short key; those of one key in several families look alike."""
    return {short(key): check for family in rule_books.shipped().families.values() for key, check in family.checks.items()}


@lru_cache(maxsize=1)
def _signs() -> dict[str, str]:
    """The drawings of stations that the front end shows too."""
    signs: dict[str, str] = json.loads((settings.ROOT / "web/src/design/stationSigns.json").read_text(encoding="utf-8"))
    return signs


ACROSS = 14
"""Stations that fit across a page."""
PEG = "M20 8v20M15 28h10M14 8h12"


@register.simple_tag
def machine_map(stations: list[StationOut]) -> SafeString:
    """The stations along the flow, each with its drawing, its name, its worst severity and how much of it is done."""
    items = [
        format_html(
            '<li class="{}"><svg class="sign" viewBox="0 0 40 30" aria-hidden="true"><path d="{}" fill="none" stroke="{}" '
            'stroke-width="2"/></svg><span class="name">{}</span>{}<span class="of">{} of {}</span></li>',
            "done" if station.open < station.total else "",
            _signs().get(short(station.key), PEG),
            "#22262b" if station.open < station.total else "#8b9299",
            station.name,
            mark(_worst(station)),
            station.total - station.open,
            station.total,
        )
        for station in stations
    ]
    wraps = " wraps" if len(items) > ACROSS else ""
    return format_html('<ol class="map{}">{}</ol>', wraps, SafeString("".join(items)))


def _worst(station: StationOut) -> str:
    for severity in WORST:
        if getattr(station, severity.replace("-", "_")):
            return severity
    return ""


OWNER_TITLES = {
    "stop": "Must be put right before it runs or drives",
    "due": "To be put right before the season",
    "watch": "Passes today, to be looked at again",
}


@register.filter
def for_owner(groups: list[Any]) -> list[tuple[str, list[Any]]]:
    """Findings under the three headings an owner decides by; those without any are left out."""
    found = [(title, [group for group in groups if group.severity == severity]) for severity, title in OWNER_TITLES.items()]
    return [(title, those) for title, those in found if those]


@register.filter
def cure(group: Any) -> str:
    """What doing it means."""
    parts = sorted({part for finding in group.findings for part in finding.parts})
    remedy = group.findings[0].place.remedy
    said = [remedy] if remedy else []
    said += [f"New: {', '.join(parts).lower()}."] if parts else []
    return " ".join(said) or "It is set right with what is at hand; no part is called for."


@register.filter
def risk(group: Any) -> str:
    """What waiting means."""
    if group.severity == "stop":
        return f"It must not wait. {group.why}".strip()
    return group.why or "It will be looked at again next time."
