import { many } from './many.ts';

export const title = 'Practise what was missed';
export const lead = 'The questions that lost points, without their answers until you ask for them.';
export const at = (number: number, of: number) =>
  `${number} of ${many(of, 'question', 'questions')} that lost points`;
export const noResults = 'No results of this quiz are here yet.';
export const nothingMissed =
  'No question lost points whose wording came back, so there is nothing to practise.';
export const toQuestions = 'Read the questions';
export const question = (number: number, lost: string) => `Question ${number}, lost ${lost}`;
export const yourAnswer = 'Your answer now';
export const choose = 'choose';
export const up = (text: string) => `Move up: ${text}`;
export const down = (text: string) => `Move down: ${text}`;
export const show = 'Show what it should have had';
export const right = 'That is right.';
export const notRight = 'That is not what was asked for.';
export const wanted = 'It should have had';
export const notTold = 'The quiz doesn’t tell; compare it with what was said.';
export const before = 'You answered then';
export const nothing = 'nothing';
export const said = 'What was said';
export const back = 'Back';
export const next = 'Next question';
export const last = 'That was the last one.';
