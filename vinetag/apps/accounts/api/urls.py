"""Addresses of the session."""

from django.urls import path

from vinetag.apps.accounts.api import preferences, views

urlpatterns = [
    path("session", views.SessionView.as_view()),
    path("session/sign-up", views.SignUpView.as_view()),
    path("session/sign-in", views.SignInView.as_view()),
    path("session/sign-out", views.SignOutView.as_view()),
    path("session/password", views.PasswordView.as_view()),
    path("session/end-all", views.EndSessionsView.as_view()),
    path("session/leave", views.LeaveView.as_view()),
    path("preferences", preferences.PreferencesView.as_view()),
    path("session/demo", views.EnterDemoView.as_view()),
]
