from django.urls import path

from practice import views

urlpatterns = [
    path("practice/", views.practice, name="practice"),
    path("practice/<str:tag>/hands/", views.hands, name="practice-hands"),
    path("practice/<str:tag>/finish/", views.finish, name="practice-finish"),
    path("practice/gone/<int:pk>/", views.debrief, name="practice-debrief"),
]
