import type { SecondCopy } from '../../api/types';

export const COPY_STATE: Record<SecondCopy['state'], string> = {
    waiting: 'waits for the second place',
    carrying: 'on its way to the second place',
    there: 'second place too',
    returning: 'on its way back from the second place',
    leaving: 'goes from the second place',
};
