import { client, take } from './client';
import type { AlarmCode, Health, Watching } from './types';

const of = (webhook: number) => ({ params: { path: { webhook } } });
type WebhookFields = { name: string; address: string; alarms: AlarmCode[]; handMinutes: number };

/** How the instance is, and who is told of what. */
export const watching = {
    show: () => take(client.GET('/watching')),
    choose: (chosen: Watching['chosen']) => take(client.PUT('/watching', { body: chosen })),
    tryMail: () => take(client.POST('/watching/mail/trial')),
    /** Also where something fails it answers, with 503. */
    health: async () => {
        const answer = await fetch('/api/v1/health', { headers: { Accept: 'application/json' } });
        return (await answer.json()) as Health;
    },
    addWebhook: (fields: WebhookFields) => take(client.POST('/webhooks', { body: fields })),
    removeWebhook: (webhook: number) => take(client.DELETE('/webhooks/{webhook}', of(webhook))),
    tryWebhook: (webhook: number) => take(client.POST('/webhooks/{webhook}/trial', of(webhook))),
};
