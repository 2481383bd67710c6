import * as v from 'valibot';
import { createStore } from 'zustand/vanilla';
import type { Marking, SignedIn } from '#core/model/facts.ts';
import { currentSession, signIn, signOut, type Answer } from '../desk/desk-client.ts';
import { DeskLink } from '../desk/desk-link.ts';
import type { Identity } from '../identity.ts';
import { DeskClock } from './clock.ts';
import { openWorkspace, type Workspace } from '../workspace.ts';

/** Who was here last, so that the workspace opens when the desk can't be reached. */
const LAST = 'juncture/last';

const KnownIdentity = v.variant('kind', [
  v.object({
    kind: v.literal('student'),
    deskId: v.string(),
    studentId: v.string(),
    studentName: v.string(),
  }),
  v.object({ kind: v.literal('files alone') }),
]);

function lastIdentity(): Identity | null {
  const stored = v.safeParse(v.pipe(v.string(), v.parseJson(), KnownIdentity), localStorage.getItem(LAST));
  return stored.success ? stored.output : null;
}

/** Takes the access code out of the address, if it brought one. */
function codeFromAddress(): { student: string; code: string } | null {
  const given = new URLSearchParams(location.hash.slice(1));
  const student = given.get('student');
  const code = given.get('code');
  if (student === null || code === null) return null;
  history.replaceState(null, '', location.pathname + location.search);
  return { student, code };
}

interface SessionState {
  /** null: nobody's is open, the way in is shown. */
  readonly workspace: Workspace | null;
  /** Why there is none. */
  readonly wayIn: 'asking' | 'not reached' | 'signed out';
}

/** Who is at this page: opens a workspace, and leaves it for another. */
export class Session {
  readonly store = createStore<SessionState>(() => ({ workspace: null, wayIn: 'asking' }));
  private readonly clock = new DeskClock();
  private readonly listeners = new Set<(marking: Marking) => void>();

  /** Calls back for each marking that arrives while the page is open; returns what ends that. */
  onNewMarking(callback: (marking: Marking) => void): () => void {
    this.listeners.add(callback);
    return () => this.listeners.delete(callback);
  }

  /** Opens a workspace in place of the one that is open; what is being saved there is saved first. */
  private async open(identity: Identity): Promise<Workspace> {
    await this.closeOpen();
    localStorage.setItem(LAST, JSON.stringify(identity));
    const workspace = await openWorkspace(identity, this.clock);
    if (identity.kind === 'student')
      workspace.desk = new DeskLink(workspace, (marking) => {
        for (const listener of this.listeners) listener(marking);
      });
    workspace.visits.begin();
    workspace.sayings.begin();
    this.store.setState({ workspace });
    return workspace;
  }

  /** Opens what somebody gave to be looked at, in place of the own workspace, which stays as it is. */
  async show(given: Parameters<Workspace['replaceAll']>[0], by: string): Promise<void> {
    await this.closeOpen();
    const workspace = await openWorkspace({ kind: 'shown', by }, this.clock);
    await workspace.replaceAll(given, {});
    workspace.sayings.begin();
    this.store.setState({ workspace });
  }

  /** Goes back to the own workspace from what was looked at. */
  async back(): Promise<void> {
    await this.closeOpen();
    await this.start();
  }

  private async closeOpen(): Promise<void> {
    const { workspace } = this.store.getState();
    if (workspace === null) return;
    workspace.desk?.disconnect();
    this.store.setState({ workspace: null, wayIn: 'asking' });
    await workspace.whenSaved();
    workspace.close();
  }

  /** Opens the workspace of the student that the address or the session names, else of the last one here. */
  async start(): Promise<void> {
    const given = codeFromAddress();
    const answer = given === null ? await currentSession() : await signIn(given.student, given.code);
    if (answer.kind === 'ok') {
      await this.openForStudent(answer.value);
      return;
    }
    const last = lastIdentity();
    if (last === null || given !== null) {
      this.store.setState({ wayIn: answer.kind === 'not reached' ? 'not reached' : 'signed out' });
      return;
    }
    const { desk } = await this.open(last);
    if (answer.kind === 'signed out') desk?.signedOut();
    else desk?.lost('not reached');
  }

  private async openForStudent(signedIn: SignedIn): Promise<void> {
    this.clock.setByDesk(signedIn.now);
    const { deskId, studentId, studentName } = signedIn;
    const workspace = await this.open({ kind: 'student', deskId, studentId, studentName });
    workspace.desk?.begin();
  }

  /** Signs in with a typed code; the refusal, in the desk's words, is for the student. */
  async signInWith(student: string, code: string): Promise<Answer<SignedIn>> {
    // What goes on for whoever is here ends first: from signing in on, the browser speaks for another.
    await this.closeOpen();
    const answer = await signIn(student, code);
    if (answer.kind === 'ok') await this.openForStudent(answer.value);
    else this.store.setState({ wayIn: 'signed out' });
    return answer;
  }

  async workFromFilesAlone(): Promise<void> {
    await this.open({ kind: 'files alone' });
  }

  async leave(): Promise<void> {
    const kind = this.store.getState().workspace?.identity.kind;
    await this.closeOpen();
    if (kind === 'student') await signOut();
    localStorage.removeItem(LAST);
    this.store.setState({ wayIn: 'signed out' });
  }

  /** A page that is put aside gives its connection up, and catches up when it comes back. */
  listenWhileShown(): void {
    const desk = () => this.store.getState().workspace?.desk;
    window.addEventListener('pagehide', () => desk()?.disconnect());
    // The address that signs in, opened where the page is open already, changes its fragment alone.
    window.addEventListener('hashchange', () => {
      if (new URLSearchParams(location.hash.slice(1)).has('code')) location.reload();
    });
    window.addEventListener('pageshow', (event) => {
      if (event.persisted) desk()?.begin();
    });
  }
}
