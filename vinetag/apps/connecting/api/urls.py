"""Addresses of connecting."""

from django.urls import path

from vinetag.apps.connecting.api import views

urlpatterns = [
    path("owned/<int:owned_id>/zone", views.ZoneView.as_view()),
    path("owned/<int:owned_id>/zone/judge", views.JudgeView.as_view()),
    path("owned/<int:owned_id>/zone/master", views.MasterView.as_view()),
    path("owned/<int:owned_id>/zone/ready", views.ReadyView.as_view()),
    path("owned/<int:owned_id>/zone/file", views.ZoneFileView.as_view()),
    path("owned/<int:owned_id>/zone/look", views.LookView.as_view()),
    path("owned/<int:owned_id>/zone/withdraw", views.WithdrawView.as_view()),
]
