/** The controls of cards. */
export { Choice, Tick } from './choices';
export { Field, Folded } from './field';
export { FeedField, LengthField, NumberField, TextField } from './text-fields';
