import { useEffect, useRef, type RefObject } from 'react';

/** Two fingers that part or close on the paper make it larger or smaller; told once they are lifted. */
export function usePinch(
  scroller: RefObject<HTMLElement | null>,
  content: RefObject<HTMLElement | null>,
  onPinched: (factor: number) => void,
): void {
  const tell = useRef(onPinched);
  useEffect(() => {
    tell.current = onPinched;
  });
  useEffect(() => {
    const element = scroller.current;
    if (element === null) return;
    let begun: number | null = null;
    let factor = 1;
    const distance = ([one, other]: readonly Touch[]) =>
      Math.hypot(one.clientX - other.clientX, one.clientY - other.clientY);
    const start = (event: TouchEvent) => {
      if (event.touches.length !== 2 || content.current === null) return;
      const touches = [...event.touches];
      begun = Math.max(1, distance(touches));
      factor = 1;
      const frame = content.current.getBoundingClientRect();
      const x = (touches[0].clientX + touches[1].clientX) / 2 - frame.left;
      const y = (touches[0].clientY + touches[1].clientY) / 2 - frame.top;
      content.current.style.transformOrigin = `${x}px ${y}px`;
    };
    const move = (event: TouchEvent) => {
      if (begun === null || event.touches.length !== 2 || content.current === null) return;
      event.preventDefault();
      factor = distance([...event.touches]) / begun;
      // What is drawn is stretched meanwhile, and drawn anew once the fingers are lifted.
      content.current.style.transform = `scale(${factor})`;
    };
    const end = (event: TouchEvent) => {
      if (begun === null || event.touches.length > 1) return;
      begun = null;
      if (content.current !== null) content.current.style.transform = '';
      if (Math.abs(factor - 1) > 0.02) tell.current(factor);
    };
    element.addEventListener('touchstart', start, { passive: true });
    element.addEventListener('touchmove', move, { passive: false });
    element.addEventListener('touchend', end);
    element.addEventListener('touchcancel', end);
    return () => {
      element.removeEventListener('touchstart', start);
      element.removeEventListener('touchmove', move);
      element.removeEventListener('touchend', end);
      element.removeEventListener('touchcancel', end);
    };
  }, [scroller, content]);
}
