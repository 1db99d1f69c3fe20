"""Addresses of ordering."""

from django.urls import path

from vinetag.apps.ordering.api import people, placed, views

urlpatterns = [
    path("basket", views.BasketView.as_view()),
    path("basket/back", views.BasketBackView.as_view()),
    path("basket/review", views.ReviewView.as_view()),
    path("basket/file", views.BasketFileView.as_view()),
    path("basket/items/<int:item_id>", views.BasketItemView.as_view()),
    path("basket/items/<int:item_id>/agree", views.AgreeView.as_view()),
    path("contacts", people.ContactsView.as_view()),
    path("contacts/form", people.ContactFormView.as_view()),
    path("contacts/<int:contact_id>", people.ContactView.as_view()),
    path("contact-sets", people.SetsView.as_view()),
    path("contact-sets/<int:set_id>", people.SetView.as_view()),
    path("orders", placed.OrdersView.as_view()),
    path("orders/<int:order_id>", placed.OrderView.as_view()),
    path("orders/<int:order_id>/pay", placed.PayView.as_view()),
    path("orders/<int:order_id>/pay-by-credit", placed.CreditView.as_view()),
    path("orders/<int:order_id>/call-off", placed.CallOffView.as_view()),
    path("orders/<int:order_id>/carry-on", placed.CarryOnView.as_view()),
    path("orders/<int:order_id>/receipts/<slug:kind>", placed.ReceiptView.as_view()),
    path("orders/<int:order_id>/receipts/<slug:kind>/file", placed.ReceiptFileView.as_view()),
    path("payments/notice", placed.NoticeView.as_view()),
    path("projects/<int:project_id>/basket", views.BasketAddView.as_view()),
]
