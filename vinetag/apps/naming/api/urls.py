"""Addresses of projects."""

from django.urls import path

from vinetag.apps.naming.api import views

urlpatterns = [
    path("catalogue", views.CatalogueView.as_view()),
    path("projects", views.ProjectsView.as_view()),
    path("projects/<int:project_id>", views.ProjectView.as_view()),
    path("projects/<int:project_id>/restore", views.RestoreProjectView.as_view()),
    path("projects/<int:project_id>/views", views.ViewsView.as_view()),
    path("projects/<int:project_id>/words", views.WordsView.as_view()),
    path("projects/<int:project_id>/more", views.MoreView.as_view()),
    path("projects/<int:project_id>/dismissed", views.DismissedView.as_view()),
    path("projects/<int:project_id>/dismissed/back", views.BringBackView.as_view()),
    path("projects/<int:project_id>/looks", views.LooksView.as_view()),
]
