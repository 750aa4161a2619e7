"""JSON as it comes in: whole text, nested no deeper than can be read, or refused with a sentence."""

import json
from typing import Any

from flask.json.provider import DefaultJSONProvider

from ripresa.core.errors import Unreadable


class JsonIn(DefaultJSONProvider):
    """Reads the bodies of requests."""

    def loads(self, s: str | bytes, **kwargs: Any) -> Any:
        """Return the values of a text.

        Raises:
            Unreadable: It is not JSON, is nested too deep, or holds half a sign, which nothing can keep.
        """
        try:
            found = json.loads(s, **kwargs)
            escaped = b"\\u" in s if isinstance(s, bytes) else "\\u" in s
            if escaped:
                # Halves of signs can only come as escapes; a pair of them is a whole one by now.
                json.dumps(found, ensure_ascii=False).encode()
        except UnicodeEncodeError as error:
            raise Unreadable("A text that was sent holds half a sign. Write it again.") from error
        except RecursionError as error:
            raise Unreadable("What was sent is nested too deep to be read.") from error
        except ValueError as error:
            where = f" at line {error.lineno}, column {error.colno}" if isinstance(error, json.JSONDecodeError) else ""
            raise Unreadable(f"What was sent is not JSON{where}.") from error
        return found
