import { useGesture } from '@use-gesture/react';
import { type PointerEvent as ReactPointerEvent, type RefObject, useEffect, useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useSingleKeys } from '../controls/single-keys';
import { type Camera, type Looking, panned, pinched, STEP, zoomed } from './camera';
import { pointerOn } from './layout';

type Setter = (to: (was: Camera | null) => Camera | null) => void;

/** Pixels before which a press is no drag. */
const STILL = 4;
/** How much closer a turn of the wheel by one pixel leads. */
const PER_PIXEL = 1.0015;
/** Pixels of a wheel that counts lines. */
const LINE = 16;

interface Pan {
  pointer: number;
  moved: boolean;
}

interface Props {
  /** What the view lies in. */
  element: RefObject<HTMLDivElement | null>;
  looking: Looking;
  setCamera: Setter;
  /** Whether the board is looked at from above; turned about it has its own ways. */
  on: boolean;
}

/** Whether Space is held down, for the hand that draws the board along. */
function useSpace(on: boolean): boolean {
  const [held, setHeld] = useState(false);
  useHotkeys('space', (e) => setHeld(e.type === 'keydown'), {
    enabled: on,
    keydown: true,
    keyup: true,
    // A button that has the focus is pressed by Space.
    ignoreEventWhen: (e) => e.target instanceof Element && e.target.closest('button, a, summary, [role]') !== null,
    preventDefault: true,
  });
  useEffect(() => {
    const leave = () => setHeld(false);
    addEventListener('blur', leave);
    return () => removeEventListener('blur', leave);
  }, []);
  return held;
}

/**
 * Ways of coming closer to the board and of going along it: the wheel and two fingers at the place where they are, a drag of empty ground, and
 * of anything with Space held down or the middle button.
 * @returns what the view's element listens to besides, whether two fingers are on it, whether it is drawn along, and how the pointer looks
 */
export function useCamera({ element, looking, setCamera, on }: Props) {
  const [pan, setPan] = useState<Pan | null>(null);
  const [pinching, setPinching] = useState(false);
  const space = useSpace(on);
  const at = useRef<{ x: number; y: number } | null>(null);
  const placeIn = (clientX: number, clientY: number) => {
    const [x, y] = element.current ? pointerOn(element.current, { clientX, clientY }) : [0, 0];
    return { x, y };
  };
  useGesture(
    {
      onWheel: ({ event }) => {
        event.preventDefault();
        // Two fingers on a touch pad come as a wheel with Ctrl, and are onPinch's.
        if (event.ctrlKey) return;
        const by = event.deltaMode === 1 ? event.deltaY * LINE : event.deltaY;
        const place = placeIn(event.clientX, event.clientY);
        setCamera((was) => zoomed(looking, was, place, PER_PIXEL ** -by));
      },
      onPinch: ({ first, last, origin, memo, movement: [factor] }) => {
        const here = placeIn(origin[0], origin[1]);
        if (first) {
          setPinching(true);
          setPan(null);
        }
        if (last) setPinching(false);
        const before = (memo ?? { place: here, factor: 1 }) as { place: { x: number; y: number }; factor: number };
        setCamera((was) => pinched(looking, was, before.place, here, factor / before.factor));
        return { place: here, factor };
      },
    },
    { target: element, eventOptions: { passive: false }, enabled: on, pinch: { pointer: { touch: true } } },
  );

  const begin = (e: ReactPointerEvent) => {
    at.current = { x: e.clientX, y: e.clientY };
    setPan({ pointer: e.pointerId, moved: false });
  };
  const bind = {
    onPointerDownCapture: (e: ReactPointerEvent) => {
      if (!on || !(e.button === 1 || (e.button === 0 && space))) return;
      e.preventDefault();
      e.stopPropagation();
      begin(e);
    },
    onPointerDown: (e: ReactPointerEvent) => {
      if (on && e.button === 0 && !pinching && !pan) begin(e);
    },
    onPointerMove: (e: ReactPointerEvent<HTMLElement>) => {
      if (!pan || pan.pointer !== e.pointerId || pinching || !at.current) return;
      const by = { x: e.clientX - at.current.x, y: e.clientY - at.current.y };
      if (!pan.moved && Math.hypot(by.x, by.y) < STILL) return;
      if (!pan.moved) {
        e.currentTarget.setPointerCapture(e.pointerId);
        setPan({ ...pan, moved: true });
      }
      at.current = { x: e.clientX, y: e.clientY };
      setCamera((was) => panned(looking, was, by));
    },
    onPointerUp: () => setPan(null),
    onPointerCancel: () => setPan(null),
  };
  const middle = { x: looking.room.width / 2, y: looking.room.height / 2 };
  const single = useSingleKeys();
  // As they stand on the keyboard at hand, wherever it has them; with Ctrl they are the browser's own.
  const keys = {
    enabled: on && single,
    useKey: true,
    splitKey: ' ',
    ignoreModifiers: true,
    ignoreEventWhen: (e: KeyboardEvent) => e.ctrlKey || e.metaKey || e.altKey,
  };
  useHotkeys(['+', '='], () => setCamera((was) => zoomed(looking, was, middle, STEP)), keys);
  useHotkeys('-', () => setCamera((was) => zoomed(looking, was, middle, 1 / STEP)), keys);
  useHotkeys('0', () => setCamera(() => null), keys);
  const cursor = pan?.moved ? 'cursor-grabbing' : space ? 'cursor-grab' : '';
  return { bind, pinching, panning: pan?.moved === true, cursor };
}
