/** Every word of the interface, by place: what only one place says is loaded with it. Sentences are whole; figures come in as arguments. */
export { frame, keptForm, name, notice, places, signIn, skip, undo } from './frame.ts';
export { arrivals, tally } from './arrivals.ts';
export { takeIn, comingIn } from './take-in.ts';
export { assignment, line } from './assignment.ts';
export * as needs from './needs.ts';
export * as sorting from './sorting.ts';
export * as stations from './stations.ts';
export * as newFiles from './new-files.ts';
export * as items from './items.ts';
export * as practice from './practice.ts';
export * as posts from './posts.ts';
export { said } from './said.ts';
export { slip, reading, keys } from './read.ts';
export { marks, terms } from './marks.ts';
export { deciding } from './decide.ts';
export { plan, week } from './plan.ts';
export { check } from './check.ts';
export { look } from './look.ts';
export { send } from './send.ts';
export { learn } from './learn.ts';
export { response } from './response.ts';
export { language, preview, receiptSheet } from './files.ts';
export { asks } from './ask.ts';
export { shelf, sizeOf } from './shelf.ts';
export { takeAlong } from './take-along.ts';
export { overlap } from './overlap.ts';
export { settings } from './settings.ts';
export { rubric } from './rubric.ts';
export { standing } from './standing.ts';
export {
  decisions,
  channels,
  stances,
  outcomes,
  changeKinds,
  unreadable,
  promisePlaces,
  contradictions,
  unanswered,
} from './kinds.ts';
