import { useEffect, useRef, useState } from "react";
import { DeadWatch } from "./deadWatch";

const LEVEL_MS = 100;
const SILENT_DB = -90;
const SOFT_DB = -45;
const LOUD_DB = -1;

const REFUSED =
  "The browser does not let the microphone in. Allow it beside the address of this page, then choose it again.";
const NONE = "No microphone was found. Connect one, or take the stand-in.";
const SILENT =
  "The microphone fell silent: it gives nothing at all. Look at its switch and its cable. The bars until then are kept.";
/** How long a microphone may give nothing at all. */
const DEAD_MS = 2000;
const GONE = "The microphone went away. The bars until then are kept. Connect it, then choose it again.";

/** What the microphone gives: as it is, with nothing taken out of it. */
const RAW = { echoCancellation: false, noiseSuppression: false, autoGainControl: false };

/**
 * The microphone: asked for only while it is chosen, with its level before a take; `onGone` where it is unplugged.
 */
export function useMicrophone(chosen: boolean, device: string, onGone: (sentence: string) => void) {
  const [devices, setDevices] = useState<string[]>([]);
  const [level, setLevel] = useState<number | null>(null);
  const [problem, setProblem] = useState("");
  const stream = useRef<MediaStream | null>(null);
  const gone = useRef(onGone);
  gone.current = onGone;

  useEffect(() => {
    if (!chosen) return;
    let isOver = false;
    let context: AudioContext | null = null;
    let timer = 0;
    const list = async () => {
      const found = await navigator.mediaDevices.enumerateDevices();
      const heard = found.filter((one) => one.kind === "audioinput" && one.label);
      if (!isOver) setDevices([...new Set(heard.map((one) => one.label))]);
      return heard;
    };
    const open = async () => {
      const known = device ? (await list()).find((one) => one.label === device) : undefined;
      const opened = await navigator.mediaDevices.getUserMedia({
        audio: known ? { ...RAW, deviceId: { exact: known.deviceId } } : RAW,
      });
      if (isOver) {
        for (const track of opened.getTracks()) track.stop();
        return;
      }
      stream.current = opened;
      setProblem("");
      for (const track of opened.getTracks())
        track.onended = () => {
          stream.current = null;
          setProblem(GONE);
          gone.current(GONE);
        };
      await list();
      context = new AudioContext();
      const meter = new AnalyserNode(context, { fftSize: 2048 });
      context.createMediaStreamSource(opened).connect(meter);
      const samples = new Float32Array(meter.fftSize);
      const watch = new DeadWatch(DEAD_MS / LEVEL_MS);
      timer = window.setInterval(() => {
        meter.getFloatTimeDomainData(samples);
        const peak = samples.reduce((most, one) => Math.max(most, Math.abs(one)), 0);
        const was = watch.isDead;
        if (watch.look(peak) !== was) {
          setProblem(was ? "" : SILENT);
          if (!was) gone.current(SILENT);
        }
        setLevel(peak > 0 ? Math.max(SILENT_DB, Math.round(20 * Math.log10(peak))) : SILENT_DB);
      }, LEVEL_MS);
    };
    open().catch((error: DOMException) => {
      if (!isOver) setProblem(error.name === "NotAllowedError" ? REFUSED : NONE);
    });
    const changed = () => void list();
    navigator.mediaDevices?.addEventListener("devicechange", changed);
    return () => {
      isOver = true;
      window.clearInterval(timer);
      navigator.mediaDevices?.removeEventListener("devicechange", changed);
      void context?.close();
      for (const track of stream.current?.getTracks() ?? []) {
        track.onended = null;
        track.stop();
      }
      stream.current = null;
      setLevel(null);
      setProblem("");
    };
  }, [chosen, device]);

  return { devices, level, problem, stream };
}

/** What is said of a level before a take. */
export function levelWords(db: number): string {
  if (db <= SILENT_DB) return "nothing is heard";
  if (db >= LOUD_DB) return "too loud: move away, or turn the level down";
  return db < SOFT_DB ? "soft: play a note, and move nearer if it stays so" : "heard well";
}
