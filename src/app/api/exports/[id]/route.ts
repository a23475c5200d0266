import { cancelExport, deleteExport } from '@/contract/exports';
import { cancelExport as cancel, deleteExport as remove } from '@/server/export/job';
import { serve } from '@/server/http/serve';

export const POST = serve(cancelExport, ({ context, params }) => cancel(context, params.id));

export const DELETE = serve(deleteExport, ({ context, params }) => remove(context, params.id));
