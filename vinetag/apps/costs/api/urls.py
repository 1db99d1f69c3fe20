"""Addresses of what names cost."""

from django.urls import path

from vinetag.apps.costs.api import proposals, sellers, views

urlpatterns = [
    path("sellers", sellers.SellersView.as_view()),
    path("sellers/refresh", sellers.RefreshView.as_view()),
    path("sellers/<slug:code>", sellers.SellerView.as_view()),
    path("sellers/<slug:code>/follow", sellers.FollowView.as_view()),
    path("sellers/<slug:code>/prices", sellers.PriceListView.as_view()),
    path("sellers/<slug:code>/coupons", sellers.CouponListView.as_view()),
    path("sellers/<slug:code>/held-coupons", sellers.HeldCouponsView.as_view()),
    path("coupons/reports", views.ReportView.as_view()),
    path("proposals", proposals.ProposalsView.as_view()),
    path("rates", sellers.RatesView.as_view()),
    path("projects/<int:project_id>/costs", views.CostsView.as_view()),
    path("projects/<int:project_id>/costs/file", views.CostsFileView.as_view()),
]
