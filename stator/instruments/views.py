"""Readings of the connected gauges: for the page that waits for one, and on a page of their own."""

from __future__ import annotations

from typing import Any

from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext_lazy as _
from django.views.decorators.http import require_GET, require_POST

from shopmath.amounts import Amount
from stator.instruments.gauge_hub import LISTENER
from stator.instruments.gauge_reader import LIVE
from stator.shop.equipment_snapshot import shelves
from stator.shop.models import Gauge, Shop
from stator.ui.number_format import as_asked

NOT_CONNECTED = _("Nobody listens to gauges in this process: it was not started with manage.py serve. Type the reading.")


def shown(gauge: Gauge, canonical: float, unit: str = "") -> str:
    """Return a reading with the digits of its gauge, in the unit of the present question or of the reader."""
    return as_asked(Amount(canonical, gauge.measures, gauge.resolution), unit)


def _gauge(pk: int) -> Gauge:
    shop = Shop.current()
    LISTENER.sync(shop)
    found = next((each for each in shelves(shop).gauges if each.pk == pk), None)
    if found is None:
        raise Http404
    return found


@require_GET
def live(request: HttpRequest, pk: int) -> HttpResponse:
    """Return the latest reading of one gauge for the page that waits for it.

    It is requested five times a second and uses memory only.
    """
    gauge = _gauge(pk)
    reader = LISTENER.reader(pk)
    if reader is None:
        return JsonResponse({"state": "deaf", "words": NOT_CONNECTED if not LISTENER.on else _("This gauge has no line."), "seq": 0})
    get = {name: request.GET.get(name, "")[:120] for name in ("device", "place", "ask", "mark")}
    held = LISTENER.hold(pk, get["device"], get["place"], get["ask"], take=request.GET.get("take") == "1")
    standing, last = reader.standing(), reader.last
    since = request.GET.get("since", "")
    if reader.on_button and since.isdigit() and (following := reader.since(int(since))):
        last = following[0]  # one after another: none that was sent is passed over
    values: dict[str, Any] = {"state": standing.key, "words": standing.words, "seq": last.seq if last else 0}
    values["mine"] = held.device == get["device"]
    if not values["mine"]:
        values.update(state="elsewhere", words=_("{name} feeds another page: {place}.").format(name=gauge.name, place=held.place))
        return JsonResponse(values)
    if last and standing.key == LIVE:
        values.update(
            text=last.line.text,
            shown=shown(gauge, last.line.canonical, request.GET.get("unit", "")[:20]),
            label=last.line.label,
            value=last.line.canonical,
            button=reader.on_button,
        )
        peak = reader.peak(get["mark"]) if get["mark"] else None
        if peak is not None:
            values.update(peak=shown(gauge, peak, request.GET.get("unit", "")[:20]))
    values["levers"] = [[word, does] for word, does in reader.levers.items()] if reader.is_open else []
    return JsonResponse(values)


@require_POST
def simulator_control(request: HttpRequest, pk: int) -> HttpResponse:
    """Run a control of a simulated gauge."""
    gauge = _gauge(pk)
    reader = LISTENER.reader(pk)
    if reader:
        reader.send_command(request.POST.get("lever", ""))
    if request.headers.get("X-Partial"):
        return HttpResponse(status=204)
    return redirect(f"/gauges/#gauge-{gauge.pk}")


@require_GET
def gauges(request: HttpRequest) -> HttpResponse:
    """Show every connected gauge: its state, its latest reading, and the page that it feeds."""
    shop = Shop.current()
    LISTENER.sync(shop)
    rows = []
    for gauge in shelves(shop).gauges:
        reader = LISTENER.reader(gauge.pk)
        if not gauge.port:
            continue
        standing, last = (reader.standing(), reader.last) if reader else (None, None)
        rows.append(
            {
                "gauge": gauge,
                "state": standing.key if standing else "deaf",
                "words": standing.words if standing else NOT_CONNECTED,
                "said": shown(gauge, last.line.canonical) if reader and last else "",
                "lately": [each.line.text for each in reader.since(0)[-5:]] if reader else [],
                "bad": reader.bad_lines if reader else 0,
                "remark": reader.remark if reader else "",
                "levers": list(reader.levers.items()) if reader else [],
                "feeds": LISTENER.holder(gauge.pk),
            }
        )
    typed = [gauge for gauge in shelves(shop).gauges if not gauge.port]
    return render(request, "instruments/gauges.html", {"rows": rows, "typed": typed})
