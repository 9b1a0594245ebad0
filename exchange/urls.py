from django.urls import path

from exchange import views

urlpatterns = [
    path("jobs/<str:tag>/export.json", views.export, name="export"),
    path("entries/<int:pk>/sheet/", views.sheet, name="entry-sheet"),
]
