"""Every address of the shop."""

from django.urls import include, path, register_converter

from ui.addresses import RowConverter

register_converter(RowConverter, "row")  # before the addresses of the apps are imported

urlpatterns = [
    path("", include("ui.urls")),
    path("", include("jobs.urls")),
    path("", include("shop.urls")),
    path("", include("exchange.urls")),
    path("", include("instruments.urls")),
    path("", include("quick.urls")),
    path("", include("practice.urls")),
    path("", include("stations.urls")),
]
handler404 = "ui.views.not_found"
handler403 = "ui.views.refused"
handler400 = "ui.views.not_understood"
handler500 = "ui.views.broken"
