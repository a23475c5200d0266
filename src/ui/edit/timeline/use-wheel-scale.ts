'use client';
import { useEffect, useLayoutEffect, useRef, type RefObject } from 'react';
import { playheadOf, useEditor, useEditorStore } from '../store';
import { HEADER_WIDTH, SCALES, toPixels, toTime } from './geometry';

/** A notch of a usual wheel, 100 px, changes the scale by a fifth. */
const NOTCH = { pixels: 100, factor: 1.2 } as const;
const LINE_PX = 40;
/** After so long without a turn the timeline is drawn at its new scale, in milliseconds. */
const RESTS_MS = 90;
/** What is drawn is stretched so much: beyond it letters and edges tell, and it is drawn anew. */
const STRETCHED = { least: 0.6, most: 2.5 } as const;
/**
 * But not more often than this, in milliseconds: a wheel that turns faster than a hand's twelve
 * notches a second would have nearly each picture wait for a drawing that the next one leaves.
 */
const DRAWN_EVERY_MS = 160;

const within = (scale: number) => Math.min(SCALES.most, Math.max(SCALES.least, scale));

/**
 * The wheel with Ctrl changes the timeline's scale; the instant under the pointer stays where it
 * is. While the wheel turns, what is drawn is only stretched, which a browser does without laying
 * anything out; it is drawn anew when the wheel rests. Scales that are set otherwise keep the
 * playhead where it is.
 */
export function useWheelScale(scroller: RefObject<HTMLDivElement | null>): void {
  const store = useEditorStore();
  const scale = useEditor((s) => s.pixelsPerSecond);
  /** The instant that stays, and where. */
  const held = useRef<{ time: number; x: number } | null>(null);
  const shown = useRef(scale);
  useEffect(() => {
    const element = scroller.current!;
    const stretch = (by: number | null) => {
      // Set on each, since a property that is handed down has all that lies within styled anew.
      for (const row of element.querySelectorAll<HTMLElement>('.stretches')) {
        row.style.transform = by === null ? '' : `scaleX(${by})`;
        row.style.transformOrigin = `${from}px 0`;
        row.style.willChange = by === null ? '' : 'transform';
      }
    };
    let from = 0;
    let wanted: number | null = null;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let drawnAt = -Infinity;
    const draw = () => {
      clearTimeout(timer);
      if (wanted === null) return;
      drawnAt = performance.now();
      const pixelsPerSecond = wanted;
      wanted = null;
      stretch(null);
      store.setState({ pixelsPerSecond, scaleChosen: true });
    };
    const onWheel = (event: WheelEvent) => {
      if (!event.ctrlKey && !event.metaKey) return;
      event.preventDefault();
      const { pixelsPerSecond } = store.getState();
      const turned = event.deltaY * (event.deltaMode === 1 ? LINE_PX : 1);
      const x = event.clientX - element.getBoundingClientRect().left - HEADER_WIDTH;
      if (wanted === null) {
        held.current = { time: toTime(element.scrollLeft + x, pixelsPerSecond), x };
        from = element.scrollLeft + x;
      }
      const next: number = within(
        (wanted ?? pixelsPerSecond) * NOTCH.factor ** (-turned / NOTCH.pixels),
      );
      wanted = next;
      const by = next / pixelsPerSecond;
      stretch(by);
      clearTimeout(timer);
      const tells = by < STRETCHED.least || by > STRETCHED.most;
      if (tells && performance.now() - drawnAt >= DRAWN_EVERY_MS) draw();
      else timer = setTimeout(draw, RESTS_MS);
    };
    // A page that listens passively can't keep the browser from making all of itself larger.
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => {
      clearTimeout(timer);
      element.removeEventListener('wheel', onWheel);
    };
  }, [scroller, store]);
  // After the new width is there.
  useLayoutEffect(() => {
    const element = scroller.current!;
    if (shown.current === scale) return;
    const spot = held.current;
    const playhead = playheadOf(store.getState());
    const before = toPixels(playhead, shown.current) - element.scrollLeft;
    shown.current = scale;
    held.current = null;
    const room = element.clientWidth - HEADER_WIDTH;
    element.scrollLeft = spot
      ? toPixels(spot.time, scale) - spot.x
      : toPixels(playhead, scale) - (before >= 0 && before <= room ? before : room / 2);
  }, [scale, scroller, store]);
}
