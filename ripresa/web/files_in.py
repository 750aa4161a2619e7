"""Files as requests bring them: base64 in JSON."""

import binascii
from base64 import b64decode

from ripresa.core.errors import Unreadable


def whole_file(text: str) -> bytes:
    """Return the bytes of a file that was sent.

    Raises:
        Unreadable: It did not arrive whole.
    """
    try:
        return b64decode(text, validate=True)
    except (binascii.Error, ValueError) as error:
        raise Unreadable("This file did not arrive whole. Choose it again.", field="file") from error
