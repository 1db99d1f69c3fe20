"""Addresses of shared names: the owner's, and the guests'."""

from django.urls import path

from vinetag.apps.sharing.api import guests, views

urlpatterns = [
    path("projects/<int:project_id>/shares", views.SharesView.as_view()),
    path("projects/<int:project_id>/shares/<int:share_id>", views.ShareView.as_view()),
    path("shared/<str:token>", guests.SharedView.as_view()),
    path("shared/<str:token>/join", guests.JoinView.as_view()),
    path("shared/<str:token>/vote", guests.VoteView.as_view()),
    path("shared/<str:token>/comments", guests.CommentsView.as_view()),
    path("shared/<str:token>/comments/<int:comment_id>", guests.CommentView.as_view()),
    path("shared/<str:token>/hearing", guests.HearingView.as_view()),
    path("shared/<str:token>/recall", guests.RecallView.as_view()),
]
