"""Addresses of phrases."""

from django.urls import path

from vinetag.apps.phrases.api import views

ROOT = "projects/<int:project_id>/phrases"

urlpatterns = [
    path(ROOT, views.PhrasesView.as_view()),
    path(f"{ROOT}/figures", views.FiguresView.as_view()),
    path(f"{ROOT}/figures/look", views.LookView.as_view()),
    path(f"{ROOT}/figures/<int:file_id>", views.FigureFileView.as_view()),
    path(f"{ROOT}/typed", views.TypedView.as_view()),
    path(f"{ROOT}/asked", views.AskView.as_view()),
    path(f"{ROOT}/groups", views.GroupsView.as_view()),
    path(f"{ROOT}/chosen", views.ChoiceView.as_view()),
    path(f"{ROOT}/apart", views.ApartView.as_view()),
    path(f"{ROOT}/aside", views.AsideView.as_view()),
    path(f"{ROOT}/keywords", views.KeywordsView.as_view()),
    path(f"{ROOT}/head", views.HeadView.as_view()),
    path(f"{ROOT}/names", views.LaddersView.as_view()),
    path(f"{ROOT}/names/check", views.LaddersCheckView.as_view()),
    path(f"{ROOT}/file", views.PhraseExportView.as_view()),
    path(f"{ROOT}/one/<path:phrase>", views.OnePhraseView.as_view()),
]
