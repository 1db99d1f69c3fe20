"""Addresses of markets."""

from django.urls import path

from vinetag.apps.market.api import views

urlpatterns = [
    path("markets", views.MarketsView.as_view()),
    path("markets/<str:code>/list", views.ListView.as_view()),
]
