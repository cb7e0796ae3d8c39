import { client, take } from './client';

/** Whatever has a name here, by words. */
export const find = (words: string) => take(client.GET('/find', { params: { query: { words } } }));
