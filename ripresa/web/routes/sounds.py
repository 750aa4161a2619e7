"""Sounds for the browser: the words that ship, and a teacher's own."""

from flask import Response

from ripresa.formats.speaker import in_language, own_flac
from ripresa.formats.words import SOUND
from ripresa.store.settings import studio_settings
from ripresa.web.blueprint import blueprint
from ripresa.web.query import Query

api = blueprint("sounds", "/api/words")


class WordQuery(Query):
    """A word to be spoken."""

    word: str


@api.get("/all.flac")
def all_words() -> Response:
    """The words that ship, one after the other."""
    return Response(SOUND.read_bytes(), mimetype="audio/flac")


@api.get("/own.flac")
def say_own(query: WordQuery) -> Response:
    """A word of the teacher's own, made by the synthesiser of this computer."""
    return Response(own_flac(query.word, in_language(studio_settings().language)), mimetype="audio/flac")
