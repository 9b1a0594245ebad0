from django.urls import path

from stator.jobs import views

urlpatterns = [
    path("alive/", views.alive, name="alive"),
    path("jobs/<str:tag>/photos/", views.add, name="photo-add"),
    path("photos/<row:pk>/<str:size>.jpg", views.photo, name="photo"),
]
