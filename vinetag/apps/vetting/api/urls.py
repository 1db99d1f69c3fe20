"""Addresses of vetting."""

from django.urls import path

from vinetag.apps.vetting.api import views

urlpatterns = [
    path("projects/<int:project_id>/names/<str:label>/mistypes", views.MistypesView.as_view()),
]
