import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";

import { moved, whole, zoomed, type View } from "./view";

/** step is how much nearer one press comes, and by what share of what is seen one press of an arrow moves. */
const step = { nearer: 1.4, aside: 0.2 };

const arrows: Record<string, [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

/**
 * usePanZoom looks at a part of a drawing of a size: by wheel, by one finger or the mouse to the side, by two fingers nearer, by keys. It
 * opens whole.
 */
export function usePanZoom(w: number, h: number) {
  const of = whole(w, h);
  const [chosen, setView] = useState<View | null>(null);
  const frame = useRef<HTMLDivElement>(null);
  const fingers = useRef(new Map<number, { x: number; y: number }>());
  const dragged = useRef(false);
  const view = chosen && chosen.x + chosen.w <= w && chosen.y + chosen.h <= h ? chosen : of;
  /** at is a point of the window on the drawing. */
  const at = (x: number, y: number) => {
    const box = frame.current?.querySelector("svg")?.getBoundingClientRect();
    return box ? { x: view.x + ((x - box.left) / box.width) * view.w, y: view.y + ((y - box.top) / box.height) * view.h } : { x: view.x, y: view.y };
  };
  const wheel = useRef<(e: WheelEvent) => void>(() => undefined);
  useEffect(() => {
    wheel.current = (e) => {
      const inIt = frame.current?.contains(document.activeElement);
      if (!e.ctrlKey && !inIt) return; // the page goes on scrolling until one has come in
      e.preventDefault();
      setView(zoomed(view, of, e.deltaY < 0 ? 1.15 : 1 / 1.15, at(e.clientX, e.clientY)));
    };
  });
  useEffect(() => {
    const to = frame.current;
    const on = (e: WheelEvent) => wheel.current(e);
    to?.addEventListener("wheel", on, { passive: false });
    return () => to?.removeEventListener("wheel", on);
  }, []);

  const onPointerDown = (e: PointerEvent) => {
    fingers.current.set(e.pointerId, { x: e.clientX, y: e.clientY });
    dragged.current = false;
  };
  const onPointerMove = (e: PointerEvent) => {
    const was = fingers.current.get(e.pointerId);
    if (!was) return;
    const now = { x: e.clientX, y: e.clientY };
    const other = [...fingers.current].find(([id]) => id !== e.pointerId)?.[1];
    const box = frame.current?.querySelector("svg")?.getBoundingClientRect();
    if (!box || Math.hypot(now.x - was.x, now.y - was.y) < (dragged.current ? 0 : 4)) return;
    dragged.current = true;
    if (other) {
      const apart = (p: { x: number; y: number }) => Math.max(1, Math.hypot(p.x - other.x, p.y - other.y));
      setView(zoomed(view, of, apart(now) / apart(was), at((now.x + other.x) / 2, (now.y + other.y) / 2)));
    } else {
      setView(moved(view, of, ((was.x - now.x) / box.width) * view.w, ((was.y - now.y) / box.height) * view.h));
    }
    fingers.current.set(e.pointerId, now);
  };
  const lift = (e: PointerEvent) => fingers.current.delete(e.pointerId);
  const onKeyDown = (e: KeyboardEvent) => {
    const arrow = arrows[e.key];
    if (arrow) setView(moved(view, of, arrow[0] * view.w * step.aside, arrow[1] * view.h * step.aside));
    else if (e.key === "+" || e.key === "=") nearer();
    else if (e.key === "-") further();
    else return;
    e.preventDefault();
    e.stopPropagation(); // the digits and letters of the sheet go on
  };
  const nearer = () => setView(zoomed(view, of, step.nearer));
  const further = () => setView(zoomed(view, of, 1 / step.nearer));
  return {
    view,
    of,
    nearer,
    further,
    all: () => setView(null),
    /** hasDragged says whether the finger that was just lifted had moved the drawing: then nothing is picked. */
    hasDragged: () => dragged.current,
    frame: { ref: frame, onPointerDown, onPointerMove, onPointerUp: lift, onPointerCancel: lift, onPointerLeave: lift, onKeyDown },
  };
}
