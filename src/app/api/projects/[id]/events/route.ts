import { projectEvents } from '@/contract/state';
import { eventStream } from '@/server/feed/event-stream';
import { serve } from '@/server/http/serve';

export const dynamic = 'force-dynamic';

export const GET = serve(projectEvents, ({ context, params }) => eventStream(context, params.id));
