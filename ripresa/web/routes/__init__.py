"""The addresses under ``/api``, one module for each subject."""

from ripresa.web.routes import (
    choices,
    climbs,
    desk,
    drills,
    groups,
    log,
    play_along,
    readings,
    scores,
    settings,
    shelf,
    sounds,
    students,
    sums,
    takes,
    tools,
)

ALL = (
    choices.api,
    students.api,
    groups.api,
    drills.api,
    shelf.api,
    readings.api,
    play_along.api,
    sounds.api,
    tools.api,
    scores.api,
    climbs.api,
    takes.api,
    desk.api,
    log.api,
    sums.api,
    settings.api,
)
