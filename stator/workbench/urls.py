from django.urls import path

from stator.workbench import (
    gauge_impact,
    job_details,
    missing_equipment,
    open_jobs,
    photo_views,
    search_views,
    station_commands,
    tray_views,
    views,
    work_plan,
)
from stator.workbench.check_in import card_views
from stator.workbench.check_in import views as book_in

_ON_A_STATION = {
    "keep": station_commands.save_answer,
    "act": station_commands.act,
    "undo": station_commands.undo,
    "choose": station_commands.choose,
    "tick": station_commands.tick,
    "supersede": station_commands.supersede,
    "go_on": station_commands.continue_against_advice,
    "pulse": views.pulse,
    "picture": views.picture,
    "readings": views.readings,
    "photographed": views.photographed,
}

urlpatterns = [
    path("", open_jobs.bench, name="bench"),
    path("keys/", open_jobs.keys, name="keys"),
    path("book-in/", book_in.book_in, name="book-in"),
    path("book-in/read-marking/", book_in.read_marking, name="read-marking"),
    path("cards/", card_views.cards, name="cards"),
    path("cards/<row:pk>/", card_views.shelf_card, name="shelf-card"),
    path("cards/<row:pk>/face/", card_views.face, name="card-face"),
    path("cards/<row:pk>/remove/", card_views.remove, name="card-remove"),
    path("cards/<row:pk>/to-shelf/", card_views.to_shelf, name="card-to-shelf"),
    path("cards/<row:pk>/underlay/", card_views.underlay, name="card-underlay"),
    path("cards/<row:pk>/underlay.jpg", card_views.underlay_picture, name="card-underlay-picture"),
    path("jobs/<str:tag>/", views.job_page, name="job"),
    path("find/", search_views.find, name="find"),
    path("missing/", missing_equipment.missing, name="missing"),
    path("gauges/<row:pk>/rests/", gauge_impact.found_wrong, name="gauge-rests"),
    path("photos/<row:pk>/", photo_views.photo_page, name="photo-page"),
    path("photos/<row:pk>/beside/<row:other>/", photo_views.compared, name="photos-compared"),
    path("photos/<row:pk>/remove/", photo_views.photo_remove, name="photo-remove"),
    path("jobs/<str:tag>/run/", work_plan.run_page, name="run"),
    path("jobs/<str:tag>/about/", job_details.about_job, name="about-job"),
    path("jobs/<str:tag>/pictures/", photo_views.photos, name="photos"),
    path("jobs/<str:tag>/tray/", tray_views.tray, name="tray"),
    path("jobs/<str:tag>/tray/labels/", tray_views.labels, name="tray-labels"),
    path("jobs/<str:tag>/tray/<row:number>/", tray_views.place, name="tray-place"),
    path("jobs/<str:tag>/card/", book_in.card, name="card"),
    path("jobs/<str:tag>/log/", book_in.job_log, name="job-log"),
    path("jobs/<str:tag>/<slug:key>/", views.station_page, name="station"),
    path("jobs/<str:tag>/<slug:key>/<row:seat>/", views.station_page, name="seat"),
    *(path(f"jobs/<str:tag>/<slug:key>/{word}/", view, name=word) for word, view in _ON_A_STATION.items()),
    *(path(f"jobs/<str:tag>/<slug:key>/<row:seat>/{word}/", view, name=f"seat-{word}") for word, view in _ON_A_STATION.items()),
]
