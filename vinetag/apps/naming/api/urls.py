"""Addresses of projects."""

from django.urls import path

from vinetag.apps.naming.api import views

urlpatterns = [
    path("extensions", views.CatalogueView.as_view()),
    path("projects", views.ProjectsView.as_view()),
    path("projects/<int:project_id>", views.ProjectView.as_view()),
    path("projects/<int:project_id>/restore", views.RestoreProjectView.as_view()),
]
