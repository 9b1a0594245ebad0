"""A plug or a pin turned for a hole that must stay closed: the size to turn."""

from __future__ import annotations

from typing import Any

from django import forms
from django.utils.translation import gettext_lazy as _

from shopmath import materials
from shopmath.amounts import celsius, mm, newtons
from shopmath.gauges import gauge_uncertainty
from shopmath.plugs import LIGHTEST_C, Plug, plug_for
from shopmath.validation import BadInput
from stator.engines.models import case_metals
from stator.quick_checks import messages
from stator.quick_checks.base import Answer, CheckContext, CheckForm, QuickCheck, Row, quantity
from stator.stations.framework import RenderedVerdict, State
from stator.stations.framework.messages import format_message
from stator.ui.number_format import band, bare, rough_band, show, stress
from stator.ui.svg import Sheet, bar, on_papers
from stator.ui.table_texts import from_table_lazily

GAUGE_U_MM = 0.01  # of a bore measured with what most shops have, where no bore gauge is on the shelf
METALS = ("c45", "al-6082", "al-7075", "bronze-wrought", "brass", "42crmo4")
HOTTEST_C = 110.0


class PlugForm(CheckForm):
    hole_mm = quantity("length", _("Hole, measured"), low=2, high=200, required=True)
    length_mm = quantity("length", _("Length of the plug in the case"), low=1, high=200, required=True)
    wall_mm = quantity("length", _("Thinnest metal round it"), low=1, high=100, required=True)
    bore_mm = quantity("length", _("Hole through the plug"), low=0, high=150)
    case_material = forms.ChoiceField(label=_("Case metal"), choices=case_metals)
    metal = forms.ChoiceField(label=_("Plug of"), choices=lambda: [(key, from_table_lazily(materials.get(key).name)) for key in METALS])
    hottest_c = quantity("temperature", _("Hottest when running"), low=30, high=250)


def plug(data: dict[str, Any], desk: CheckContext) -> Answer:
    """Return the size of the plug, the remaining interference when hot, and the stress in the bore."""
    gauge = desk.gauge(("bore", "micrometer", "calliper"))
    uncertainty = gauge_uncertainty(gauge.resolution, gauge.repeatability, kind=gauge.kind) if gauge else GAUGE_U_MM
    case, metal = materials.get(data["case_material"]), materials.get(data["metal"])
    hottest = data.get("hottest_c") or HOTTEST_C
    try:
        found = plug_for(data["hole_mm"], uncertainty, data["length_mm"], data["wall_mm"], case, metal, hottest, data.get("bore_mm") or 0.0)
    except BadInput as error:
        return Answer(messages.said("any", State.WAIT, "cannot", {"reason": error.message}))
    values = {
        "size": band(mm(found.low_mm), mm(found.high_mm)),
        "hot": mm(max(0.0, found.hot_mm[0])),
        "hottest": celsius(hottest),
        "drops": celsius(found.drops_in_c),
        "stress": stress(found.stress_mpa),
        "yields": stress(found.yield_mpa or 0.0),
    }
    rows = (
        Row(messages.PLUG_ROWS["cold"], band(mm(found.cold_mm[0]), mm(found.cold_mm[1]))),
        Row(
            messages.PLUG_ROWS["hot"],
            band(mm(found.hot_mm[0]), mm(found.hot_mm[1])),
            "" if data.get("hottest_c") else messages.PLUG_TYPICAL,
        ),
        Row(messages.PLUG_ROWS["force"], rough_band(newtons(found.force_n.low), newtons(found.force_n.high))),
        Row(
            messages.PLUG_ROWS["drops"],
            show(celsius(found.drops_in_c)),
            messages.PLUG_ROWS["too_hot"] if found.drops_in_c > LIGHTEST_C else "",
        ),
        Row(messages.PLUG_ROWS["stress"], stress(found.stress_mpa)),
    )
    said = messages.said("plug", found.state, found.code, values)
    return Answer(said, _section(data, found, said, desk), rows=rows)


def _section(data: dict[str, Any], found: Plug, call: RenderedVerdict, desk: CheckContext) -> Any:
    """Draw the plug and its hole to scale, with the interference cold and hot."""

    def draw(name: str, width: float) -> Any:
        sheet = Sheet(width, 350, str(messages.PLUG_DRAWING), f"{call.headline}. {call.reason}", f"plug-{name}")
        hole, long, wall = data["hole_mm"], data["length_mm"], min(data["wall_mm"], data["hole_mm"])
        scale = min(190 / (hole + 2 * wall), 130 / long)
        middle, floor = width * 0.32, 276.0
        half, outer, high = hole * scale / 2, (hole / 2 + wall) * scale, long * scale
        for side in (-1, 1):
            sheet.hatched(bar(middle + side * half, middle + side * outer, floor - high, floor), "plain", 10, rising=side > 0)
        top = floor - 2 * high - 26
        bore = (data.get("bore_mm") or 0.0) * scale / 2
        for a, b in ((-half, -bore), (bore, half)) if bore else ((-half, half),):
            sheet.hatched(bar(middle + a, middle + b, top, top + high), "cold", 8)
        sheet.arrow((middle, top + high + 20), (middle, top + high + 2), "ink bold", 10)
        sheet.line((middle, top - 16), (middle, floor + 24), "chain")
        size = format_message(messages.PLUG_SIZE, {"size": band(mm(found.low_mm), mm(found.high_mm))})
        sheet.text((14, 30), size, "reading-label ink")
        sheet.dimension((middle - half, floor + 44), (middle + half, floor + 44), show(mm(hole)), "dim")
        highest = max(found.cold_mm[1], found.hot_mm[1], 0.001)
        left, right = width * 0.64, width - 16
        for y, code, (low, high_mm) in ((120.0, "cold", found.cold_mm), (220.0, "hot", found.hot_mm)):
            at, to = (left + (right - left) * max(0.0, each) / highest for each in (low, high_mm))
            sheet.text((left, y - 36), str(messages.PLUG_ROWS[f"{code}_short"]), "strong")
            sheet.rect(at, y - 16, max(to - at, 2.0), 16, "window")
            sheet.line((left, y), (right, y), "axis")
            sheet.text((left, y + 20), bare(mm(low)) + "–" + bare(mm(high_mm)), "reading-label ink")
        return sheet.render()

    return on_papers(desk.papers, draw)


CHECK = QuickCheck(
    "plug",
    _("Plug"),
    _("What size is the plug turned to?"),
    PlugForm,
    plug,
    _("Measure the hole, how long the plug sits in it, and the thinnest metal round it."),
    {"hole_mm": "20.012 mm", "length_mm": "12 mm", "wall_mm": "8 mm", "case_material": "al-si7-mg", "metal": "al-6082"},
)
