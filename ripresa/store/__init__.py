"""Keeps and finds. Takes core values and gives core values; rows never leave this package."""
