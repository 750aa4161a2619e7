import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type Ref, useEffect, useImperativeHandle, useRef } from "react";
import type { Drill, Part } from "../../api/client";
import { writtenQuery } from "../../api/queries";
import { useSlow } from "../Loading";
import { Problem } from "../Problem";
import { useLastGood } from "../useLastGood";
import { useSettled } from "../useSettled";
import { useWidth } from "../useWidth";

export type WrittenHandle = {
  /** Light the notes of these events; whatever was lit goes out. */
  light: (events: readonly number[]) => void;
};

/** Widths are asked for in steps, so that a window that is drawn larger does not engrave at each pixel. */
const STEP = 60;
/** A bar of sixteenths with its count needs so many pixels; on a phone it is gone through sideways. */
const NARROWEST = 540;
const SETTLE = 250;

type Props = {
  drill: Drill;
  part?: Part | undefined;
  form: "notes" | "tab" | "both";
  ref?: Ref<WrittenHandle> | undefined;
};

/** The notation of a drill as the server engraved it. */
export function Engraved({ drill, part, form, ref }: Props) {
  const [box, width] = useWidth<HTMLDivElement>();
  const page = useRef<HTMLElement>(null);
  const lit = useRef<Element[]>([]);
  const steady = useSettled(drill, SETTLE);
  const wide = Math.min(2400, Math.max(NARROWEST, Math.floor(width / STEP) * STEP));
  const asked = useQuery({
    ...writtenQuery({ drill: steady, form, width: wide, ...(part ? { part } : {}) }),
    placeholderData: keepPreviousData,
    enabled: width > 0,
  });
  const shown = useLastGood(asked.data);
  const slow = useSlow(asked.isFetching);

  useEffect(() => {
    if (!page.current || !shown) return;
    const drawn = new DOMParser().parseFromString(shown.picture, "image/svg+xml").documentElement;
    drawn.setAttribute("aria-hidden", "true");
    page.current.replaceChildren(drawn);
    lit.current = [];
  }, [shown]);

  useImperativeHandle(ref, () => ({
    light: (events) => {
      for (const node of lit.current) node.classList.remove("note-lit");
      lit.current = events.flatMap((event) => {
        const drawn = shown?.drawn_as[event] ?? event;
        return [...(page.current?.querySelectorAll(`[id^="e${drawn}-"]`) ?? [])];
      });
      for (const node of lit.current) node.classList.add("note-lit");
      keepInSight(page.current, lit.current[0]);
    },
  }));

  return (
    <div className="card-plain mt-1">
      <div ref={box} />
      {asked.isError && <Problem error={asked.error} />}
      {slow && (
        <p role="status" className="text-soft">
          Engraving …
        </p>
      )}
      <section
        ref={page}
        className="engraved overflow-auto max-h-130"
        aria-label="The notation"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls has to be reached from the keyboard
        tabIndex={0}
      />
      <p className="sr-only">{shown?.words}</p>
    </div>
  );
}

/** Turn the page of notation that is taller than its box once the note that sounds has left it. */
function keepInSight(page: HTMLElement | null, note: Element | undefined): void {
  if (!page || !note || page.scrollHeight <= page.clientHeight) return;
  const [inside, box] = [note.getBoundingClientRect(), page.getBoundingClientRect()];
  if (inside.top < box.top + 20 || inside.bottom > box.bottom - 20)
    page.scrollTop += inside.top - box.top - box.height / 4;
}
