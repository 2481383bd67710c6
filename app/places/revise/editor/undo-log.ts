import type { Editor } from '@tiptap/core';
import { closeHistory } from '@tiptap/pm/history';
import { Node } from '@tiptap/pm/model';
import { Step } from '@tiptap/pm/transform';
import type { Transaction } from '@tiptap/pm/state';
import * as v from 'valibot';

/**
 * What was typed in this tab, change by change, so that it can be taken back after a reload too: the document that the oldest
 * change began with, and the changes since. It is kept for as long as the tab, and given up where it doesn't lead to the
 * document that is there.
 */

const Kept = v.object({
  base: v.unknown(),
  groups: v.array(v.array(v.unknown())),
});

/** So many changes can be taken back after a reload. */
const MOST_GROUPS = 300;
/** Typing without a pause of this many milliseconds is one change, as it is for the editor. */
const PAUSE = 500;
/** No more than this is kept, in UTF-16 units: a tab has about five million for all. */
const MOST_UNITS = 1_500_000;

export class UndoLog {
  private base: Node | null = null;
  private groups: Step[][] = [];
  private lastAt = 0;
  private restoring = false;

  constructor(private readonly name: string) {}

  add(transaction: Transaction): void {
    if (this.restoring || !transaction.docChanged) return;
    if (this.base === null) this.base = transaction.before;
    const goesOn = transaction.time - this.lastAt < PAUSE && this.groups.length > 0;
    this.lastAt = transaction.time;
    if (goesOn) this.groups[this.groups.length - 1].push(...transaction.steps);
    else this.groups.push([...transaction.steps]);
    while (this.groups.length > MOST_GROUPS) this.fold();
  }

  /** The oldest change becomes part of what all began with. */
  private fold(): void {
    for (const step of this.groups.shift() ?? []) {
      const { doc } = this.base === null ? { doc: null } : step.apply(this.base);
      if (doc !== null) this.base = doc;
    }
  }

  keep(): void {
    if (this.base === null) return;
    const kept = JSON.stringify({
      base: this.base.toJSON() as unknown,
      groups: this.groups.map((group) => group.map((step) => step.toJSON() as unknown)),
    });
    try {
      if (kept.length <= MOST_UNITS) sessionStorage.setItem(this.name, kept);
      else sessionStorage.removeItem(this.name);
    } catch (error) {
      // There is no room: what was typed is saved all the same, only not to be taken back after a reload.
      if (!(error instanceof DOMException)) throw error;
    }
  }

  /** Makes what was typed before the reload a thing that the editor can take back. */
  restore(editor: Editor): void {
    const text = sessionStorage.getItem(this.name);
    const parsed = text === null ? null : v.safeParse(Kept, JSON.parse(text));
    if (parsed?.success !== true) return;
    const { state, schema, view } = editor;
    const now = state.doc;
    let base: Node;
    let groups: Step[][];
    try {
      base = Node.fromJSON(schema, parsed.output.base);
      groups = parsed.output.groups.map((group) => group.map((step) => Step.fromJSON(schema, step)));
      let doc = base;
      for (const step of groups.flat()) doc = step.apply(doc).doc ?? doc;
      if (!doc.eq(now)) return;
    } catch (error) {
      // It was kept by another form of the editor.
      if (error instanceof RangeError) return;
      throw error;
    }
    this.restoring = true;
    const quietly = (transaction: Transaction) => transaction.setMeta('preventUpdate', true);
    view.dispatch(
      quietly(state.tr.replaceWith(0, now.content.size, base.content)).setMeta('addToHistory', false),
    );
    for (const group of groups) {
      const transaction = closeHistory(quietly(view.state.tr));
      for (const step of group) transaction.step(step);
      view.dispatch(transaction);
    }
    this.restoring = false;
    this.base = base;
    this.groups = groups;
  }
}
