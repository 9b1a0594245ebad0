from django.urls import path

from stator.practice import views

urlpatterns = [
    path("practice/", views.practice, name="practice"),
    path("practice/shop/", views.shop, name="practice-shop"),
    path("practice/let-see/", views.set_sharing, name="practice-let-see"),
    path("practice/bring/", views.bring, name="practice-bring"),
    path("practice/given/<row:pk>/retire/", views.retire, name="practice-retire"),
    path("practice/gone/<row:pk>/", views.exercise_results, name="practice-debrief"),
    path("practice/gone/<row:pk>/file/", views.file_out, name="practice-file"),
    path("practice/<str:tag>/hands/", views.controls, name="practice-hands"),
    path("practice/<str:tag>/pace/", views.pace, name="practice-pace"),
    path("practice/<str:tag>/judge/", views.judge, name="practice-judge"),
    path("practice/<str:tag>/finish/", views.finish, name="practice-finish"),
]
