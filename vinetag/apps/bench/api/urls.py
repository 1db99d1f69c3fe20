"""Addresses of the bench."""

from django.urls import path

from vinetag.apps.bench.api import views

urlpatterns = [
    path("measures", views.WeighingView.as_view()),
    path("projects/<int:project_id>/dots", views.DotsView.as_view()),
    path("projects/<int:project_id>/names", views.NamesView.as_view()),
    path("projects/<int:project_id>/funnel", views.FunnelView.as_view()),
    path("projects/<int:project_id>/names/<str:label>", views.NameView.as_view()),
    path("projects/<int:project_id>/names/<str:label>/near", views.NearView.as_view()),
]
