"""Addresses of watching."""

from django.urls import path

from vinetag.apps.watching.api import telling, views

urlpatterns = [
    path("watches", views.WatchesView.as_view()),
    path("projects/<int:project_id>/watches", views.StartWatchView.as_view()),
    path("watches/<int:watch_id>", views.WatchView.as_view()),
    path("watches/<int:watch_id>/names", views.WatchedNamesView.as_view()),
    path("happenings", views.HappeningsView.as_view()),
    path("happenings/read", views.ReadView.as_view()),
    path("telling", telling.TellingView.as_view()),
    path("telling/confirm", telling.ConfirmView.as_view()),
    path("feeds", telling.FeedsView.as_view()),
    path("feeds/<int:feed_id>", telling.FeedView.as_view()),
    path("feeds/<str:token>/changes.atom", telling.AtomView.as_view()),
    path("feeds/<str:token>/dates.ics", telling.CalendarView.as_view()),
]
