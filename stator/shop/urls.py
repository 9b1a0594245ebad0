from django.contrib.auth.views import LogoutView
from django.urls import path

from stator.shop import device_setup, sign_in, user_views, views

urlpatterns = [
    path("sign-in/", sign_in.SignIn.as_view(), name="sign-in"),
    path("sign-out/", LogoutView.as_view(), name="sign-out"),
    path("shop/", views.shop, name="shop"),
    path("shop/tools/", views.tools, name="tools"),
    path("shop/tools/usual/", views.usual_tools, name="usual-tools"),
    path("shop/phones/", device_setup.phones, name="phones"),
    path("certificate/", device_setup.certificate, name="certificate"),
    path("shop/people/", user_views.people, name="people"),
    path("shop/people/<row:pk>/", user_views.person, name="person"),
    path("shop/password/", user_views.password, name="password"),
    path("shop/me/", user_views.my_settings, name="me"),
    path("shop/me/welcomed/", user_views.welcomed, name="welcomed"),
    path("shop/me/units/", user_views.other_units, name="other-units"),
    path("shop/<slug:shelf>/", views.equipment, name="equipment-new"),
    path("shop/<slug:shelf>/<row:pk>/", views.equipment, name="equipment"),
]
