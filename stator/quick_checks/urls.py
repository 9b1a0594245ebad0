from django.urls import path

from stator.quick_checks import views

urlpatterns = [
    path("check/", views.first, name="checks"),
    path("check/<slug:key>/", views.check, name="check"),
    path("check/<slug:key>/job/", views.make_job, name="check-job"),
]
