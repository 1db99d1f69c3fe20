"""Addresses of checks."""

from django.urls import path

from vinetag.apps.availability.api import views

urlpatterns = [
    path("projects/<int:project_id>/checks", views.ChecksView.as_view()),
    path("projects/<int:project_id>/checks/<int:check_id>/stop", views.StopCheckView.as_view()),
]
