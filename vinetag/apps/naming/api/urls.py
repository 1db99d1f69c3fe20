"""Addresses of projects."""

from django.urls import path

from vinetag.apps.naming.api import concepts, views, world_views

urlpatterns = [
    path("vocabulary", views.VocabularyView.as_view()),
    path("concepts", concepts.ConceptsView.as_view()),
    path("projects", views.ProjectsView.as_view()),
    path("projects/<int:project_id>", views.ProjectView.as_view()),
    path("projects/<int:project_id>/restore", views.RestoreProjectView.as_view()),
    path("projects/<int:project_id>/views", views.ViewsView.as_view()),
    path("projects/<int:project_id>/world", world_views.WorldView.as_view()),
    path("fields", world_views.FieldsView.as_view()),
    path("worlds", world_views.KeptWorldsView.as_view()),
    path("worlds/<int:world_id>", world_views.KeptWorldView.as_view()),
    path("projects/<int:project_id>/words", views.WordsView.as_view()),
    path("projects/<int:project_id>/more", views.MoreView.as_view()),
    path("projects/<int:project_id>/dismissed", views.DismissedView.as_view()),
    path("projects/<int:project_id>/dismissed/back", views.BringBackView.as_view()),
    path("projects/<int:project_id>/looks", views.LooksView.as_view()),
]
