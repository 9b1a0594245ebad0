from django.urls import path

from instruments import views

urlpatterns = [
    path("gauges/", views.gauges, name="gauges"),
    path("gauges/<int:pk>/", views.live, name="gauge-live"),
    path("gauges/<int:pk>/lever/", views.lever, name="gauge-lever"),
]
