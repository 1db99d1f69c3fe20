"""Addresses of vetting."""

from django.urls import path

from vinetag.apps.vetting.api import mistypes, registers, views

urlpatterns = [
    path("projects/<int:project_id>/names/<str:label>/mistypes", mistypes.MistypesView.as_view()),
    path("projects/<int:project_id>/names/<str:label>/vetting", views.VettedNameView.as_view()),
    path(
        "projects/<int:project_id>/names/<str:label>/vetting/<str:kind>",
        views.AcceptanceView.as_view(),
    ),
    path("projects/<int:project_id>/vetting", views.ReportView.as_view()),
    path("projects/<int:project_id>/vetting/file", views.ReportFileView.as_view()),
    path("projects/<int:project_id>/vetting/<int:vetting_id>/stop", views.StopView.as_view()),
    path("projects/<int:project_id>/vetting/<int:vetting_id>/resume", views.ResumeView.as_view()),
    path("marks", registers.RegistersView.as_view()),
    path("platforms", registers.PlatformsView.as_view()),
]
