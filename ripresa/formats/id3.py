"""Tags of an MP3: ID3v2.3, as its standard describes it, in an encoding that holds every script.

Our own: the library that writes the sound puts what is not Latin into a tag for Latin letters.
"""

_UTF_16 = 1
#: Frames (ID3v2.3, 4.2): title, who performs, which of a set.
_TITLE, _ARTIST, _TRACK, _COMMENT = b"TIT2", b"TPE1", b"TRCK", b"COMM"


def id3(title: str = "", artist: str = "", track: str = "", comment: str = "") -> bytes:
    """Return a tag to stand before the sound of an MP3; empty where nothing is said."""
    texts = ((_TITLE, title), (_ARTIST, artist), (_TRACK, track))
    frames = b"".join(_frame(name, _text(said)) for name, said in texts if said)
    if comment:
        # A comment has a language and a short name of its own, which stays empty.
        frames += _frame(_COMMENT, bytes([_UTF_16]) + b"eng" + "\ufeff\0".encode("utf-16-le") + _wide(comment))
    return b"ID3\x03\x00\x00" + _synchsafe(len(frames)) + frames if frames else b""


def _frame(name: bytes, body: bytes) -> bytes:
    return name + len(body).to_bytes(4) + b"\0\0" + body


def _text(said: str) -> bytes:
    return bytes([_UTF_16]) + _wide(said)


def _wide(said: str) -> bytes:
    return f"\ufeff{said}".encode("utf-16-le")


def _synchsafe(size: int) -> bytes:
    """Return a size as seven bits a byte, so that it cannot be taken for the beginning of sound.

    >>> _synchsafe(257)
    b'\\x00\\x00\\x02\\x01'
    """
    return bytes(size >> shift & 0x7F for shift in (21, 14, 7, 0))
