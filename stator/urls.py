"""Every address of the shop."""

from django.urls import include, path

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
