"""What the browser really plays: captured behind the last gain, and held against the reading sample by sample."""

import json
from typing import Any

import numpy as np
import pytest
from numpy.typing import NDArray
from playwright.sync_api import Page, expect

from tests.e2e.server import Server

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


def captured(page: Page) -> tuple[NDArray[np.int64], NDArray[np.int64], float]:
    """Return the frames that arrived, those in which sound sets in after silence, and the sample rate."""
    heard = page.evaluate("window.heard.map(({ frame, samples }) => [frame, Array.from(samples)])")
    rate: float = page.evaluate("window.rate")
    frames = np.concatenate([np.arange(frame, frame + len(samples)) for frame, samples in heard])
    loud = frames[np.abs(np.concatenate([samples for _, samples in heard])) > LOUD_ENOUGH]
    gaps = np.diff(loud, prepend=loud[0] - 10 * rate)
    return frames, loud[gaps > SILENCE_SECONDS * rate], rate


def whole(frames: NDArray[np.int64], at: int, around: float) -> bool:
    """Return whether all frames around one arrived: a machine that is short of time loses some."""
    first, last = np.searchsorted(frames, [at - around, at + around])
    return bool(last - first >= int(2 * around))


@pytest.mark.browser_context_args(bypass_csp=True)
@pytest.mark.parametrize("bpm", ["108", "150"])
def test_every_click_of_nested_divisions_sounds_in_its_sample(page: Page, demo: Server, bpm: str) -> None:
    drill = {
        "title": f"Nested at {bpm}",
        "material": {"kind": "one_note", "beats": 4},
        "legs": [{"division": division} for division in ("2", "3", "4")],
        "click": {"kind": "slots", "which": "all"},
        "bpm": bpm,
    }
    kept: Any = page.request.post(f"{demo.home}/api/drills", data={"drill": drill}).json()
    body = {"drill": kept["drill"], "bpm": bpm, "listen_bars": 0, "count_bars": 1}
    score: Any = page.request.post(f"{demo.home}/api/performance", data=body).json()["performance"]
    lead = score["lead"]["seconds"]
    due = [tick["at"] for tick in score["lead"]["ticks"]] + [lead + tick["at"] for tick in score["ticks"]]
    page.add_init_script(TAP)
    page.goto(f"{demo.home}/stand/drill/{kept['id']}")
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_label("passes").select_option("1")
    page.get_by_role("button", name="Mute the notes").click()
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
    frames, found, rate = captured(page)
    expected = np.array(due) * rate
    # The device may start its count anywhere, and the limiter is late by the same for all: one offset is free.
    offsets = (found[:, None] - expected[None, :]).ravel()
    offset = max(offsets, key=lambda one: (np.abs(offsets - one) <= 1).sum())
    places = np.rint(expected + offset).astype(int)
    seen = [at for at in places if whole(frames, at, rate * SILENCE_SECONDS)]
    assert len(seen) > 0.8 * len(due), "too much of the sound was lost by this machine"
    for at in seen:
        assert np.abs(found - at).min() <= 1, f"nothing sets in at frame {at}"
    for at in found:
        assert np.abs(places - at).min() <= 1 or not whole(frames, at, rate * SILENCE_SECONDS)
