/** The controls of cards. */
export { Choice, Tick } from './choices';
export { Field, Folded } from './field';
export { FeedCell, FeedField, LengthField, NumberField, TextField, WholeCell } from './text-fields';
