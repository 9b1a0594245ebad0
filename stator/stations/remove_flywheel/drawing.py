"""Drawing of hub, puller and shaft in section with the engaged turns, and the torque on a scale with three ranges."""

from __future__ import annotations

from shopmath.amounts import DOWN, newton_metres, quarters, rough
from stator.engines.properties import Property
from stator.stations.framework import Canvas
from stator.stations.framework.messages import format_message
from stator.stations.remove_flywheel import messages
from stator.stations.remove_flywheel.analysis import FlywheelRemovalAnalysis, at
from stator.ui.graph import step_for
from stator.ui.number_format import bare, plain, unit_of
from stator.ui.units import core_per_shown

DEPTH_TURNS = 9.0  # of thread drawn in the boss
TOP_PX = 150.0


def draw(found: FlywheelRemovalAnalysis, canvas: Canvas) -> None:
    unit = 1.0 if canvas.is_wide else 0.62
    _section(found, canvas, canvas.width / 2, unit)
    _labels(found, canvas, canvas.width / 2, unit)
    _rule(found, canvas)


def _section(found: FlywheelRemovalAnalysis, canvas: Canvas, middle: float, unit: float) -> None:
    """Draw, from the outside in, the hub with its thread, the puller with its engaged turns, the center screw and the taper."""
    sheet = canvas.sheet
    turns = min(found.turns or 0.0, DEPTH_TURNS)
    engaged, thread = 100 * turns / DEPTH_TURNS, 104 * unit
    for sign in (-1, 1):

        def x(offset: float, sign: int = sign) -> float:
            return middle + sign * offset * unit

        boss = [(x(230), TOP_PX), (middle + sign * thread, TOP_PX), (middle + sign * thread, TOP_PX + 110), (x(46), TOP_PX + 110)]
        taper = [(x(70), TOP_PX + 230), (x(120), TOP_PX + 230), (x(120), TOP_PX + 180), (x(230), TOP_PX + 180)]
        sheet.hatched([*boss, *taper], "plain", 10)
        low = TOP_PX + engaged
        puller = [(middle + sign * (thread - 3), 66), (middle + sign * (thread - 3), low), (x(30), low), (x(30), 66)]
        sheet.hatched(puller, "hot" if found.is_wrong else "cold", 7, rising=False)
        for index in range(round(turns)):
            y = TOP_PX + 100 * (index + 0.5) / DEPTH_TURNS
            sheet.line((middle + sign * (thread - 10), y), (middle + sign * (thread + 7), y), "hot bold" if found.is_wrong else "ink")
    end = TOP_PX + 128
    sheet.rect(middle - 26 * unit, 30, 52 * unit, end - 30, "cut")
    shaft = [(-44, end), (44, end), (68, TOP_PX + 246), (-68, TOP_PX + 246)]
    sheet.shape([(middle + dx * unit * 0.96, y) for dx, y in shaft], "cut paper")
    sheet.line((middle, 16), (middle, TOP_PX + 250), "chain")
    if found.pull and not found.is_free:
        sheet.arrow((middle, 24), (middle, -4), "ink bold", 12)
    canvas.labels.keep_clear_box(middle - thread, 30, middle + thread, TOP_PX + 250)


def _labels(found: FlywheelRemovalAnalysis, canvas: Canvas, middle: float, unit: float) -> None:
    """Turns on the left, both threads on the right, each leading to its question."""
    left = middle - 250 if canvas.is_wide else 8.0
    message = (
        format_message(messages.ON_DRAWING["turns"], {"turns": quarters(found.turns)})
        if found.turns
        else str(messages.ON_DRAWING["not_counted"])
    )
    link = canvas.link(at(Property.PULLER_TURNS))
    canvas.labels.at([((left, 40), "start")], message, "reading-label ink big", rank=1, link=link)
    whole = (
        format_message(messages.ON_DRAWING["whole"], {"turns": found.pull.turns}) if found.pull else str(messages.ON_DRAWING["only_whole"])
    )
    canvas.labels.at([((left, 62), "start")], whole, "quiet", rank=2)
    for side, what, hand, y in (
        ("puller", Property.PULLER_DIAMETER, Property.PULLER_HAND, 96.0),
        ("boss", Property.BOSS_DIAMETER, Property.BOSS_HAND, 134.0),
    ):
        match = found.match(side)
        name = (
            format_message(messages.ON_DRAWING[side], {"thread": match.designation})
            if match
            else str(messages.ON_DRAWING[f"{side}_unknown"])
        )
        text = format_message(messages.ON_DRAWING["left"], {"thread": name}) if match and found.hand(hand) == "left" else name
        x = middle + 118 * unit
        places = [((x, y), "start"), ((x, y - 16), "start"), ((x, y + 16), "start")]
        canvas.labels.at(places, text, "strong", rank=2, link=canvas.link(at(what)))


def _rule(found: FlywheelRemovalAnalysis, canvas: Canvas) -> None:
    """Torque on the centre screw: free travel, where it should release, where the thread may strip."""
    sheet, labels, pull = canvas.sheet, canvas.labels, found.pull
    left, right, y = 40.0, canvas.width - 40.0, 490.0
    labels.at([((left, 446), "start")], format_message(messages.ON_DRAWING["torque"], {"unit": unit_of("torque")}), "strong", rank=1)
    if pull is None:
        sheet.line((left, y), (right, y), "axis thin")
        labels.at([((left, y + 24), "start")], str(messages.ON_DRAWING["later"]), "quiet", rank=1)
        return
    top_nm = max(pull.stop_nm, pull.frees_nm.high if pull.frees_nm else 0.0, found.torque_nm or 0.0, 1.0) * 1.15

    def x(torque: float) -> float:
        return left + (right - left) * torque / top_nm

    if pull.frees_nm:
        a, b = x(pull.frees_nm.low), min(x(pull.frees_nm.high), right)
        sheet.hatched([(a, y - 16), (b, y - 16), (b, y), (a, y)], "brass", 8)
        sheet.line((x(pull.frees_nm.likely), y - 20), (x(pull.frees_nm.likely), y), "ink")
        labels.at([((a, y - 24), "start"), ((b, y - 24), "end")], str(messages.ON_DRAWING["releases"]), "quiet", rank=3)
    stop = x(pull.stop_nm)
    sheet.rect(stop, y - 16, right - stop, 16, "barred")
    sheet.line((stop, y - 30), (stop, y + 8), "hot bold")
    message = format_message(messages.ON_DRAWING["stop"], {"torque": bare(rough(newton_metres(pull.stop_nm), DOWN))})
    labels.at([((stop + 8, y - 24), "start"), ((stop - 8, y - 24), "end"), ((stop - 8, y - 42), "end")], message, "strong hot", rank=2)
    sheet.line((left, y), (right, y), "axis")
    per = core_per_shown("torque")
    step = step_for(top_nm / per, 12)
    for number in range(int(top_nm / per / step) + 1):
        at_nm = number * step * per
        sheet.line((x(at_nm), y), (x(at_nm), y + 6), "axis thin")
        if number % 2 == 0:
            labels.at([((x(at_nm), y + 22), "middle")], plain(number * step), "tick", rank=1)
    if found.torque_nm is not None:
        now = min(x(found.torque_nm), right)
        sheet.shape([(now, y - 2), (now - 8, y - 20), (now + 8, y - 20)], "ink solid")
        text = format_message(messages.ON_DRAWING["now"], {"torque": bare(newton_metres(found.torque_nm))})
        labels.at([((now, y + 50), "middle"), ((now, y + 50), "start"), ((now, y + 50), "end")], text, "reading-label ink", rank=2)
