from django.urls import path

from ui import away

urlpatterns = [
    path("worker.js", away.worker, name="worker"),
    path("offline/", away.offline, name="offline"),
    path("manifest.webmanifest", away.manifest, name="manifest"),
]
