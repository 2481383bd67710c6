import { useState } from 'react';
import { useLocation } from 'react-router';

/**
 * What a place keeps in its address (the remark in focus, the material that is open). It changes at once, so that a quick
 * next key meets what is shown, and the address follows without a navigation; a link to the place brings its own.
 */
export function useAddress(): [URLSearchParams, (next: Record<string, string>) => void] {
  const location = useLocation();
  const [own, setOwn] = useState({ of: location.key, params: new URLSearchParams(location.search) });
  const params = own.of === location.key ? own.params : new URLSearchParams(location.search);
  const set = (next: Record<string, string>) => {
    const changed = new URLSearchParams(next);
    setOwn({ of: location.key, params: changed });
    window.history.replaceState(window.history.state, '', `?${changed.toString()}`);
  };
  return [params, set];
}
