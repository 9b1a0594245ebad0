"""Quick checks of shims, press force, and a runout limit for other supports."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from django import forms
from django.utils import timezone
from django.utils.translation import gettext_lazy as _

from shopmath.amounts import mm
from shopmath.crank_runout import PressedCrank
from shopmath.truing import convert_runout
from stator.engines.models import EngineCard
from stator.engines.properties import Property
from stator.jobs.fact_loader import seen
from stator.jobs.facts import GaugeSnapshot
from stator.quick_checks import messages
from stator.quick_checks.base import Answer, CheckContext, CheckForm, CheckInputs, InputFact, QuickCheck, Row, by_station, given, quantity
from stator.shop.models import Blades, Press
from stator.stations.common.press_joint import analysis as joint
from stator.stations.framework import RenderedVerdict, Scale, State
from stator.stations.press_apart.station import STATION as APART
from stator.stations.press_together.station import STATION as TOGETHER
from stator.stations.set_end_play.analysis import crank, end_float_facts, links_of, shim
from stator.stations.set_end_play.station import STATION as END_FLOAT
from stator.stations.true_crank import analysis as turned
from stator.ui.fields import SizesField
from stator.ui.number_format import band, show, size
from stator.ui.svg import Sheet, on_papers

DIAL_MM = 0.01  # step of a dial where the shop has none on its shelf
CALLIPERS = ("micrometer", "calliper")


class ShimForm(CheckForm):
    left_mm = quantity("length", _("Left case, face to bearing"), low=-50, high=400, required=True)
    right_mm = quantity("length", _("Right case, face to bearing"), low=-50, high=400, required=True)
    gasket_mm = quantity("length", _("Gasket, crushed"), small=True, low=0, high=4)
    crank_mm = quantity("length", _("Crank, shoulder to shoulder"), low=1, high=800, required=True)
    fitted_mm = quantity("length", _("Shims already in"), small=True, low=0, high=10)
    least_mm = quantity("length", _("End float, at least"), small=True, low=-0.001, high=4, required=True)
    most_mm = quantity("length", _("At most"), small=True, low=0, high=4, required=True)
    kit_mm = SizesField(label=_("Shims available"), required=False, help_text=_("0.05 0.1 0.2 0.3; empty: the shop's kit"))


OF_LINK = ("left_mm", "right_mm", "gasket_mm", "crank_mm", "fitted_mm")


def known_of_shims(data: dict[str, Any], desk: CheckContext) -> CheckInputs:
    """The links of the stack and what the float should be."""
    card = EngineCard(name="")
    links = list(zip(links_of(card), OF_LINK, strict=True))
    said = [InputFact(link.slot, data[name], gauges=CALLIPERS) for link, name in links if data.get(name) is not None]
    said += [InputFact(crank(Property.END_FLOAT_LEAST), data["least_mm"]), InputFact(crank(Property.END_FLOAT_MOST), data["most_mm"])]
    return CheckInputs(card, tuple(said), skipped=tuple(link.slot for link, name in links if data.get(name) is None))


def shims(data: dict[str, Any], desk: CheckContext) -> Answer:
    """Return the shims that correct the end play, as Set end play chooses them, with their nominal thickness."""
    if data.get("kit_mm"):
        desk = desk.with_shelf(blades=(Blades(name="", kind=Blades.Kind.SHIM, sizes_mm=data["kit_mm"]),))
    known = known_of_shims(data, desk)
    first = end_float_facts(given(known, desk))  # before a shim is measured
    bagged = tuple(InputFact(shim(number), each, gauges=CALLIPERS) for number, each in enumerate(first.pieces, 1))
    found = by_station(END_FLOAT, replace(known, said=(*known.said, *bagged)), desk)
    rows = [Row(messages.SHIM_ROWS["free"], show(mm(first.free.value_mm, 0.001, first.uncertainty)))] if first.free else []
    rows += [Row(messages.SHIM_ROWS["shim"], size(each), messages.AS_BAGGED) for each in first.pieces]
    return replace(found, rows=tuple(rows))


class PressForm(CheckForm):
    chips = ("moving", "condition")
    moving = forms.ChoiceField(
        label=_("The pin is"),
        choices=[("in", _("pressed in")), ("out", _("pressed out"))],
        widget=forms.RadioSelect,
        initial="in",
    )
    pin_mm = quantity("length", _("Pin, diameter"), low=5, high=120, required=True)
    hole_mm = quantity("length", _("Hole in the web"), low=5, high=120, required=True)
    long_mm = quantity("length", _("Length in the web"), low=3, high=120, required=True)
    wall_mm = quantity("length", _("Thinnest wall round the pin"), low=1, high=100, required=True)
    web_mm = quantity("length", _("Web, across"), low=20, high=400, required=True)
    condition = forms.ChoiceField(
        label=_("Surfaces"), choices=[("dry", _("dry")), ("oiled", _("oiled"))], widget=forms.RadioSelect, initial="dry"
    )
    press_n = quantity("force", _("Your press"), low=1000, high=5_000_000, help_text=_("20 kN, 12 short tons; empty: the shop's"))


SIZES = (
    ("pin_mm", Property.PIN_DIAMETER),
    ("hole_mm", Property.PIN_HOLE),
    ("long_mm", Property.PIN_LENGTH),
    ("wall_mm", Property.WEB_WALL),
    ("web_mm", Property.WEB_WIDTH),
)


def known_of_press(data: dict[str, Any], desk: CheckContext) -> CheckInputs:
    said = tuple(InputFact(joint.at(what), data[name], gauges=CALLIPERS) for name, what in SIZES)
    station = "together" if data["moving"] == "in" else "apart"
    return CheckInputs(EngineCard(name=""), said, {"sizes": "measured", "condition": data["condition"]}, station=station)


def press(data: dict[str, Any], desk: CheckContext) -> Answer:
    if data.get("press_n"):
        typed = f"{data['press_n'] / 1000:g} kN"
        desk = desk.with_shelf(presses=(Press(name="", capacity_n=data["press_n"], capacity_text=typed),))
    return by_station(TOGETHER if data["moving"] == "in" else APART, known_of_press(data, desk), desk)


class RunoutForm(CheckForm):
    limit_mm = quantity("length", _("Runout allowed (TIR)"), small=True, low=0, high=2, required=True)
    its_support_mm = quantity("length", _("Its supports, from the pin"), low=5, high=600, required=True)
    its_gauge_mm = quantity("length", _("Its gauges, from the pin"), low=5, high=600, required=True)
    support_mm = quantity("length", _("Your supports, from the pin"), low=5, high=600, required=True)
    gauge_mm = quantity("length", _("Your gauges, from the pin"), low=5, high=600, required=True)
    stroke_mm = quantity("length", _("Stroke"), low=10, high=300, required=True)
    read_mm = quantity("length", _("Runout read (TIR)"), small=True, low=-0.001, high=5)


def known_of_runout(data: dict[str, Any], desk: CheckContext) -> CheckInputs:
    """Return how the crank is held here.

    The limit is not carried: how its page holds the crank was not asked.
    """
    places = ((Property.SUPPORT_PLACE, data["support_mm"]), (Property.GAUGE_PLACE, data["gauge_mm"]))
    said = [InputFact(turned.crank(what, side), place) for side in turned.SIDES for what, place in places]
    return CheckInputs(EngineCard(name="", stroke_mm=data["stroke_mm"]), tuple(said))


def runout(data: dict[str, Any], desk: CheckContext) -> Answer:
    """Return what a limit meant for one set-up allows at another; a reading against that."""
    throw = data["stroke_mm"] / 2

    def held(support: float, gauge: float) -> PressedCrank:
        return PressedCrank(-support, support, -gauge, gauge, throw)

    here = convert_runout(data["limit_mm"], held(data["its_support_mm"], data["its_gauge_mm"]), held(data["support_mm"], data["gauge_mm"]))
    low, high, read = mm(here.low, 0.001), mm(here.high, 0.001), data.get("read_mm")
    values = {"low": low, "high": high, "band": band(low, high)}
    rows = (Row(messages.RUNOUT_ROWS["sure"], show(low)), Row(messages.RUNOUT_ROWS["never"], show(high)))
    if read is None:
        said = messages.said("runout", State.WAIT, "band", values)
        return Answer(said, _set_ups(data, said, desk), rows=rows)
    gauge = seen(desk.gauge(("dial",)), timezone.now().date()) or GaugeSnapshot("", DIAL_MM, kind="dial")
    uncertainty = turned.travel_u_mm(gauge.uncertainty())
    state = State(turned.judge_converted(read, here, uncertainty).state)
    scale = Scale(read, uncertainty, None, here.low, "mm")
    said = messages.said("runout", state, state.value, {**values, "read": mm(read, 0.001, uncertainty)}, scale)
    return Answer(said, _set_ups(data, said, desk), rows=rows)


def _set_ups(data: dict[str, Any], call: RenderedVerdict, desk: CheckContext) -> Any:
    """The crank as the limit's page holds it above, as it is held here below; both to one scale."""
    places = (
        (messages.RUNOUT_HELD["its"], data["its_support_mm"], data["its_gauge_mm"]),
        (messages.RUNOUT_HELD["here"], data["support_mm"], data["gauge_mm"]),
    )
    farthest = max(max(support, gauge) for _, support, gauge in places)

    def draw(name: str, width: float) -> Any:
        sheet = Sheet(width, 420, str(messages.RUNOUT_DRAWING), f"{call.headline}. {call.reason}", f"runout-{name}")
        middle, scale = width / 2, (width / 2 - 46) / farthest
        for number, (said, support, gauge) in enumerate(places):
            axis = 96.0 + 200 * number
            sheet.text((middle, axis - 76), str(said), "strong", "middle")
            for side in (-1, 1):
                reach, web = middle + side * (farthest * scale + 18), middle + side * 10
                sheet.hatched([(web, axis - 40), (web + side * 12, axis - 40), (web + side * 12, axis + 30), (web, axis + 30)], "plain", 7)
                sheet.shape([(web + side * 12, axis - 9), (reach, axis - 9), (reach, axis + 9), (web + side * 12, axis + 9)], "cut paper")
                at, dial = middle + side * support * scale, middle + side * gauge * scale
                sheet.shape([(at, axis + 9), (at - 9, axis + 26), (at + 9, axis + 26)], "cut paper")
                sheet.line((dial, axis - 9), (dial, axis - 34), "ink")
                sheet.circle((dial, axis - 46), 12, "bore")
            sheet.rect(middle - 10, axis - 34, 20, 14, "cut paper")
            sheet.line((middle, axis - 54), (middle, axis + 92), "chain")
            for down, place in ((48, gauge), (84, support)):
                sheet.dimension((middle, axis + down), (middle + place * scale, axis + down), show(mm(place, 0.1)), "dim")
        return sheet.render()

    return on_papers(desk.papers, draw)


CHECKS = (
    QuickCheck(
        "shims",
        _("Shims"),
        _("Which shims?"),
        ShimForm,
        shims,
        _("Measure from each joint face to its bearing, and the crank over its shoulders."),
        {
            "left_mm": "38.42 mm",
            "right_mm": "31.10 mm",
            "crank_mm": "69.10 mm",
            "least_mm": "0.10 mm",
            "most_mm": "0.20 mm",
            "kit_mm": "0.05mm 0.1mm 0.15mm 0.2mm 0.3mm",
        },
        known=known_of_shims,
        order="bottom-end",
        station="end-float",
    ),
    QuickCheck(
        "runout",
        _("Runout"),
        _("What does the runout mean here?"),
        RunoutForm,
        runout,
        _("A manual's limit holds for its own supports and gauges. Say both set-ups, each measured from the middle of the pin."),
        {
            "limit_mm": "0.05 mm",
            "its_support_mm": "92 mm",
            "its_gauge_mm": "34 mm",
            "support_mm": "80 mm",
            "gauge_mm": "40 mm",
            "stroke_mm": "58 mm",
            "read_mm": "0.012 mm",
        },
        known=known_of_runout,
        order="crank",
        station="true",
    ),
    QuickCheck(
        "press",
        _("Press force"),
        _("How much force?"),
        PressForm,
        press,
        _("Measure pin and hole, how long the pin is in the web, and the thinnest wall round it."),
        {
            "pin_mm": "22.06 mm",
            "hole_mm": "22.00 mm",
            "long_mm": "14 mm",
            "wall_mm": "9 mm",
            "web_mm": "95 mm",
            "moving": "in",
            "condition": "dry",
            "press_n": "100 kN",
        },
        known=known_of_press,
        order="crank",
        station="together",
    ),
)
