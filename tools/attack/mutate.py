"""Good requests, and what becomes of them when something in them is turned over."""

import copy
from random import Random
from typing import Any

#: What nobody means, in the place of any value.
HOSTILE: tuple[Any, ...] = (
    *(None, True, False, "", " ", "\0", "\ud800", "x" * 300, "9" * 5000, "=1+1", "²", "½", "1/0", "0/1", "-1", "1e999"),
    *(0, -1, 1, 2, 2**31, 2**53, 2**63, 2**64, -(2**63), 10**30, 0.1, 1e308, -1e308, 1e-300),
    *(float("nan"), float("inf"), [], [[]], {}, {"kind": "none"}, {"kind": "nothing"}, [None] * 50, "1000/999999999"),
    *("2026-13-45T99:99", "0001-01-01T00:00:00", "9999-12-31T23:59:59+00:00", "♩", "音" * 90),
)

PLAN: dict[str, Any] = {
    "start": "84",
    "target": {"kind": "speed", "nps": "9", "division": "4"},
    "rule": {"kind": "percent", "step": "4"},
    "clicks": [{"kind": "named", "plan": "every_beat"}, {"kind": "thinned", "every": "2"}],
    "click_order": "each_tempo",
}
PRACTICE: dict[str, Any] = {"start": "2026-05-04", "minutes": 20, "days_a_week": 5, "weeks": 6, "off": ["sunday"]}
TAKE: dict[str, Any] = {
    "id": "attack-0001",
    "student_id": 1,
    "climb_id": 1,
    "rung": 1,
    "drill_id": 1,
    "version": 1,
    "bpm": "84",
    "click": {"kind": "named", "plan": "every_beat"},
    "source": "taps",
    "played_at": "2026-05-06T15:00:00+00:00",
    "start": 0.0,
    "end": 12.0,
    "latency_ms": 12.5,
    "is_calibrated": True,
    "onsets": [0.36 * number for number in range(33)],
    "note": "easy",
}


def requests(drills: list[Any], version: int) -> list[tuple[str, str, Any]]:
    """Return (method, address, body) of good requests for every address that takes a body or words.

    Args:
        drills: Drills in plain values. version: Of the drill 1.
    """
    performance = {
        "before": {"listen_bars": 1, "say_bars": 1, "count_bars": 1, "count_beats": 1, "count_words": "ready go"},
        "spoken": {"what": "slots", "words": "count"},
        "pulse": {"sound": "none"},
        "backing": ["bass", "drums"],
        "loop": {"kind": "bars", "first": 1, "last": 1},
        "turns": 1,
        "slow": "3/4",
    }
    found: list[tuple[str, str, Any]] = [
        ("POST", "/api/students", {"details": {"name": "Ada", "lesson_weekday": 2, "lesson_time": "15:30"}}),
        ("PUT", "/api/students/1", {"details": {"name": "Ada"}, "based_on": 1}),
        ("PUT", "/api/students/1/clicks", {"clicks": PLAN["clicks"], "based_on": 1}),
        ("POST", "/api/climbs", {"student_id": 1, "drill_id": 1, "plan": PLAN}),
        ("POST", "/api/climbs/ladder", {"drill_id": 1, "version": 1, "plan": PLAN}),
        ("POST", "/api/climbs/1/moves", {"decision": "stay", "from_rung": 1, "take_id": TAKE["id"], "reason": "why"}),
        (
            "PUT",
            "/api/climbs/1/clicks",
            {"clicks": PLAN["clicks"], "click_order": "at_target", "from_rung": 1, "based_on": 1},
        ),
        ("POST", "/api/takes", TAKE),
        ("POST", "/api/takes", {**TAKE, "source": "by_ear", "ear": "clean"}),
        ("PUT", "/api/takes/attack-0001/note", {"note": "wrist"}),
        ("POST", "/api/latency", {"due": [float(n) for n in range(9)], "played": [n + 0.03 for n in range(9)]}),
        ("POST", "/api/tempo/tapped", {"taps": [0.5 * number for number in range(9)]}),
        ("GET", "/api/sums?bpm=108&division=4&nps=8&size=5&meter=4/4&beats=14&click=two_and_four", None),
        ("GET", "/api/amount?text=84%C2%BD&what=bpm", None),
        ("GET", "/api/drills/1?version=1", None),
        ("GET", "/api/drills/1/file.mid?bpm=90&version=1", None),
        ("GET", "/api/drills/1/file.musicxml?bpm=90", None),
        ("GET", "/api/log?student_id=1", None),
        ("GET", "/api/log?student_id=1&since=2026-05-06", None),
        ("GET", "/api/students/1/calendar.ics", None),
        ("GET", "/api/students/1/recap", None),
        ("PUT", "/api/students/1/plan", {"plan": PRACTICE, "based_on": 1}),
        ("POST", "/api/groups", {"details": {"name": "Duo", "lesson_weekday": 2, "lesson_time": "15:30"}}),
        ("PUT", "/api/setups", {"source": "microphone", "device": "Room", "way": "device", "ms": 43.2, "half": 1.4}),
        ("PUT", "/api/settings", {"settings": {"most_more": 10, "language": "en-us"}}),
        ("POST", "/api/recordings/sound-0001/listen", {"rate": 24000, "drill": {}, "bpm": "84"}),
        ("DELETE", "/api/recordings?student_id=1", None),
        ("GET", "/api/practice-file.json?climb=1", None),
        ("GET", "/api/log.csv?student_id=1", None),
        ("GET", "/api/takes?student_id=1&climb_id=1&most=50", None),
        ("GET", "/api/climbs?student_id=1", None),
        ("GET", "/api/words/own.flac?word=bim", None),
    ]
    for drill in drills:
        found += [
            ("POST", "/api/drills", {"drill": drill}),
            ("PUT", "/api/drills/1", {"drill": drill, "based_on": version, "writer": "attack-page"}),
            ("POST", "/api/reading", {"drill": drill, "bpm": "90"}),
            ("POST", "/api/performance", {"drill": drill, **performance}),
            ("POST", "/api/stand-in", {"drill": drill, "bpm": "90", "end": 20.0, "player": {"spread_ms": 9}}),
            ("POST", "/api/tool", {"drill": drill, "tool": "double", "bar": 1, "beat": 1, "count": 1, "event": 0}),
            ("POST", "/api/tool", {"drill": drill, "tool": "press", "event": 3}),
        ]
    return found


#: The same for a number or a word of an address.
_ODD = (
    "0",
    "-1",
    "9" * 25,
    str(2**63),
    "1e9",
    "%00",
    "%ED%A0%80",
    "%F0%9F%8E%B5",
    "..%2f..",
    "",
    "1/0",
    "nan",
    "x" * 3000,
)


def mutated(address: str, body: Any, random: Random) -> tuple[str, Any]:
    """Return a request in which one to three things are no longer what anybody means."""
    for _ in range(random.randint(1, 3)):
        if body is None or random.random() < 0.1:
            address = _address(address, random)
        else:
            body = _value(copy.deepcopy(body), random)
    return address, body


def _value(value: Any, random: Random) -> Any:
    if random.random() < 0.15 or not isinstance(value, dict | list) or not value:
        return random.choice(HOSTILE)
    if isinstance(value, list):
        at = random.randrange(len(value))
        match random.randrange(4):
            case 0:
                value.append(random.choice(HOSTILE))
            case 1:
                del value[at]
            case 2 if len(value) < 100:
                value *= random.choice((2, 30))
            case _:
                value[at] = _value(value[at], random)
        return value
    key = random.choice(list(value))
    match random.randrange(5):
        case 0:
            del value[key]
        case 1:
            value[random.choice(("extra", "\udfff", "kind", "", "__proto__"))] = random.choice(HOSTILE)
        case _:
            value[key] = _value(value[key], random)
    return value


def _address(address: str, random: Random) -> str:
    """Return an address one of whose numbers or words is another one."""
    path, mark, query = address.partition("?")
    parts = path.split("/")
    words = query.split("&") if query else []
    places = [index for index, part in enumerate(parts) if part.isdigit() or "-" in part]
    if words and (not places or random.random() < 0.7):
        at = random.randrange(len(words))
        words[at] = f"{words[at].partition('=')[0]}={random.choice(_ODD)}"
    elif places:
        parts[random.choice(places)] = random.choice(_ODD)
    # Only what a request line can carry: the rest a client has to write in per cents.
    return ("/".join(parts) + mark + "&".join(words)).encode("ascii", "ignore").decode()
