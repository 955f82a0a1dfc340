import type { Setup } from '@/core/doc/setup';
import type { CardProps } from './card-props';

export type SetupProps = Pick<CardProps, 'job' | 'change'>;

/** What changes a card's setup. */
export const setterOf = (change: CardProps['change']) => (edit: (s: Setup) => void) => change((j) => edit(j.setup));
