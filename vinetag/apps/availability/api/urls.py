"""Addresses of checks, pasted names and extensions."""

from django.urls import path

from vinetag.apps.availability.api import extensions, views
from vinetag.apps.availability.api.streaming import stream_answers

urlpatterns = [
    path("projects/<int:project_id>/checks", views.ChecksView.as_view()),
    path("projects/<int:project_id>/checks/stream", stream_answers),
    path("projects/<int:project_id>/checks/<int:check_id>/stop", views.StopCheckView.as_view()),
    path("projects/<int:project_id>/checks/<int:check_id>/resume", views.ResumeCheckView.as_view()),
    path("projects/<int:project_id>/quick", views.QuickView.as_view()),
    path("projects/<int:project_id>/pasted", views.ListView.as_view()),
    path("extensions", extensions.ExtensionsView.as_view()),
    path("extensions/file", extensions.ExtensionFileView.as_view()),
    path("extensions/<str:extension>", extensions.ExtensionView.as_view()),
]
