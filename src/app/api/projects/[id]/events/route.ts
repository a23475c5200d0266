import { eventStream } from '@/server/feed/event-stream';
import { handle } from '@/server/http/handle';

export const dynamic = 'force-dynamic';
type Context = { params: Promise<{ id: string }> };

/** Footage, exports, jobs, takes and the stored revision as they change, as server-sent events. */
export const GET = handle<Context>(async (_request, { params }) => eventStream((await params).id));
