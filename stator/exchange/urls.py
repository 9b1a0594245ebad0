from django.urls import path

from stator.exchange import background_task_views, card_views, entry_records, parts_list, prediction_accuracy, trend, views
from stator.exchange.report import views as report

urlpatterns = [
    path("jobs/read/", views.job_in, name="job-in"),
    path("jobs/<str:tag>/export.json", views.export, name="export"),
    path("jobs/<str:tag>/sheet/", report.sheet, name="report"),
    path("jobs/<str:tag>/sheet-<slug:paper>.pdf", report.pdf, name="report-pdf"),
    path("jobs/<str:tag>/parts/", parts_list.parts_to_order, name="parts-to-order"),
    path("jobs/<str:tag>/parts.csv", parts_list.parts_csv, name="parts-csv"),
    path("jobs/<str:tag>/job.zip", report.whole_job, name="job-zip"),
    path("jobs/<str:tag>/sheet/link/", report.give_link, name="report-link"),
    path("jobs/<str:tag>/sheet/link/<row:pk>/take-back/", report.take_link, name="report-link-off"),
    path("owner/<str:token>/", report.owner_sheet, name="owner-sheet"),
    path("owner/<str:token>/sheet.pdf", report.owner_pdf, name="owner-pdf"),
    path("owner/<str:token>/drawings/<row:pk>.svg", report.owner_drawing, name="owner-drawing"),
    path("owner/<str:token>/photos/<row:pk>.jpg", report.owner_photo, name="owner-photo"),
    path("owner/<str:owner>/making/<str:token>/", background_task_views.owner_making, name="owner-making"),
    path("owner/<str:owner>/making/<str:token>/file", background_task_views.owner_made, name="owner-made"),
    path("making/<str:token>/", background_task_views.making, name="making"),
    path("making/<str:token>/file", background_task_views.made, name="made"),
    path("cards/<row:pk>/trend/", trend.trend, name="trend"),
    path("held/", prediction_accuracy.held, name="held"),
    path("bench.csv", views.bench_csv, name="bench-csv"),
    path("cards/<row:pk>/card.json", card_views.card_json, name="card-json"),
    path("cards/<row:pk>/<slug:what>.csv", card_views.card_csv, name="card-csv"),
    path("cards/<row:pk>/read-csv/", card_views.card_csv_in, name="card-csv-in"),
    path("cards/read/", card_views.card_json_in, name="card-json-in"),
    path("entries/<row:pk>/sheet/", entry_records.sheet, name="entry-sheet"),
    path("entries/<row:pk>/again/", entry_records.computed_again, name="entry-again"),
    path("entries/<row:pk>/drawing.svg", entry_records.drawing, name="record-drawing"),
]
