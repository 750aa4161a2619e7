"""Blueprints of the API: each says what its refusals look like."""

from flask_openapi import APIBlueprint

from ripresa.web.problems import Problem


def blueprint(name: str, prefix: str = "/api") -> APIBlueprint:
    """Return a blueprint for the addresses under a prefix."""
    return APIBlueprint(name, __name__, url_prefix=prefix, abp_responses={404: Problem, 409: Problem, 422: Problem})
