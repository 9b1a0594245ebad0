from django.urls import path

from instruments import log_views, views

urlpatterns = [
    path("gauges/", views.gauges, name="gauges"),
    path("gauges/<int:pk>/", views.live, name="gauge-live"),
    path("gauges/<int:pk>/lever/", views.lever, name="gauge-lever"),
    path("jobs/<str:tag>/<slug:key>/log-file/", log_views.log_file, name="log-file"),
    path("jobs/<str:tag>/<slug:key>/<int:seat>/log-file/", log_views.log_file, name="seat-log-file"),
]
