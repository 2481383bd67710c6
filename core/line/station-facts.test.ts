import { describe, expect, it } from 'vitest';
import { workKinds } from '../model/work-kind.ts';
import { stations, type Station } from './stations.ts';
import { stationFacts, type StationFact, type StationInput, type Way } from './station-facts.ts';

const states = [
  'not open yet',
  'open, nothing sent',
  'draft begun',
  'waiting to be marked',
  'part marked',
  'open for another attempt',
  'finished',
  'waiting again',
  'closed',
  'excused',
] as const satisfies readonly StationInput['state'][];
const stages = ['none', 'draft stage', 'draft stage without its final', 'final'] as const;

const input = (given: Partial<StationInput> = {}): StationInput => ({
  kind: 'paper',
  state: 'open for another attempt',
  stage: 'none',
  received: 3,
  receivedOnStage: 0,
  tasks: 1,
  draftBegun: true,
  sent: true,
  byDesk: true,
  ...given,
});
const fact = (station: Station, given: Partial<StationInput> = {}): StationFact => {
  const found = stationFacts(input(given)).find((one) => one.station === station);
  if (found === undefined) throw new Error(`no ${station}`);
  return found;
};

/** Every kind by every state, stage, and what there is of it. */
function* all(): Generator<StationInput> {
  for (const kind of workKinds)
    for (const state of states)
      for (const stage of stages)
        for (const received of [0, 3])
          for (const receivedOnStage of stage === 'final' ? [0, 3] : [0])
            for (const tasks of [0, 1])
              for (const draftBegun of [false, true])
                for (const sent of [false, true])
                  for (const byDesk of [false, true])
                    yield {
                      kind,
                      state,
                      stage,
                      received,
                      receivedOnStage,
                      tasks,
                      draftBegun,
                      sent,
                      byDesk,
                    };
}

describe('what each station is', () => {
  it('has all six for every kind in every state', () => {
    for (const one of all()) expect(stationFacts(one).map(({ station }) => station)).toEqual(stations);
  });

  it('is no dead end: from every station one comes to where something is to be done or seen', () => {
    let looked = 0;
    for (const one of all()) {
      const facts = new Map(stationFacts(one).map((each) => [each.station, each]));
      const arrives = ({ of, to }: Way, seen: readonly Station[]): boolean => {
        // The other stage has its own facts, which are in this table too; the page always has something.
        if (of !== 'this' || to === 'page') return true;
        const there = facts.get(to);
        if (there === undefined || seen.includes(to)) return false;
        return (
          there.is === 'do' || there.is === 'look' || there.ways.some((way) => arrives(way, [...seen, to]))
        );
      };
      for (const { station, is, why, ways } of facts.values()) {
        looked++;
        if (is === 'do' || is === 'look') continue;
        expect({ one, station, why }).not.toMatchObject({ why: null });
        expect(
          ways.some((way) => arrives(way, [station])),
          JSON.stringify({ one, station, ways }),
        ).toBe(true);
      }
    }
    expect(looked).toBeGreaterThan(10_000);
  });

  it('leads to the other stage only where there is one, and never back from there to here', () => {
    for (const one of all())
      for (const { station, is, ways } of stationFacts(one)) {
        for (const { of } of ways) {
          if (of === 'final') expect(one.stage).toBe('draft stage');
          if (of === 'stage') expect(one.stage).toBe('final');
        }
        if (one.stage === 'final' && station !== 'read' && station !== 'decide')
          expect(is).not.toBe('elsewhere');
        if (one.stage === 'draft stage' && (station === 'read' || station === 'decide'))
          expect(is).not.toBe('elsewhere');
      }
  });

  it('is what the kind makes of it', () => {
    expect(stationFacts(input({ kind: 'quiz' })).map(({ means }) => means)).toEqual([
      'remarks',
      'decisions',
      'study list',
      'practice',
      'readiness',
      'another try',
    ]);
    expect(fact('revise', { kind: 'files' }).means).toBe('new files');
    expect(fact('send', { kind: 'posts' }).means).toBe('posting');
    expect(fact('plan', { kind: 'items' }).means).toBe('items to do again');
  });

  it('of a draft stage is in the final from Plan on; alone it is its own', () => {
    const stage = { stage: 'draft stage', state: 'finished' } as const;
    expect(fact('read', stage).is).toBe('do');
    expect(fact('plan', stage)).toMatchObject({ is: 'elsewhere', ways: [{ of: 'final', to: 'plan' }] });
    expect(fact('send', stage)).toMatchObject({ is: 'elsewhere', ways: [{ of: 'final', to: 'send' }] });
    // One that is still to be handed in is written and sent by itself.
    const open = { stage: 'draft stage', state: 'draft begun', received: 0, sent: false } as const;
    expect(fact('revise', open).is).toBe('do');
    expect(fact('send', open)).toMatchObject({ is: 'do', why: null });
    const alone = { ...stage, stage: 'draft stage without its final' } as const;
    expect(fact('plan', alone)).toMatchObject({ is: 'do', why: 'its final is gone' });
    expect(fact('revise', alone)).toMatchObject({ is: 'look', why: 'no other attempt' });
    const final = { stage: 'final', state: 'open, nothing sent', received: 0, receivedOnStage: 3 } as const;
    expect(fact('decide', final)).toMatchObject({ is: 'elsewhere', ways: [{ of: 'stage', to: 'decide' }] });
    expect(fact('plan', { ...final, tasks: 0 }).ways).toEqual([{ of: 'stage', to: 'decide' }]);
    expect(fact('revise', { ...final, draftBegun: false }).is).toBe('do');
  });

  it('goes by the state', () => {
    expect(fact('plan', { state: 'finished' })).toMatchObject({ is: 'look', why: 'no other attempt' });
    expect(fact('plan', { state: 'open for another attempt' })).toMatchObject({ is: 'do', why: null });
    expect(fact('revise', { state: 'closed', draftBegun: false })).toMatchObject({
      is: 'look',
      why: 'missed',
    });
    expect(fact('send', { state: 'closed' })).toMatchObject({ is: 'nothing', why: 'missed' });
    expect(fact('send', { state: 'waiting again' })).toMatchObject({ is: 'look', why: 'it is being marked' });
    expect(fact('send', { kind: 'quiz', draftBegun: false })).toMatchObject({ is: 'do', why: null });
    expect(fact('send', { kind: 'quiz', byDesk: false })).toMatchObject({
      is: 'look',
      why: 'taken at the school',
    });
    expect(fact('send', { draftBegun: false }).ways).toEqual([{ of: 'this', to: 'revise' }]);
    expect(fact('send', { byDesk: false })).toMatchObject({ is: 'do', why: 'no course desk' });
    expect(fact('check', { draftBegun: false, state: 'finished' })).toMatchObject({
      is: 'look',
      ways: [{ of: 'this', to: 'revise' }],
    });
    expect(fact('read', { received: 0, state: 'open, nothing sent' })).toMatchObject({
      is: 'look',
      why: 'nothing came back',
    });
  });
});
