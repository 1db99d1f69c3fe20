"""Vine Tag: make, grade, check and shortlist domain names."""
