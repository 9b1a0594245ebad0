"""The engine cards of the demo, all made up."""

from __future__ import annotations

import math
from collections.abc import Sequence

from stator.engines.case import joined_anew
from stator.engines.models import CasePart, EngineCard, Fitted, Mark, Seal, Seat, Spec


def _card(name: str, summary: str, seats: list[tuple[str, str, str, dict[str, object]]], **more: object) -> EngineCard:
    fields = {"taper_ratio": 8, "cone": "taper", "flywheel_source": "drawing", "case_material_assumed": "case_material" not in more, **more}
    card = EngineCard.objects.create(name=name, summary=summary, **fields)
    for seat, designation, code, extra in seats:
        role = "main" if seat.startswith(("Main", "Centre main", "Crank")) else "gearbox" if seat.startswith("Gearbox") else "other"
        Seat.objects.create(
            card=card, **{"name": seat, "role": role, "designation": designation, "code": code, "source": "drawing", **extra}
        )
    return card


def _face(card: EngineCard, bolts: Sequence[tuple[float, float, float]], source: str = "manual page 58") -> None:
    """Bolts with their lengths, two dowels, four named places for the gap."""
    Mark.objects.bulk_create(
        Mark(card=card, what="bolt", name=str(number), x_mm=x, y_mm=y, length_mm=length, torque_nm=10, assumed=False, source=source)
        for number, (x, y, length) in enumerate(bolts, 1)
    )
    w, h = 0.42 * card.face_w_mm, 0.42 * card.face_h_mm
    for name, x, y in (("dowel front", -0.72 * w, 0.1 * h), ("dowel rear", 0.8 * w, -0.2 * h)):
        Mark.objects.create(card=card, what="dowel", name=name, x_mm=round(x, 1), y_mm=round(y, 1), clearance_mm=0.03, engaged_mm=7)
    for name, x, y in (("front", -w, -0.12 * h), ("cylinder", -0.3 * w, 0.9 * h), ("rear", w, -0.3 * h), ("sump", 0.2 * w, -0.78 * h)):
        Mark.objects.create(card=card, what="gap", name=name, x_mm=round(x, 1), y_mm=round(y, 1), assumed=False)


def _ring(count: int, w: float, h: float, lengths: tuple[float, ...]) -> list[tuple[float, float, float]]:
    angles = [2 * math.pi * (index + 0.4) / count for index in range(count)]
    return [(round(w * math.cos(a), 1), round(h * math.sin(a), 1), lengths[i % len(lengths)]) for i, a in enumerate(angles)]


def corrie() -> EngineCard:
    card = _card(
        "Corrie 272",
        "trials single, two-stroke",
        [
            ("Main, drive side", "6204 C3", "N7", {"x_mm": -38, "y_mm": 6, "bottom": "open"}),
            (
                "Main, magneto side",
                "6205 C3",
                "N7",
                {"half": "right", "stop": "circlip", "source": "shop rule", "x_mm": -38, "y_mm": 6, "bottom": "open"},
            ),
            ("Gearbox output", "6203-2RS", "M7", {"stop": "through", "source": "shop rule", "x_mm": 52, "y_mm": -10, "bottom": "open"}),
        ],
        crank="built_up",
        stroke_mm=60,
        lifts="right",
        crank_stays="left",
        face_w_mm=250,
        face_h_mm=190,
        face_assumed=False,
    )
    bolts = [(-108, 20, 40), (-96, -44, 40), (-58, -78, 40), (-4, -82, 50), (50, -78, 50), (100, -52, 40), (112, 6, 40)]
    bolts += [(98, 56, 40), (48, 76, 60), (2, 60, 60), (-12, 22, 60), (-66, 74, 60), (-100, 66, 40)]
    _face(card, bolts)
    drive = card.seats.get(name="Main, drive side")
    Seal.objects.create(
        card=card, name="Crank seal, drive side", seat=drive, shaft_mm=20, bore_mm=35, width_mm=7, lip="inside", source="drawing"
    )
    values = (
        ("End float of the crank", "end-float", 0.10, 0.20, "manual", "page 61"),
        ("Big-end side play", "big-end-side-play", 0.15, 0.55, "manual", "page 63"),
        ("Crank run-out", "crank-runout", None, 0.03, "rule", "the shed's own"),
        ("Width over the webs", "width-over-webs", 55.9, 56.0, "manual", "page 63"),
    )
    for name, limits, low, high, kind, source in values:
        Spec.objects.create(card=card, name=name, property=limits, low=low, high=high, source_kind=kind, source=source)
    return card


def merle() -> EngineCard:
    card = _card(
        "Merle 198",
        "trials single, four-stroke",
        [
            ("Main, clutch side", "6205 C3", "N7", {"x_mm": -30, "y_mm": 14, "bottom": "blind", "thin_wall": True, "loads_from": "inside"}),
            ("Gearbox input", "6202-2Z", "M7", {"half": "right", "x_mm": 40, "y_mm": 8, "bottom": "blind"}),
        ],
        crank="built_up",
        stroke_mm=58,
        left_name="clutch side",
        right_name="generator side",
        lifts="right",
        crank_stays="left",
        face_w_mm=230,
        face_h_mm=210,
        face_assumed=False,
    )
    _face(card, _ring(11, 98, 86, (35, 35, 55)))
    Spec.objects.create(
        card=card,
        name="Crank run-out",
        property="crank-runout",
        high=0.03,
        source_kind="manual",
        source="page 44",
        setup="between centres",
        held="centres",
    )
    main = card.seats.get(name="Main, clutch side")
    Seal.objects.create(
        card=card, name="Crank seal, clutch side", seat=main, shaft_mm=25, bore_mm=40, width_mm=7, lip="inside", source="drawing"
    )
    return card


def skerry() -> EngineCard:
    card = _card(
        "Skerry twin",
        "hovercraft, built-up crank",
        [("Centre main", "6206 C3", "M7", {"stop": "plate"})],
        layout="twin",
        crank="built_up",
        stroke_mm=62,
        left_name="thrust side",
        right_name="fan side",
    )
    Spec.objects.create(
        card=card,
        name="Crank run-out",
        property="crank-runout",
        high=0.03,
        source_kind="manual",
        source="page 31",
        setup="on the centre bearings",
        held="centre",
    )
    return card


def eider() -> EngineCard:
    """Return a twin whose crank is supported in a center section, with each outer half bolted to it."""
    card = _card(
        "Eider 440",
        "hovercraft lift engine, case of three parts",
        [
            ("Main, thrust side", "6206 C3", "N7", {"x_mm": 0, "y_mm": 0}),
            ("Centre main, thrust side", "6207 C3", "N7", {"half": "centre", "stop": "plate", "x_mm": 0, "y_mm": 0}),
            ("Centre main, fan side", "6207 C3", "N7", {"half": "centre", "stop": "plate", "x_mm": 0, "y_mm": 0}),
            ("Main, fan side", "6206 C3", "N7", {"half": "right", "x_mm": 0, "y_mm": 0}),
        ],
        layout="twin",
        crank="built_up",
        stroke_mm=61,
        left_name="thrust side",
        right_name="fan side",
        lifts="left",
        face_w_mm=230,
        face_h_mm=180,
        face_assumed=False,
    )
    CasePart.objects.create(card=card, uid="centre", what="centre", name="centre section")
    joined_anew(card)
    card.joints.exclude(uid="joint").update(lifts="right")
    _face(card, _ring(9, 96, 74, (45, 45, 60)), "manual page 22")
    further = card.joints.exclude(uid="joint").get()
    bolts = enumerate(_ring(9, 96, 74, (45, 60, 45)), 10)
    Mark.objects.bulk_create(
        Mark(card=card, joint=further.uid, name=str(number), x_mm=x, y_mm=y, length_mm=length, torque_nm=10, assumed=False)
        for number, (x, y, length) in bolts
    )
    return card


def haugh() -> EngineCard:
    return _card(
        "Haugh tractor",
        "two-wheel, 297 cc single",
        [("Main, pulley side", "6206 C3", "N7", {})],
        case_material="gjl-250",
        crank="one_piece",
    )


def pump() -> EngineCard:
    seats: list[tuple[str, str, str, dict[str, object]]] = [("Main, pump end", "6305", "N7", {})]
    return _card("Bellows fire pump", "flat twin, aluminium cases", seats, layout="flat_twin", painted=True)


def plover() -> EngineCard:
    return _card("Plover 125", "kart, two-stroke single", [("Crank bearing, right", "6205 TN9 C4", "k5", {"on": "shaft", "half": "crank"})])


def curlew() -> EngineCard:
    """Return a card with a full half: four bearings, a shaft with parts, a pin and a rubber bushing."""
    inside = {"bottom": "open"}
    card = _card(
        "Curlew 245",
        "trials single, two-stroke",
        [
            ("Main, drive side", "6206 C3", "N7", {"stop": "circlip", "faces": "marking_out", "x_mm": -40, "y_mm": 8, **inside}),
            ("Gearbox input", "6203", "N7", {"faces": "marking_in", "x_mm": 36, "y_mm": 22, "bottom": "blind"}),
            ("Gearbox output", "6204-2RS", "M7", {"faces": "marking_out", "loads_from": "outside", "x_mm": 66, "y_mm": -8, **inside}),
            ("Selector drum", "6004", "N7", {"x_mm": 34, "y_mm": -44, "bottom": "blind"}),
            ("Main, magneto side", "6206 C3", "N7", {"half": "right", "faces": "marking_out", "x_mm": -40, "y_mm": 8, **inside}),
            ("Gearbox input, right", "6202", "N7", {"half": "right", "x_mm": 36, "y_mm": 22, "bottom": "blind"}),
        ],
        crank="built_up",
        stroke_mm=60,
        lifts="right",
        crank_stays="left",
        face_w_mm=250,
        face_h_mm=190,
        face_assumed=False,
    )
    _face(card, _ring(12, 108, 80, (40, 40, 55)))
    main, output = card.seats.get(name="Main, drive side"), card.seats.get(name="Gearbox output")
    for name, seat, shaft, bore in (("Crank seal, drive side", main, 30, 47), ("Output seal", output, 20, 35)):
        Seal.objects.create(card=card, name=name, seat=seat, shaft_mm=shaft, bore_mm=bore, width_mm=7, lip="inside", source="drawing")
    Fitted.objects.create(
        card=card,
        name="Rocker spindle",
        d_mm=12,
        length_mm=62,
        hole_code="H7",
        part_code="p6",
        turned="flat",
        angle_deg=90,
        order="washer, rocker, spring washer",
        source="drawing",
    )
    Fitted.objects.create(card=card, name="Kick stop pin", d_mm=10, length_mm=24, part_code="n6", depth_mm=-8, source="drawing")
    Fitted.objects.create(card=card, name="Engine mount bush", kind="rubber", d_mm=32, bore_mm=10, length_mm=44, source="shop rule")
    values = (("End float of the crank", "end-float", 0.10, 0.20, "page 61"), ("Crank run-out", "crank-runout", None, 0.03, "page 63"))
    for name, limits, low, high, page in values:
        Spec.objects.create(card=card, name=name, property=limits, low=low, high=high, source_kind="manual", source=page)
    return card


def cover() -> EngineCard:
    """Return a card of a cover with a ball bearing and a drawn cup bearing."""
    card = _card(
        "Plover 125, kick cover",
        "kart engine, a cover",
        [
            ("Kick shaft, cover", "6202", "N7", {"half": "right", "bottom": "blind", "x_mm": -30, "y_mm": 10}),
            ("Idler, cover", "HK2016", "N7", {"half": "right", "stop": "through", "bottom": "blind", "x_mm": 40, "y_mm": -6}),
        ],
        case_material="al-si9-cu3",
        face_w_mm=180,
        face_h_mm=120,
        face_assumed=False,
    )
    for name, d, bore, length, part_code in (("Kick lever bush", 22, 18, 18, "s6"), ("Return spring pin", 8, 0, 24, "p6")):
        kind, metal = ("bush", "bronze-wrought") if bore else ("pin", "100cr6")
        sizes = {"d_mm": d, "bore_mm": bore, "length_mm": length, "part_code": part_code, "metal": metal}
        Fitted.objects.create(card=card, name=name, kind=kind, half="right", source="drawing", **sizes)
    return card
