"""Boss, puller and shaft in section with the turns engaged, and the torque as a rule with its three stretches."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.utils.safestring import SafeString

from ui.svg import Sheet, on_papers

if TYPE_CHECKING:
    from stations.flywheel_off.station import FlywheelOff

DEPTH_TURNS = 9.0  # of thread drawn in the boss


def draw(work: FlywheelOff) -> SafeString:
    return on_papers(work.papers, lambda name, width: _sheet(work, name, width))


def _sheet(work: FlywheelOff, name: str, width: float) -> SafeString:
    plate = work.call
    sheet = Sheet(width, 560, "Puller in the flywheel's boss", f"{plate.words}. {plate.line} {plate.move}", name)
    middle, unit = width / 2, 1.0 if width > 500 else 0.62
    _section(sheet, work, middle, unit)
    _rule(sheet, work, width)
    return sheet.render()


def _section(sheet: Sheet, work: FlywheelOff, middle: float, unit: float) -> None:
    """From the outside in: boss with its thread, puller engaged so many turns, centre screw on the shaft's end, taper below."""
    turns = min((work.value("turns") or 0.0) / 360, DEPTH_TURNS)
    engaged = 100 * turns / DEPTH_TURNS
    top, thread = 150.0, 104 * unit
    wrong = work.same is not None and work.same.state == "stop"
    for sign in (-1, 1):

        def x(offset: float, sign: int = sign) -> float:
            return middle + sign * offset * unit

        boss = [(x(230), top), (middle + sign * thread, top), (middle + sign * thread, top + 110), (x(46), top + 110), (x(70), top + 230)]
        sheet.hatched([*boss, (x(120), top + 230), (x(120), top + 180), (x(230), top + 180)], "plain", 10)
        low = top + engaged
        puller = [(middle + sign * (thread - 3), 66), (middle + sign * (thread - 3), low), (x(30), low), (x(30), 66)]
        sheet.hatched(puller, "hot" if wrong else "cold", 7, rising=False)
        for index in range(round(turns)):
            y = top + 100 * (index + 0.5) / DEPTH_TURNS
            sheet.line((middle + sign * (thread - 10), y), (middle + sign * (thread + 7), y), "hot bold" if wrong else "ink")
    end = top + 128
    sheet.rect(middle - 26 * unit, 30, 52 * unit, end - 30, "cut")
    shaft = [(-44, end), (44, end), (68, top + 246), (-68, top + 246)]
    sheet.shape([(middle + dx * unit * 0.96, y) for dx, y in shaft], "cut paper")
    sheet.line((middle, 16), (middle, top + 250), "chain")
    if work.found and not work.free:
        sheet.arrow((middle, 24), (middle, -4), "ink bold", 12)
    left = 8.0 if unit < 1 else middle - 250
    with sheet.link(f"{work.address}?ask=turns", "Reading: turns"):
        counted = f"{turns:g} turns" if unit < 1 else f"{turns:g} turns in"
        words = counted if turns else "not counted"
        sheet.text((left, 40), words, "reading-label ink big")
        sheet.text((left, 60), f"{work.found.turns} whole ones count" if work.found else "only whole ones count", "quiet")
    for side, y in (("puller", 96), ("boss", 134)):
        match = work.match(side)
        with sheet.link(f"{work.address}?ask={side}_d", f"Reading: {side} thread"):
            hand = ", left-hand" if work.hand(f"{side}_hand") == "left" else ""
            sheet.text(
                (middle + (118 * unit if side == "puller" else 124 * unit), y),
                f"{side} {match.designation}{hand}" if match else f"{side} not measured",
                "strong",
            )


def _rule(sheet: Sheet, work: FlywheelOff, width: float) -> None:
    """Torque on the centre screw: free travel, where it should let go, where the thread may."""
    found = work.found
    left, right, y = 40.0, width - 40.0, 490.0
    sheet.text((left, 446), "Torque on the centre screw, N·m", "strong")
    if found is None:
        sheet.line((left, y), (right, y), "axis thin")
        sheet.text((left, y + 24), "after puller, boss, turns and screw are measured", "quiet")
        return
    top_nm = max(found.stop_nm, found.frees_nm.high if found.frees_nm else 0.0, work.now_nm or 0.0) * 1.15

    def x(torque: float) -> float:
        return left + (right - left) * torque / top_nm

    if found.frees_nm:
        a, b = x(found.frees_nm.low), min(x(found.frees_nm.high), right)
        sheet.hatched([(a, y - 16), (b, y - 16), (b, y), (a, y)], "brass", 8)
        sheet.text((a, y - 22), "lets go", "quiet")
        sheet.line((x(found.frees_nm.likely), y - 20), (x(found.frees_nm.likely), y), "ink")
    stop = x(found.stop_nm)
    sheet.rect(stop, y - 16, right - stop, 16, "barred")
    sheet.line((stop, y - 30), (stop, y + 8), "hot bold")
    near_edge = stop > right - 90
    sheet.text((stop - 8 if near_edge else stop + 8, y - 22), f"stop {found.stop_nm:.0f}", "strong hot", "end" if near_edge else "start")
    sheet.line((left, y), (right, y), "axis")
    for torque in range(0, int(top_nm) + 1, 10 if top_nm < 120 else 50):
        sheet.line((x(torque), y), (x(torque), y + 6), "axis thin")
        if torque % (20 if top_nm < 120 else 100) == 0:
            sheet.text((x(torque), y + 22), f"{torque}", "tick", "middle")
    if work.now_nm is not None:
        at = min(x(work.now_nm), right)
        sheet.shape([(at, y - 2), (at - 8, y - 20), (at + 8, y - 20)], "ink solid")
        sheet.text((at, y + 44), f"{work.now_nm:.0f} now", "reading-label ink", "middle")
