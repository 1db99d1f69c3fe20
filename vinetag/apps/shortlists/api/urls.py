"""Addresses of the shortlist."""

from django.urls import path

from vinetag.apps.shortlists.api import views

urlpatterns = [
    path("projects/<int:project_id>/shortlist", views.ShortlistView.as_view()),
    path("projects/<int:project_id>/shortlist.csv", views.ExportView.as_view()),
    path("projects/<int:project_id>/shortlist/order", views.OrderView.as_view()),
    path("projects/<int:project_id>/shortlist/names/<str:label>", views.EntryView.as_view()),
]
