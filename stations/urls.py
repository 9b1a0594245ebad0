from django.urls import path

from stations import bench, views
from stations.book_in import views as book_in

_ACTS = ("keep", "act", "undo", "choose", "tick", "supersede", "pulse", "picture")

urlpatterns = [
    path("", bench.bench, name="bench"),
    path("book-in/", book_in.book_in, name="book-in"),
    path("book-in/read-marking/", book_in.read_marking, name="read-marking"),
    path("jobs/<str:tag>/", views.job_page, name="job"),
    path("jobs/<str:tag>/card/", book_in.card, name="card"),
    path("jobs/<str:tag>/log/", book_in.job_log, name="job-log"),
    path("jobs/<str:tag>/<slug:key>/", views.station_page, name="station"),
    path("jobs/<str:tag>/<slug:key>/<int:seat>/", views.station_page, name="seat"),
    *(path(f"jobs/<str:tag>/<slug:key>/{word}/", getattr(views, word)) for word in _ACTS),
    *(path(f"jobs/<str:tag>/<slug:key>/<int:seat>/{word}/", getattr(views, word)) for word in _ACTS),
]
