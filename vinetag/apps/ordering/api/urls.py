"""Addresses of the basket."""

from django.urls import path

from vinetag.apps.ordering.api import views

urlpatterns = [
    path("basket", views.BasketView.as_view()),
    path("basket/back", views.BasketBackView.as_view()),
    path("basket/review", views.ReviewView.as_view()),
    path("basket/file", views.BasketFileView.as_view()),
    path("basket/items/<int:item_id>", views.BasketItemView.as_view()),
    path("basket/items/<int:item_id>/agree", views.AgreeView.as_view()),
    path("projects/<int:project_id>/basket", views.BasketAddView.as_view()),
]
