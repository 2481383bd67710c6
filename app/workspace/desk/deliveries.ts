import { createStore } from 'zustand/vanilla';
import type { SentFile } from '#core/model/handed-in.ts';
import type { Submission } from '#core/model/work.ts';
import type { UploadState } from '#formats/desk/handing-in.ts';
import { handIn, uploadPart, uploadState, type Answer } from './desk-client.ts';
import { putAttempt } from './facts.ts';
import type { Workspace } from '../workspace.ts';

/** Small enough to be sent again after a break, large enough that a large file is not a thousand requests. */
const PART_BYTES = 1024 * 1024;
/** A break in mid-upload is gone on from so often at once; then it waits until the desk is reached again. */
const TRIES = 4;

/** How far a submission is on its way, in bytes. */
export interface OnTheWay {
  readonly sent: number;
  readonly of: number;
}

/** What was sent and waits to go to the course desk: its files first, part by part, then the attempt. */
export class Deliveries {
  readonly store = createStore<{ readonly bySubmission: ReadonlyMap<string, OnTheWay> }>(() => ({
    bySubmission: new Map(),
  }));
  private underWay: Promise<void> | null = null;
  private isWanted = false;

  constructor(private readonly workspace: Workspace) {}

  /** Tries to deliver what waits to go; one delivery at a time, in whatever tab. */
  deliver(): Promise<void> {
    this.isWanted = true;
    this.underWay ??= this.deliverWanted().finally(() => {
      this.underWay = null;
    });
    return this.underWay;
  }

  private async deliverWanted(): Promise<void> {
    const { name, signal } = this.workspace;
    // What is sent while others are under way is delivered too.
    while (this.isWanted) {
      this.isWanted = false;
      await navigator.locks.request(`deliver/${name}`, { signal }, () => this.deliverAll());
    }
  }

  private async deliverAll(): Promise<void> {
    for (const { id } of this.workspace.records.submissions.values()) {
      const submission = this.workspace.records.submissions.get(id);
      if (submission?.state.kind === 'waiting to go') await this.deliverOne(submission);
    }
  }

  private async deliverOne(submission: Submission): Promise<void> {
    const { workspace } = this;
    const answer = await this.handInWhole(submission);
    this.show(submission.id, null);
    switch (answer.kind) {
      case 'ok':
        await workspace.save((writing) => putAttempt(writing, answer.value, submission.id));
        break;
      case 'refused':
        await workspace.save((writing) =>
          writing.put('submissions', { ...submission, state: { kind: 'refused', reason: answer.why } }),
        );
        break;
      case 'signed out':
      case 'not reached':
      case 'unreadable':
        workspace.store.setState({ connection: answer.kind === 'signed out' ? 'signed out' : 'not reached' });
    }
  }

  private async handInWhole(submission: Submission): ReturnType<typeof handIn> {
    const of = submission.files.reduce((sum, { size }) => sum + size, 0);
    let before = 0;
    for (const file of submission.files) {
      const uploaded = await this.upload(file, (received) =>
        this.show(submission.id, { sent: before + received, of }),
      );
      if (uploaded.kind !== 'ok') return uploaded;
      before += file.size;
    }
    return handIn(submission, this.workspace.caller);
  }

  /** Sends what the desk doesn't have yet of a file; after a break it goes on from what has arrived. */
  private async upload(
    { hash, size }: SentFile,
    onProgress: (received: number) => void,
  ): Promise<Answer<UploadState>> {
    const { caller } = this.workspace;
    const bytes = await this.workspace.fileBytes(hash);
    let state = await uploadState(hash, caller);
    let tries = 0;
    let most = 0;
    for (;;) {
      if (state.kind === 'ok') {
        const { received, whole } = state.value;
        // Tries are counted anew only where it has come farther than ever.
        if (received > most) tries = 0;
        most = Math.max(most, received);
        onProgress(Math.min(received, size));
        // Without its bytes here it can only be that the desk has them.
        if (whole || bytes === null) return state;
        const from = received < size ? received : 0;
        const to = Math.min(from + PART_BYTES, size) - 1;
        state = await uploadPart(hash, { from, to, size }, bytes.slice(from, to + 1), caller);
        // A file that arrived damaged is refused once all of it is there, and goes anew.
      } else if (state.kind !== 'signed out' && tries < TRIES && !caller.signal.aborted) {
        tries++;
        state = await uploadState(hash, caller);
      } else return state;
    }
  }

  private show(id: string, onTheWay: OnTheWay | null): void {
    const bySubmission = new Map(this.store.getState().bySubmission);
    if (onTheWay === null) bySubmission.delete(id);
    else bySubmission.set(id, onTheWay);
    this.store.setState({ bySubmission });
  }
}
