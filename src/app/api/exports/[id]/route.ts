import { cancelExport, deleteExport } from '@/server/export/job';
import { handle } from '@/server/http/handle';

type Context = { params: Promise<{ id: string }> };

/** Stops the export. */
export const POST = handle<Context>(async (_request, { params }) => {
  await cancelExport((await params).id);
  return null;
});

export const DELETE = handle<Context>(async (_request, { params }) => {
  await deleteExport((await params).id);
  return null;
});
