import * as v from 'valibot';

/** Where a remark came from. The order is the one in which channels are shown. */
export const channels = [
  'overall',
  'criterion',
  'passage',
  'region',
  'recording',
  'question',
  'post',
  'overlap',
] as const;
/** One of the channels. */
export const Channel = v.picklist(channels);
export type Channel = v.InferOutput<typeof Channel>;
