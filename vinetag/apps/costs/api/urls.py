"""Addresses of what names cost."""

from django.urls import path

from vinetag.apps.costs.api import views

urlpatterns = [
    path("sellers", views.SellersView.as_view()),
    path("sellers/refresh", views.RefreshView.as_view()),
    path("projects/<int:project_id>/costs", views.CostsView.as_view()),
]
