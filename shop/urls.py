from django.contrib.auth.views import LogoutView
from django.urls import path

from shop import door, people, phones, views

urlpatterns = [
    path("sign-in/", door.SignIn.as_view(), name="sign-in"),
    path("sign-out/", LogoutView.as_view(), name="sign-out"),
    path("shop/", views.shop, name="shop"),
    path("shop/tools/", views.tools, name="tools"),
    path("shop/tools/usual/", views.usual_tools, name="usual-tools"),
    path("shop/phones/", phones.phones, name="phones"),
    path("certificate/", phones.certificate, name="certificate"),
    path("shop/people/", people.people, name="people"),
    path("shop/people/<row:pk>/", people.person, name="person"),
    path("shop/password/", people.password, name="password"),
    path("shop/me/", people.me, name="me"),
    path("shop/me/welcomed/", people.welcomed, name="welcomed"),
    path("shop/me/units/", people.other_units, name="other-units"),
    path("shop/<slug:shelf>/", views.equipment, name="equipment-new"),
    path("shop/<slug:shelf>/<row:pk>/", views.equipment, name="equipment"),
]
