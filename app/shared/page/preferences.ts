import { setDateLanguage } from '../shown/shown.ts';
import { tellWidths } from './widths.ts';
import * as v from 'valibot';
import { create } from 'zustand';

/** The languages in which dates can be written; the words of the interface stay as they are. */
export const DATE_LANGUAGES = ['en-GB', 'en-US', 'de', 'es', 'fr', 'it', 'nl', 'pl', 'pt', 'sv'] as const;

/** How this person likes the interface, on this computer; no part of the workspace. */
const Preferences = v.object({
  dates: v.optional(v.picklist(DATE_LANGUAGES), 'en-GB'),
  theme: v.optional(v.picklist(['system', 'light', 'dark']), 'system'),
  /** As it was before this was kept in the workspace; counts until it is set there. */
  singleKeys: v.optional(v.boolean(), true),
  textSize: v.optional(v.picklist(['100', '125', '150', '200']), '100'),
  /** How rubrics are shown; auto: as a list where it is narrow. */
  rubricLayout: v.optional(v.picklist(['auto', 'grid', 'list']), 'auto'),
  /** On which side of the paper the slips stand, and how wide in pixels; null: as there is room. */
  slipSide: v.optional(v.picklist(['right', 'left']), 'right'),
  slipWidth: v.optional(v.nullable(v.number()), null),
  /** Whether remarks of machines stand among the slips; they are counted either way. */
  machineSlips: v.optional(v.boolean(), true),
});
export type Preferences = v.InferOutput<typeof Preferences>;

const KEY = 'juncture/preferences';

function stored(): Preferences {
  try {
    return v.parse(Preferences, JSON.parse(localStorage.getItem(KEY) ?? '{}'));
  } catch {
    return v.parse(Preferences, {});
  }
}

export const usePreferences = create<Preferences>(stored);

export function setPreference(change: Partial<Preferences>): void {
  usePreferences.setState(change);
  localStorage.setItem(KEY, JSON.stringify(usePreferences.getState()));
  applyPreferences();
}

const darkWanted = matchMedia('(prefers-color-scheme: dark)');

/** Puts theme, text size and the language of dates on the page. */
export function applyPreferences(): void {
  const { theme, textSize, dates } = usePreferences.getState();
  setDateLanguage(dates);
  const dark = theme === 'dark' || (theme === 'system' && darkWanted.matches);
  document.documentElement.dataset.theme = dark ? 'dark' : 'light';
  document.documentElement.style.setProperty('--text-scale', String(Number(textSize) / 100));
  tellWidths(Number(textSize));
}
darkWanted.addEventListener('change', applyPreferences);
window.addEventListener('resize', applyPreferences);
