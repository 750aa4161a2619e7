"""What the browser really plays: captured behind the last gain, and held against the reading sample by sample."""

import base64
import json
from collections.abc import Sequence
from typing import Any, NamedTuple

import numpy as np
import pytest
from numpy.typing import NDArray
from playwright.sync_api import Page, expect

from tests.e2e.server import Served
from tests.e2e.stand import set_up
from tests.web.unpacked import unpacked

#: Hands every sample that reaches the loudspeaker to the page, with the frame it was played in.
CAPTURE = """
registerProcessor("capture", class extends AudioWorkletProcessor {
  process([input]) {
    // Where nothing is connected that sounds, nothing arrives: that is silence.
    this.port.postMessage({ frame: currentFrame, samples: input[0]?.slice() ?? new Float32Array(128) });
    return true;
  }
});
"""
TAP = (
    f"const CAPTURE = {json.dumps(CAPTURE)};"
    + """
(() => {
  window.heard = [];
  const connect = AudioNode.prototype.connect;
  AudioNode.prototype.connect = function (target, ...rest) {
    if (target instanceof AudioDestinationNode && !window.rate) {
      const { context } = target;
      window.rate = context.sampleRate;
      const module = URL.createObjectURL(new Blob([CAPTURE], { type: "text/javascript" }));
      context.audioWorklet.addModule(module).then(() => {
        const node = new AudioWorkletNode(context, "capture");
        node.port.onmessage = ({ data }) => window.heard.push(data);
        connect.call(this, node);
        window.listening = true;
      });
    }
    return connect.call(this, target, ...rest);
  };
})();
"""
)
#: Keeps the main thread busy for 80 of every 120 ms.
BLOCK = """
setInterval(() => { const until = performance.now() + 80; while (performance.now() < until); }, 120);
"""
SILENCE_SECONDS = 0.002
LOUD_ENOUGH = 1e-4


#: All that was captured so far as text: numbers of frames, and the samples as bytes.
COLLECT = """
() => {
  const heard = window.heard.splice(0);
  const samples = new Float32Array(heard.reduce((sum, one) => sum + one.samples.length, 0));
  let at = 0;
  for (const one of heard) { samples.set(one.samples, at); at += one.samples.length; }
  const bytes = new Uint8Array(samples.buffer);
  let text = "";
  for (let from = 0; from < bytes.length; from += 32768)
    text += String.fromCharCode(...bytes.subarray(from, from + 32768));
  return { frames: heard.map((one) => [one.frame, one.samples.length]), samples: btoa(text), rate: window.rate };
}
"""


class Captured(NamedTuple):
    """The frames that arrived, in order, what sounded in each, and frames a second."""

    frames: NDArray[np.int64]
    sound: NDArray[np.float32]
    rate: float

    def set_ins(self) -> NDArray[np.float64]:
        """Return the frames in which sound sets in after silence."""
        loud = self.frames[np.abs(self.sound) > LOUD_ENOUGH]
        gaps = np.diff(loud, prepend=loud[0] - 10 * self.rate)
        return loud[gaps > SILENCE_SECONDS * self.rate].astype(float)


def captured(page: Page) -> Captured:
    """Return what was captured until now.

    A machine that is short of time now and then hands over a block under the number of one before it (seen: four
    blocks back); where that one belongs is not known, and it counts as lost.
    """
    found = page.evaluate(COLLECT)
    samples = np.frombuffer(base64.b64decode(found["samples"]), np.float32)
    frames, kept, at, next_frame = [], [], 0, 0
    for frame, length in found["frames"]:
        if frame >= next_frame:
            frames.append(np.arange(frame, frame + length))
            kept.append(samples[at : at + length])
            next_frame = frame + length
        at += length
    return Captured(np.concatenate(frames), np.concatenate(kept), found["rate"])


def whole(frames: NDArray[np.int64], at: int, around: float) -> bool:
    """Return whether all frames around one arrived: a machine that is short of time loses some."""
    first, last = np.searchsorted(frames, [at - around, at + around])
    return bool(last - first >= int(2 * around))


def made(page: Page, own: Served, drill: dict[str, Any], **asked: Any) -> tuple[int, Any]:
    """Keep a drill; return its number and its score in seconds, as the stand asks for it."""
    kept: Any = page.request.post(f"{own.home}/api/drills", data={"drill": drill}).json()
    body = {"drill": kept["drill"], "bpm": drill["bpm"], "before": {"count_bars": 1}, **asked}
    score = page.request.post(f"{own.home}/api/performance", data=body).json()["performance"]
    tables = {"tones": "TimedTone", "ticks": "TimedTick", "bars": "BarSpan", "said": "TimedSaid"}
    return kept["id"], {**score, **{name: unpacked(score[name], f"{row}Table") for name, row in tables.items()}}


def played(page: Page, own: Served, number: int, muted: Sequence[str], voice: str = "silent") -> None:
    """Play one pass on the stand while the main thread is busy, and capture it."""
    page.add_init_script(TAP)
    page.goto(f"{own.home}/stand/drill/{number}")
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_label("passes").select_option("1")
    with set_up(page):
        page.get_by_label("what the voice says").select_option(voice)
    for channel in muted:
        page.get_by_role("button", name=f"{channel.capitalize()} on").click()
    # Once for the capture to be there before anything sounds.
    page.get_by_role("button", name="Start").click()
    page.wait_for_function("window.listening")
    page.get_by_role("button", name="Stop").click()
    page.wait_for_function("window.heard.at(-1).samples.every((one) => Math.abs(one) < 1e-4)")
    page.evaluate("window.heard = []")
    page.evaluate(BLOCK)
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_text("pass 1 of 1")).to_be_visible()
    expect(page.get_by_text("pass 1 of 1")).to_have_count(0, timeout=60_000)


def best_offset(found: NDArray[np.float64], expected: NDArray[np.float64], within: float) -> float:
    """Return by how much most of what was found lies behind what was expected: the device may count from anywhere."""
    offsets = (found[:, None] - expected[None, :]).ravel()
    return float(max(offsets, key=lambda one: (np.abs(offsets - one) <= within).sum()))


def check_every_onset(page: Page, due: Sequence[float]) -> None:
    """Find every onset within one sample, and no other; what this machine lost of the sound is left out."""
    heard = captured(page)
    frames, found, rate = heard.frames, heard.set_ins(), heard.rate
    expected = np.array(due) * rate
    places = np.rint(expected + best_offset(found, expected, 1)).astype(int)
    seen = [at for at in places if whole(frames, at, rate * SILENCE_SECONDS)]
    assert len(seen) > 0.8 * len(due), "too much of the sound was lost by this machine"
    for at in seen:
        assert np.abs(found - at).min() <= 1, f"nothing sets in at frame {at}"
    for at in found:
        assert np.abs(places - at).min() <= 1 or not whole(frames, at, rate * SILENCE_SECONDS)


@pytest.mark.browser_context_args(bypass_csp=True)
def test_every_click_of_nested_divisions_sounds_in_its_sample(page: Page, own: Served) -> None:
    drill = {
        "title": "Nested",
        "material": {"kind": "one_note", "beats": 4},
        "legs": [{"division": division} for division in ("2", "3", "4")],
        "click": {"kind": "slots", "which": "all"},
        "bpm": "131",
    }
    number, score = made(page, own, drill)
    lead = score["lead"]["seconds"]
    played(page, own, number, ["notes"])
    check_every_onset(
        page, [tick["at"] for tick in score["lead"]["ticks"]] + [lead + tick["at"] for tick in score["ticks"]]
    )


@pytest.mark.browser_context_args(bypass_csp=True)
def test_every_note_of_nested_divisions_sounds_in_its_sample(page: Page, own: Served) -> None:
    drill = {
        "title": "Short notes, nested",
        "material": {"kind": "one_note", "beats": 4},
        "legs": [{"division": division} for division in ("1", "2", "3")],
        "articulation": "1/8",
        "bpm": "139",
    }
    number, score = made(page, own, drill)
    played(page, own, number, ["click"])
    check_every_onset(page, [tone["at"] for tone in score["tones"]])


@pytest.mark.browser_context_args(bypass_csp=True)
def test_the_vowel_of_every_spoken_word_sounds_on_its_place(page: Page, own: Served) -> None:
    drill = {
        "title": "Said aloud",
        "material": {"kind": "one_note", "beats": 4},
        "legs": [{"division": division} for division in ("1", "2", "3")],
        "bpm": "92",
    }
    number, score = made(page, own, drill, spoken={"what": "slots"})
    played(page, own, number, ["notes"], voice="slots")
    frames, sound, rate = captured(page)
    # What arrived, laid out by its frames; what was lost is silence.
    laid = np.zeros(int(frames[-1] - frames[0]) + 1)
    laid[frames - frames[0]] = sound
    # The clicks, which are known to be exact, say where the bar lines are.
    clicks = [bar["at"] + tick["at"] for bar in score["bars"] for tick in score["ticks"]]
    offset = best_offset(rises(laid, rate, (1150, 1800)), np.array(clicks) * rate, 0.005 * rate)
    vowels = rises(laid, rate, (280, 820))
    said = [one["at"] * rate + offset for one in score["said"] if one["word"] in {"1", "2", "3", "4", "&", "let"}]
    arrived = np.zeros(len(laid), bool)
    arrived[frames - frames[0]] = True
    seen = [at for at in said if arrived[int(at - 0.05 * rate) : int(at + 0.1 * rate)].all()]
    assert len(seen) > 0.5 * len(said), "too much of the sound was lost by this machine"
    off = [at for at in seen if np.abs(vowels - at).min() > 0.02 * rate]
    assert len(off) <= 0.1 * len(seen), f"{len(off)} of {len(seen)} vowels are off their places"


def rises(sound: NDArray[np.float64], rate: float, band: tuple[float, float]) -> NDArray[np.float64]:
    """Return where a sound becomes strong in a band of hertz, smoothed over 10 ms."""
    spectrum = np.fft.rfft(sound)
    hertz = np.fft.rfftfreq(len(sound), 1 / rate)
    spectrum[(hertz < band[0]) | (hertz > band[1])] = 0
    width = int(0.01 * rate)
    strength = np.convolve(np.abs(np.fft.irfft(spectrum, len(sound))), np.ones(width) / width, mode="same")
    enough = strength.max() / 4
    return np.flatnonzero((strength[1:] >= enough) & (strength[:-1] < enough)).astype(float)
