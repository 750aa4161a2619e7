import { BodyWords, VoiceWords } from "../LayerWords";
import { EnterWords } from "./EnterWords";
import { FootWords } from "./FootWords";
import { HitWords } from "./HitWords";
import type { Part } from "./part";

/** Hits, foot, body and voice, and when each is there. */
export const BODY_PARTS: Part[] = [
  {
    offer: "a layer of hits",
    clause: "accents",
    why: "Slots that are hits, full or light, whatever is accented; and how much between them is played.",
    isUsed: (drill) => drill.hits.text !== "" || drill.hits.fills.length > 0,
    start: { hits: { text: "1", fills: [], bars: 1, filled: "end", again: 0 } },
    words: (props) => <HitWords {...props} />,
  },
  {
    offer: "the foot",
    clause: "body",
    why: "Which foot, and how often it taps, or a pattern of its own.",
    isUsed: (drill) => drill.foot.which !== "none",
    start: { foot: { which: "right", every: "1", pattern: "" } },
    words: (props) => <FootWords {...props} />,
  },
  {
    offer: "the body",
    clause: "body",
    why: "A step or a sway, at a rate of its own or as a pattern.",
    isUsed: (drill) => drill.body.movement !== "none",
    start: { body: { movement: "step", every: "1", pattern: "" } },
    words: (props) => <BodyWords {...props} />,
  },
  {
    offer: "the voice",
    clause: "body",
    why: "What is said or sung while the hands play.",
    isUsed: (drill) => drill.voice !== "silent",
    start: { voice: "divisions" },
    words: (props) => <VoiceWords {...props} />,
  },
  {
    offer: "layers that enter one by one",
    clause: "body",
    why: "Foot, count, hands and movement, each from a bar of its own.",
    isUsed: (drill) => Object.values(drill.enters).some((bar) => bar > 1),
    start: { tool: "one_by_one" },
    words: (props) => <EnterWords {...props} />,
  },
];
