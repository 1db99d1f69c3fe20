"""Addresses of the shortlist."""

from django.urls import path

from vinetag.apps.shortlists.api import duels, views

urlpatterns = [
    path("projects/<int:project_id>/shortlist", views.ShortlistView.as_view()),
    path("projects/<int:project_id>/shortlist/file", views.ExportView.as_view()),
    path("projects/<int:project_id>/duels", duels.DuelsView.as_view()),
    path("projects/<int:project_id>/duels/back", duels.TakeBackView.as_view()),
    path("projects/<int:project_id>/duels/order", duels.DuelOrderView.as_view()),
    path("projects/<int:project_id>/shortlist/off", views.UnkeepView.as_view()),
    path("projects/<int:project_id>/shortlist/order", views.OrderView.as_view()),
    path("projects/<int:project_id>/shortlist/names/<str:label>", views.EntryView.as_view()),
]
