import type { Transaction } from 'sequelize';
import type { ServerContext } from '../context';

/**
 * Queues what is done with a recording that came: it is looked at, and then what the preview needs
 * is made of it. Looking is quick and waits behind no other recording's preparing.
 *
 * @returns the id of the first of both jobs
 */
export const queueIngest = (
  { queue }: ServerContext,
  projectId: string,
  footageId: string,
  transaction: Transaction,
): Promise<string> => queue.enqueue('probe', projectId, footageId, transaction);
