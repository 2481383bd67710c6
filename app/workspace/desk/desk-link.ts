import * as v from 'valibot';
import type { Fact, Marking, Rubric } from '#core/model/facts.ts';
import { factOfWire } from '#formats/desk/wire.ts';
import { factsAfter, noticesAddress, rubricById } from './desk-client.ts';
import { takeInFacts } from './facts.ts';
import type { Workspace } from '../workspace.ts';

const ASK_AGAIN_MS = 4000;

/** Facts that could not be read, kept as they came: a newer Juncture may understand them. */
const UNREAD = 'unread facts';
const KeptUnread = v.fallback(
  v.array(
    v.object({
      seq: v.nullable(v.number()),
      kind: v.string(),
      problem: v.string(),
      raw: v.unknown(),
    }),
  ),
  [],
);

/** What a workspace hears of its course desk, and sends to it. It ends with the workspace. */
export class DeskLink {
  /** Whether the desk was heard since the page was opened: what it tells from then on comes while somebody looks. */
  private caughtUp = false;
  private listening: AbortController | null = null;
  private retry: ReturnType<typeof setTimeout> | undefined;
  private catching: Promise<void> | null = null;
  private again = false;

  /** @param onMarking is told of each marking that arrives while somebody looks */
  constructor(
    private readonly workspace: Workspace,
    private readonly onMarking: (marking: Marking) => void,
  ) {
    workspace.signal.addEventListener('abort', () => this.disconnect());
  }

  /** Gives the connection up, as a page does that is put aside. */
  disconnect(): void {
    this.listening?.abort();
    this.listening = null;
    clearTimeout(this.retry);
  }

  signedOut(): void {
    this.disconnect();
    this.workspace.store.setState({ connection: 'signed out' });
  }

  lost(connection: 'not reached' | 'not understood'): void {
    this.disconnect();
    if (this.workspace.signal.aborted) return;
    this.workspace.store.setState({ connection });
    this.retry = setTimeout(() => this.begin(), ASK_AGAIN_MS);
  }

  /** Catches up, with nobody waiting for it. */
  begin(): void {
    this.workspace.inBackground(() => this.catchUp());
  }

  /** Fetches what is new at the desk, delivers what waits, and reads files that aren't read yet. */
  catchUp(): Promise<void> {
    if (this.catching !== null) {
      this.again = true;
      return this.catching;
    }
    this.catching = this.fetchNew().finally(() => {
      this.catching = null;
      if (!this.again) return;
      this.again = false;
      this.begin();
    });
    return this.catching;
  }

  /**
   * Listens for notices. Of several tabs only one does at a time: a browser opens few connections to one server, and a
   * notice keeps one busy. The others see what it takes in, and take over when it is gone.
   */
  private listen(): void {
    if (this.listening !== null || this.workspace.signal.aborted) return;
    const over = new AbortController();
    this.listening = over;
    const untilOver = () =>
      new Promise<void>((resolve) => {
        const notices = new EventSource(noticesAddress(this.workspace.caller));
        notices.addEventListener('facts', () => this.begin());
        notices.onerror = () => this.lost('not reached');
        over.signal.addEventListener('abort', () => {
          notices.close();
          resolve();
        });
      });
    navigator.locks
      .request(`${this.workspace.name}/notices`, { signal: over.signal }, untilOver)
      .catch((error: unknown) => {
        if (!over.signal.aborted) throw error;
      });
  }

  private async fetchNew(): Promise<void> {
    const { workspace } = this;
    const cursor = v.parse(v.fallback(v.number(), 0), await workspace.metaValue('cursor'));
    const answer = await factsAfter(cursor, workspace.caller);
    if (answer.kind !== 'ok') {
      if (answer.kind === 'signed out') this.signedOut();
      else this.lost(answer.kind === 'not reached' ? 'not reached' : 'not understood');
      return;
    }
    workspace.setClockByDesk(answer.value.now);
    const before = v.parse(KeptUnread, await workspace.metaValue(UNREAD));
    // The same line twice is one.
    const lines = new Map(
      [...before.map((one) => one.raw), ...answer.value.facts].map((raw) => [JSON.stringify(raw), raw]),
    );
    const raw = [...lines.values()];
    const read = raw.map((one) => ({ raw: one, ...factOfWire(one) }));
    const facts = read.flatMap((one) => ('fact' in one ? [one.fact] : []));
    const unread = read.flatMap((one) => ('unread' in one ? [{ ...one.unread, raw: one.raw }] : []));
    const live = this.caughtUp;
    this.caughtUp = true;
    // What arrives while somebody looks is held until they ask for it.
    if (live)
      for (const fact of facts)
        if (fact.kind === 'marking') workspace.visits.noteArrival(fact.value.assignmentId);
    if (facts.length > 0 || unread.length !== before.length) {
      const rubrics = await this.rubricsFor(facts);
      await takeInFacts(workspace, facts, rubrics, answer.value.cursor, { [UNREAD]: unread });
    }
    workspace.store.setState({
      connection: 'reached',
      lastReachedAt: workspace.nowMs(),
      unreadFacts: unread,
    });
    workspace.downloads.forgetFailures();
    this.listen();
    if (live) for (const fact of facts) if (fact.kind === 'marking') this.onMarking(fact.value);
    await workspace.downloads.fetchReturnedFiles();
    await workspace.deliveries.deliver();
  }

  private async rubricsFor(facts: readonly Fact[]): Promise<Rubric[]> {
    const { records, caller } = this.workspace;
    const ids = facts.flatMap((fact) =>
      fact.kind === 'assignment' && fact.value.rubricId !== null ? [fact.value.rubricId as string] : [],
    );
    const wanted = [...new Set(ids)].filter((id) => !records.rubrics.has(id));
    const answers = await Promise.all(wanted.map((id) => rubricById(id, caller)));
    return answers.flatMap((answer) => (answer.kind === 'ok' ? [answer.value] : []));
  }
}
