"""The door, and the shop's shelves."""

from __future__ import annotations

from django import forms
from django.contrib.auth.views import LoginView
from django.core.exceptions import PermissionDenied
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_http_methods

from shop.forms import ChillerForm, GaugeForm, HeaterForm, PersonForm, PullerForm, ShopForm, SignInForm
from shop.models import Chiller, Gauge, Heater, Person, Puller, Shop

SHELVES: dict[str, tuple[type[forms.ModelForm], str]] = {
    "heaters": (HeaterForm, "What heats"),
    "chillers": (ChillerForm, "What chills"),
    "gauges": (GaugeForm, "Gauges"),
    "pullers": (PullerForm, "Pullers"),
}


class SignIn(LoginView):
    template_name = "shop/sign_in.html"
    form_class = SignInForm
    redirect_authenticated_user = True


def _owner(request: HttpRequest) -> None:
    if not getattr(request.user, "is_owner", False):
        raise PermissionDenied("The shop's figures are changed by its owner. Ask for it, or sign in as owner.")


@require_http_methods(["GET", "POST"])
def shop(request: HttpRequest) -> HttpResponse:
    """Everything on the shelves; the owner may change it."""
    form = ShopForm(request.POST or None, instance=Shop.current())
    if request.method == "POST":
        _owner(request)
        if form.is_valid():
            form.save()
            return redirect("shop")
    data = {
        "form": form,
        "heaters": Heater.objects.all(),
        "chillers": Chiller.objects.all(),
        "gauges": Gauge.objects.all(),
        "pullers": Puller.objects.all(),
        "people": Person.objects.filter(is_active=True).order_by("username"),
    }
    return render(request, "shop/shop.html", data)


@require_http_methods(["GET", "POST"])
def equipment(request: HttpRequest, shelf: str, pk: int | None = None) -> HttpResponse:
    """One thing on a shelf, new or changed."""
    if shelf not in SHELVES:
        raise Http404
    _owner(request)
    kind, title = SHELVES[shelf]
    instance = get_object_or_404(kind._meta.model, pk=pk) if pk else None
    form = kind(request.POST or None, instance=instance)
    if request.method == "POST" and form.is_valid():
        form.save()
        return redirect("shop")
    return render(request, "shop/form.html", {"form": form, "title": title, "thing": instance})


@require_http_methods(["GET", "POST"])
def people(request: HttpRequest) -> HttpResponse:
    """Let someone in."""
    _owner(request)
    form = PersonForm(request.POST or None)
    if request.method == "POST" and form.is_valid():
        form.save()
        return redirect("shop")
    return render(request, "shop/form.html", {"form": form, "title": "People"})
