"""Addresses of owning."""

from django.urls import path

from vinetag.apps.owning.api import acts, views

urlpatterns = [
    path("owned", views.OwnedView.as_view()),
    path("owned/facets", views.FacetsView.as_view()),
    path("owned/table", views.TableView.as_view()),
    path("owned/file", views.OwnedFileView.as_view()),
    path("owned/months", views.MonthsView.as_view()),
    path("owned/off", views.OffView.as_view()),
    path("owned/back", views.BackView.as_view()),
    path("owned/ask", acts.AskView.as_view()),
    path("owned/find", acts.FindView.as_view()),
    path("owned/take-over", acts.TakeOverView.as_view()),
    path("owned/renewing", acts.RenewingView.as_view()),
    path("owned/renew", acts.RenewView.as_view()),
    path("owned/servers", acts.ServersView.as_view()),
    path("owned/lock", acts.LockView.as_view()),
    path("owned/<int:owned_id>/moving", acts.MovingView.as_view()),
    path("owned/<int:owned_id>/move", acts.MoveView.as_view()),
    path("owned/<int:owned_id>/code", acts.CodeView.as_view()),
    path("owned/<int:owned_id>/keys", acts.KeysView.as_view()),
    path("owned/<int:owned_id>/leaving", acts.LeavingView.as_view()),
    path("owned/<int:owned_id>/let-go", acts.LetGoView.as_view()),
]
