"""Sounds for the browser: the words that ship, and a teacher's own."""

import io

import soundfile
from flask import Response

from ripresa.formats.speaker import RATE, in_language, own_word
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
    target = io.BytesIO()
    soundfile.write(target, own_word(query.word, in_language(studio_settings().language)), RATE, format="FLAC")
    return Response(target.getvalue(), mimetype="audio/flac")
