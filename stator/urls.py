"""Every address of the shop."""

from django.urls import include, path, register_converter

from stator.ui.url_values import RowConverter

register_converter(RowConverter, "row")  # before the addresses of the apps are imported

urlpatterns = [
    path("", include("stator.ui.urls")),
    path("", include("stator.jobs.urls")),
    path("", include("stator.shop.urls")),
    path("", include("stator.exchange.urls")),
    path("", include("stator.instruments.urls")),
    path("", include("stator.quick_checks.urls")),
    path("", include("stator.practice.urls")),
    path("", include("stator.workbench.urls")),
]
handler404 = "stator.ui.views.not_found"
handler403 = "stator.ui.views.refused"
handler400 = "stator.ui.views.not_understood"
handler500 = "stator.ui.views.broken"
