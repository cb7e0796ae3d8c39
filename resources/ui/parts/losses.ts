import type { Job, Route } from '../api/types';
import { accessoryName, appName, kindName } from './format';

/** The kinds that a route loses; where the accessories are named, their kind is not said a second time. */
export const lostKinds = ({ losses }: Route): string[] =>
    losses.lost.filter((k) => k !== 'accessory-pairing' || losses.pairingLost.length === 0).map(kindName);

/** The accessories and apps that a route loses, one by one. */
export const lostByName = ({ losses }: Route, device: Job['device']): string[] => [
    ...losses.pairingLost.map((a) => `pairing with ${accessoryName(device, a)}`),
    ...losses.appsUnavailable.map((a) => `app ${appName(device, a)}`),
];

export const lostNames = (route: Route, device: Job['device']): string[] => [
    ...lostKinds(route),
    ...lostByName(route, device),
];
