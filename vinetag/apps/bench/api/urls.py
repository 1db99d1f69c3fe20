"""Addresses of the bench."""

from django.urls import path

from vinetag.apps.bench.api import projects, views, wordmarks

urlpatterns = [
    path("examples", views.ExamplesView.as_view()),
    path("wordmarks", wordmarks.WordmarksView.as_view()),
    path("wordmark", wordmarks.WordmarkView.as_view()),
    path("overview", projects.OverviewView.as_view()),
    path("projects/file", projects.ImportView.as_view()),
    path("filings/<int:filing_id>", projects.FilingView.as_view()),
    path("projects/<int:project_id>/file", projects.FileView.as_view()),
    path("projects/<int:project_id>/duplicate", projects.DuplicateView.as_view()),
    path("projects/<int:project_id>/archive", projects.ArchiveView.as_view()),
    path("projects/<int:project_id>/dots", views.DotsView.as_view()),
    path("projects/<int:project_id>/names/check", views.CheckShownView.as_view()),
    path("projects/<int:project_id>/export", views.ExportView.as_view()),
    path("projects/<int:project_id>/names", views.NamesView.as_view()),
    path("projects/<int:project_id>/names/counts", views.CountsView.as_view()),
    path("projects/<int:project_id>/names/labels", views.LabelsView.as_view()),
    path("projects/<int:project_id>/funnel", views.FunnelView.as_view()),
    path("projects/<int:project_id>/names/<str:label>/near", views.NearView.as_view()),
    path("projects/<int:project_id>/names/<str:label>/fallback", views.FallbackView.as_view()),
    # Whatever is typed gets its reason, a slash in it too.
    path("projects/<int:project_id>/names/<path:label>", views.NameView.as_view()),
]
