/** The controls of cards. */
export { Choice, Tick } from './choices';
export { Field, Folded } from './field';
export { FeedCell, FeedField, LengthCell, LengthField, NumberField, TextField, WholeCell } from './text-fields';
