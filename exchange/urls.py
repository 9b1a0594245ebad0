from django.urls import path

from exchange import card_views, views

urlpatterns = [
    path("jobs/<str:tag>/export.json", views.export, name="export"),
    path("cards/<int:pk>/card.json", card_views.card_json, name="card-json"),
    path("cards/<int:pk>/<slug:what>.csv", card_views.card_csv, name="card-csv"),
    path("cards/<int:pk>/read-csv/", card_views.card_csv_in, name="card-csv-in"),
    path("cards/read/", card_views.card_json_in, name="card-json-in"),
    path("entries/<int:pk>/sheet/", views.sheet, name="entry-sheet"),
]
