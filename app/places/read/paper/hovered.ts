import { create } from 'zustand';

/** The remark that is pointed at; known apart, so that only what it touches is rendered anew. */
const useHovered = create<{ readonly id: string | null }>(() => ({ id: null }));

/** Whether one of these remarks is pointed at. */
export function useIsHovered(ids: readonly string[] | string): boolean {
  return useHovered(({ id }) => id !== null && (typeof ids === 'string' ? ids === id : ids.includes(id)));
}

export function hover(id: string | null): void {
  useHovered.setState({ id });
}
