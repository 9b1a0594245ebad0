from django.urls import path

from stator.ui import offline

urlpatterns = [
    path("worker.js", offline.worker, name="worker"),
    path("offline/", offline.offline, name="offline"),
    path("manifest.webmanifest", offline.manifest, name="manifest"),
]
