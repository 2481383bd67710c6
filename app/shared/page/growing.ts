import { useEffect, useRef, useState, type RefObject } from 'react';

/** So many rows are drawn at once; more as the end of them comes near. */
const STEP = 16;

/**
 * The beginning of a long list, which grows as one scrolls towards its end. The reference goes on an
 * element below the last row.
 */
export function useGrowing<T>(
  list: readonly T[],
  step = STEP,
): [readonly T[], RefObject<HTMLLIElement | null>] {
  const [count, setCount] = useState(step);
  const end = useRef<HTMLLIElement>(null);
  const more = list.length > count;
  useEffect(() => {
    const element = end.current;
    if (element === null || !more) return;
    const observer = new IntersectionObserver(
      ([entry]) => {
        if (entry.isIntersecting) setCount((now) => now + step);
      },
      { rootMargin: '600px' },
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, [more, count, step]);
  return [more ? list.slice(0, count) : list, end];
}
