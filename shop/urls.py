from django.contrib.auth.views import LogoutView
from django.urls import path

from shop import views

urlpatterns = [
    path("sign-in/", views.SignIn.as_view(), name="sign-in"),
    path("sign-out/", LogoutView.as_view(), name="sign-out"),
    path("shop/", views.shop, name="shop"),
    path("shop/tools/", views.tools, name="tools"),
    path("shop/people/", views.people, name="people"),
    path("shop/<slug:shelf>/", views.equipment, name="equipment-new"),
    path("shop/<slug:shelf>/<int:pk>/", views.equipment, name="equipment"),
]
