"""Addresses of the hunt."""

from django.urls import path

from vinetag.apps.hunting.api import views

urlpatterns = [
    path("projects/<int:project_id>/hunt", views.HuntView.as_view()),
    path("projects/<int:project_id>/prices", views.LengthPricesView.as_view()),
    path("scarcity", views.ScarcityView.as_view()),
    path("projects/<int:project_id>/short", views.ShortNamesView.as_view()),
    path("projects/<int:project_id>/hunt/counts", views.HuntCountsView.as_view()),
]
