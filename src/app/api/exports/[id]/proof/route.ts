import { cancelProof, proofExport } from '@/contract/exports';
import { findServedExport } from '@/server/export/job';
import { serve } from '@/server/http/serve';
import { cancelProof as cancel, requestProof } from '@/server/proof/job';

export const POST = serve(proofExport, async ({ context, params }) => {
  await findServedExport(context, params.id);
  await requestProof(context, params.id);
});

export const DELETE = serve(cancelProof, async ({ context, params }) => {
  await findServedExport(context, params.id);
  await cancel(context, params.id);
});
