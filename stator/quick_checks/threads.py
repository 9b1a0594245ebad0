"""Quick checks of a thread and a puller, by the tables and by Remove flywheel."""

from __future__ import annotations

from typing import Any

from django import forms
from django.utils.translation import gettext_lazy as _

from shopmath.amounts import mm
from shopmath.notation import metric_thread
from shopmath.screw_threads import Match, identify
from shopmath.validation import BadInput
from stator.engines.models import EngineCard
from stator.engines.properties import Property
from stator.quick_checks import messages
from stator.quick_checks.base import Answer, CheckContext, CheckForm, CheckInputs, InputFact, QuickCheck, Row, by_station, quantity
from stator.stations.framework import RenderedVerdict, State
from stator.stations.framework.messages import format_message
from stator.stations.remove_flywheel.analysis import at
from stator.stations.remove_flywheel.messages import METHOD
from stator.stations.remove_flywheel.station import STATION
from stator.ui.fields import RatioField
from stator.ui.number_format import show
from stator.ui.svg import Sheet, on_papers
from stator.ui.units import MM

HANDS = (("right", _("right-hand")), ("left", _("left-hand")))


class ThreadField(forms.CharField):
    """A thread as the trade writes it, `M27x1` or `M6`: diameter and pitch, mm."""

    def __init__(self, **kwargs: Any) -> None:
        super().__init__(max_length=20, required=False, **kwargs)

    def clean(self, value: Any) -> tuple[float, float] | None:
        text = super().clean(value)
        if not text:
            return None
        try:
            return metric_thread(text)
        except BadInput as error:
            raise forms.ValidationError(error.message) from error


class ThreadForm(CheckForm):
    chips = ("inside", "hand")
    inside = forms.ChoiceField(
        label=_("Thread"),
        choices=[("", _("outside, on a bolt or puller")), ("1", _("inside, in a hole"))],
        required=False,
        widget=forms.RadioSelect,
        initial="",
    )
    diameter_mm = quantity("length", _("Measured over it, or its bore"), unit=MM, low=1, high=100, required=True)
    pitch_mm = quantity("thread_pitch", _("Pitch, by leaf gauge"), unit=MM, low=0.2, high=8, required=True, help_text=_("1.25, or 20 tpi"))
    hand = forms.ChoiceField(label=_("Hand"), choices=HANDS, widget=forms.RadioSelect, initial="right")


def which(data: dict[str, Any], desk: CheckContext) -> Answer:
    """Threads of the table that it may be, the nearest first."""
    found = identify(data["diameter_mm"], data["pitch_mm"], data["hand"], internal=bool(data["inside"]))
    if not found:
        return Answer(messages.said("thread", State.OUT, "none"))
    first, *others = found
    other = next((each for each in others if first.rivals(each)), None)
    rows = tuple(_row(each, each == first) for each in found[:5])
    values = {"thread": first.designation, "off": mm(abs(first.pitch_error_mm), 0.001)}
    sure = first.is_close and other is None
    values["other"] = other.designation if other else ""
    verdict = messages.said("thread", State.IN if sure else State.TOO_CLOSE, "sure" if sure else "two" if other else "off", values)
    return Answer(verdict, _profile(first, verdict, desk), rows)


def known_of_thread(data: dict[str, Any], desk: CheckContext) -> CheckInputs:
    """Return what was measured, of the boss where it is inside, else of the puller."""
    inside = bool(data["inside"])
    places = (Property.BOSS_DIAMETER, Property.BOSS_PITCH) if inside else (Property.PULLER_DIAMETER, Property.PULLER_PITCH)
    hand = Property.BOSS_HAND if inside else Property.PULLER_HAND
    sizes = (data["diameter_mm"], data["pitch_mm"])
    said = [InputFact(at(what), size, gauges=("calliper",)) for what, size in zip(places, sizes, strict=True)]
    return CheckInputs(EngineCard(name=""), (*said, InputFact(at(hand), data["hand"])))


def _row(match: Match, best: bool) -> Row:
    off = {"pitch": mm(match.pitch_error_mm, 0.001), "diameter": mm(match.diameter_error_mm, 0.01), "flank": f"{match.angle_deg:g}"}
    return Row(match.designation, show(mm(match.pitch_mm, 0.001)), format_message(messages.THREAD_OFF, off), best)


def _profile(match: Match, call: RenderedVerdict, desk: CheckContext) -> Any:
    """The thread's flanks and its pitch, drawn large."""

    def draw(name: str, width: float) -> Any:
        sheet = Sheet(width, 300, str(messages.THREAD_DRAWING), f"{call.headline}. {call.reason}", f"thread-{name}")
        teeth = 5 if width > 500 else 3
        step = (width - 80) / teeth
        deep = 0.6134 * step  # of the depth of an ISO thread to its pitch
        top, points = 90.0, [(40.0, 240.0)]
        for index in range(teeth):
            x = 40 + index * step
            points += [(x, top + deep), (x + 0.44 * step, top), (x + 0.56 * step, top), (x + step, top + deep)]
        points.append((40 + teeth * step, 240.0))
        sheet.hatched(points, "plain", 9)
        middle = 40 + (teeth // 2) * step + step / 2
        sheet.dimension((middle - step, 60), (middle, 60), show(mm(match.pitch_mm, 0.001)), "dim")
        sheet.text((width / 2, 286), f"{match.designation}, {match.angle_deg:g}°", "strong", "middle")
        return sheet.render()

    return on_papers(desk.papers, draw)


class PullerForm(CheckForm):
    chips = ("condition",)
    puller = ThreadField(label=_("Puller thread"), widget=forms.TextInput(attrs={"placeholder": "M27x1"}))
    boss = ThreadField(label=_("Boss thread"), widget=forms.TextInput(attrs={"placeholder": "M27x1"}))
    turns = forms.FloatField(label=_("Turns it goes in by hand"), min_value=0.25, max_value=60, required=False)
    screw = ThreadField(label=_("Centre screw"), widget=forms.TextInput(attrs={"placeholder": "M12x1.25"}))
    nut_torque_nm = quantity("torque", _("The nut was tightened to"), low=1, high=500)
    nut = ThreadField(label=_("Nut thread"), widget=forms.TextInput(attrs={"placeholder": "M12x1.25"}))
    taper = RatioField(label=_("Taper"), low=2, high=30, required=False, widget=forms.TextInput(attrs={"placeholder": "1:5"}))
    condition = forms.ChoiceField(
        label=_("Taper"), choices=[(row[0], row[1]) for row in METHOD["condition"][1]], widget=forms.RadioSelect, initial="clean"
    )


def holds(data: dict[str, Any], desk: CheckContext) -> Answer:
    return by_station(STATION, known_of_puller(data, desk), desk)


def known_of_puller(data: dict[str, Any], desk: CheckContext) -> CheckInputs:
    """Return the inputs: the card of the flywheel, and the measurements of the puller."""
    boss, puller, screw, nut = (data.get(name) for name in ("boss", "puller", "screw", "nut"))
    card = EngineCard(
        name="",
        boss_d_mm=boss[0] if boss else None,
        boss_pitch_mm=boss[1] if boss else None,
        nut_torque_nm=data.get("nut_torque_nm"),
        nut_d_mm=nut[0] if nut else None,
        taper_ratio=data.get("taper"),
    )
    pairs = (
        (puller, Property.PULLER_DIAMETER, Property.PULLER_PITCH),
        (screw, Property.CENTRE_SCREW_DIAMETER, Property.CENTRE_SCREW_PITCH),
    )
    said = [InputFact(at(what), size) for pair, *both in pairs if pair for what, size in zip(both, pair, strict=True)]
    if data.get("turns"):
        said.append(InputFact(at(Property.PULLER_TURNS), 360 * data["turns"]))
    return CheckInputs(card, tuple(said), {"condition": data["condition"]})


CHECKS = (
    QuickCheck(
        "thread",
        _("Thread"),
        _("Which thread is it?"),
        ThreadForm,
        which,
        _("Measure over the thread with a calliper, and its pitch with a leaf gauge."),
        {"diameter_mm": "26.9", "pitch_mm": "1", "inside": "", "hand": "right"},
        known=known_of_thread,
        order="flywheel",
        station="flywheel-off",
    ),
    QuickCheck(
        "puller",
        _("Puller"),
        _("Does the puller hold?"),
        PullerForm,
        holds,
        _("Say the threads of the puller and of the boss, and how many turns the puller goes in."),
        {
            "puller": "M27x1",
            "boss": "M27x1",
            "turns": "7",
            "screw": "M12x1.25",
            "nut_torque_nm": "55 Nm",
            "nut": "M12x1.25",
            "taper": "1:5",
            "condition": "clean",
        },
        known=known_of_puller,
        order="flywheel",
        station="flywheel-off",
    ),
)
