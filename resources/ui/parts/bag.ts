import type { Bag } from '../api/types';
import { bytes, counted, dayAndClock, version } from './format';

/** How large a backup is, what it was made on, and what was done for it, as half a sentence. */
export const bagWords = (bag: Bag): string =>
    [
        `${bag.items === null ? 'Size not known yet' : `${counted(bag.items, 'item')}, ${bytes(bag.bytes)}`}, ` +
            `${bag.encryption === 'openpgp' ? 'encrypted' : 'plain'}, made on ${version(bag.madeOn)}`,
        bag.verifiedAt === null ? null : `every byte read back ${dayAndClock(bag.verifiedAt)}`,
        bag.keepUntil === null ? null : `sealed until ${dayAndClock(bag.keepUntil)}`,
    ]
        .filter((w) => w !== null)
        .join('; ');
