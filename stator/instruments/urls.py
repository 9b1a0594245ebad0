from django.urls import path

from stator.instruments import log_views, views

urlpatterns = [
    path("gauges/", views.gauges, name="gauges"),
    path("gauges/<row:pk>/", views.live, name="gauge-live"),
    path("gauges/<row:pk>/lever/", views.simulator_control, name="gauge-lever"),
    path("jobs/<str:tag>/<slug:key>/log-file/", log_views.log_file, name="log-file"),
    path("jobs/<str:tag>/<slug:key>/<row:seat>/log-file/", log_views.log_file, name="seat-log-file"),
]
